package unit

import "corvek/core/quantity"

// Rework is one way of saving a part, as far as it was gone. It outlives the rounds: what
// is off stays off.
type Rework struct {
	OfPart `json:"-"`

	// Code of the way
	Route string `json:"route,omitempty" gorm:"primaryKey"`
	// This way was taken and not another
	Goes bool `json:"goes,omitempty"`
	// Off the part in all, a length
	Taken quantity.Quantity `json:"taken,omitzero" gorm:"serializer:length"`
	// How flatness was found, one of the Flat constants
	FlatHow string `json:"flat_how,omitempty"`
	// Out of flat before, a length
	FlatFirst quantity.Quantity `json:"flat_first,omitzero" gorm:"serializer:length"`
	// Out of flat at last, a length
	FlatNow quantity.Quantity `json:"flat_now,omitzero" gorm:"serializer:length"`
	// Money, of a part that goes out
	Price quantity.Quantity `json:"price,omitzero" gorm:"serializer:number"`
	Sent  Date              `json:"sent,omitempty" gorm:"serializer:day"`
	Back  Date              `json:"back,omitempty" gorm:"serializer:day"`
}

// How flatness is found.
const (
	FlatBlued    = "blued"         // blued and rubbed on a surface plate
	FlatEdge     = "straight_edge" // straight-edge and leaf
	FlatDial     = "dial"          // dial indicator on a surface plate
	FlatOptical  = "optical"       // optical flat and light
	FlatNotFound = "not_found"
)

// FlatWays are the ways to find flatness, the usual ones first.
var FlatWays = []string{FlatBlued, FlatEdge, FlatDial, FlatOptical, FlatNotFound}

// Rework is the part's rework by a way, nil when nothing was said of it.
func (p *Part) Rework(route string) *Rework {
	return find(p.Reworks, func(r *Rework) bool { return r.Route == route })
}

// Out reports that the part was sent away and did not come back yet.
func (r *Rework) Out() bool { return r.Sent != "" && r.Back == "" }

// Coil is what was found out about a coil spring whose length says that it may not be
// the one of the book. A size that was not given is zero.
type Coil struct {
	Is    string            `json:"is,omitempty"` // whose it is, one of the Coil constants
	Rate  quantity.Quantity `json:"rate,omitzero" gorm:"serializer:spring rate"`
	Wire  quantity.Quantity `json:"wire,omitzero" gorm:"serializer:length"`
	Mean  quantity.Quantity `json:"mean,omitzero" gorm:"serializer:length"`  // diameter in the middle of the wire
	Turns quantity.Quantity `json:"turns,omitzero" gorm:"serializer:number"` // that move
}

// Whose a spring is that is not as long as the book has it.
const (
	CoilOwn     = "own"     // this variant's, and set or broken
	CoilAnother = "another" // of another variant
	CoilChanged = "changed" // exchanged in the field for another setting
)

// CoilKinds are the answers to whose spring it is.
var CoilKinds = []string{CoilOwn, CoilAnother, CoilChanged}

// ReworkRef addresses a field of a way to save the part.
func (u *Unit) ReworkRef(part, route, name string) Ref {
	return Ref{Scope: ScopeRework, Unit: u.Number, Part: part, Code: route, Name: name}
}
