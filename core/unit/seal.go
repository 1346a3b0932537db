package unit

import "corvek/core/quantity"

// Seal is what a seal or a bearing is. What was not said is empty; sizes are as measured
// on the piece or on its place, so that the standard size can be found from them.
type Seal struct {
	// AS568, ISO 3601, ISO 6194, ISO 15
	Standard string `json:"standard,omitempty"`
	// -214, 24.2 x 3, 20 x 35 x 7, 6204
	Size string `json:"size,omitempty"`
	// ISO 1629 letters
	Material string `json:"material,omitempty"`
	// Shore A, a bare number
	Hardness quantity.Quantity `json:"hardness,omitzero" gorm:"serializer:number"`
	// 2029-Q2 or a day
	Cure string `json:"cure,omitempty"`
	// The maker's part number
	MakerNo string `json:"maker_no,omitempty"`

	// Of a ring
	Inside  quantity.Quantity `json:"inside,omitzero" gorm:"serializer:length"`
	Section quantity.Quantity `json:"section,omitzero" gorm:"serializer:length"`
	// Of a lip seal: what it runs on
	Shaft quantity.Quantity `json:"shaft,omitzero" gorm:"serializer:length"`
	// Of the housing
	Bore  quantity.Quantity `json:"bore,omitzero" gorm:"serializer:length"`
	Width quantity.Quantity `json:"width,omitzero" gorm:"serializer:length"`
	// Of the removed seal, which has relaxed: not the bore
	Outside quantity.Quantity `json:"outside,omitzero" gorm:"serializer:length"`
}

// Order is how a new piece is got.
type Order struct {
	State    string `json:"state,omitempty"` // one of the Order constants, "" while nothing was said
	Supplier string `json:"supplier,omitempty"`
	Number   string `json:"number,omitempty"`
	Due      Date   `json:"due,omitempty" gorm:"serializer:day"`
	// Days of lead time, as its supplier says; 0 where nobody asked
	Days int `json:"days,omitempty"`
	// Placed is the day it was ordered
	Placed Date `json:"placed,omitempty" gorm:"serializer:day"`
	// Came is the day the last piece of it came
	Came Date `json:"came,omitempty" gorm:"serializer:day"`
}

// How far an order is.
const (
	OrderWanted   = "wanted"
	OrderPlaced   = "ordered"
	OrderBack     = "back_order"
	OrderObsolete = "obsolete" // not made any more
	OrderMade     = "made"     // made outside to a drawing or a sample
)

// OrderStates are they in the order of an order.
var OrderStates = []string{OrderWanted, OrderPlaced, OrderBack, OrderMade, OrderObsolete}

// Awaited reports that a piece was ordered and is to come.
func (o Order) Awaited() bool {
	return o.State == OrderPlaced || o.State == OrderBack || o.State == OrderMade
}

// NotePlaced notes the day on which a piece was ordered, where none is noted yet, and forgets it where the piece is
// to be ordered still; it reports that it did.
func (o *Order) NotePlaced(day Date) bool {
	was := o.Placed
	switch {
	case o.Awaited() && was == "":
		o.Placed = day
	case o.State == "" || o.State == OrderWanted:
		o.Placed = ""
	}
	return o.Placed != was
}

// NoteCame notes the day on which what was ordered was there, where none is noted yet, and reports that it did.
func (o *Order) NoteCame(day Date) bool {
	if !o.Awaited() || o.Came != "" {
		return false
	}
	o.Came = day
	return true
}

// Fit is how a new piece went in where that was tried.
type Fit struct {
	// One of the Fit constants
	Says string `json:"says,omitempty" gorm:"column:fit"`
	// As measured: the clearance it has there
	Gap quantity.Quantity `json:"gap,omitzero" gorm:"column:fit_gap;serializer:length"`
}

// How a new piece went in.
const (
	FitGood  = "fits"
	FitTight = "too_tight"
	FitLoose = "too_loose"
	FitWrong = "other_shape"

	FitTurned = "lip_turned"
	FitNicked = "nicked"
)

// FitWords are what can be said of a fit.
var FitWords = []string{FitGood, FitTight, FitLoose, FitWrong, FitTurned, FitNicked}

// Damaged reports that the piece was hurt when it was tried: it goes in nowhere.
func (f Fit) Damaged() bool { return f.Says == FitTurned || f.Says == FitNicked }

// Bad reports that the piece does not fit, with the fit measured where it can be.
func (f Fit) Bad() bool {
	return f.Says == FitWrong || (f.Says == FitTight || f.Says == FitLoose) && !f.Gap.IsZero()
}
