package unit

import "corvek/core/quantity"

// Lip is where a lip seal ran, and how deep its new one can go. Depths are from the
// housing's outer face.
type Lip struct {
	// Near edge of the groove on the shaft
	Groove quantity.Quantity `json:"groove,omitzero" gorm:"serializer:length"`
	// Of the groove
	Width quantity.Quantity `json:"width,omitzero" gorm:"column:groove_width;serializer:length"`
	// Of the lip, from the seal's own outer face
	Position quantity.Quantity `json:"position,omitzero" gorm:"serializer:length"`
	// Depth of the bore
	Bore quantity.Quantity `json:"bore,omitzero" gorm:"serializer:length"`
	// Where the seal must stop, where there is one
	Shoulder quantity.Quantity `json:"shoulder,omitzero" gorm:"serializer:length"`
}
