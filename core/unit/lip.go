package unit

import "corvek/core/quantity"

// Lip is where a lip seal ran, and how deep its new one can go. Depths are from the
// housing's outer face.
type Lip struct {
	Groove   quantity.Quantity `json:"groove,omitzero"`   // near edge of the groove on the shaft
	Width    quantity.Quantity `json:"width,omitzero"`    // of the groove
	Position quantity.Quantity `json:"position,omitzero"` // of the lip, from the seal's own outer face
	Bore     quantity.Quantity `json:"bore,omitzero"`     // depth of the bore
	Shoulder quantity.Quantity `json:"shoulder,omitzero"` // where the seal must stop, where there is one
}
