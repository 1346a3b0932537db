package unit

import "corvek/core/quantity"

// Lip is where a lip seal ran, and how deep its new one can go. Depths are from the
// housing's outer face.
type Lip struct {
	Groove   quantity.Quantity // near edge of the groove on the shaft
	Width    quantity.Quantity // of the groove
	Position quantity.Quantity // of the lip, from the seal's own outer face
	Bore     quantity.Quantity // depth of the bore
	Shoulder quantity.Quantity // where the seal must stop, where there is one
}
