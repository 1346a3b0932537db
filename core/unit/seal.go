package unit

import "corvek/core/quantity"

// Seal is what a seal or a bearing is. What was not said is empty; sizes are as measured
// on the piece or on its place, so that the standard size can be found from them.
type Seal struct {
	Standard string            `json:"standard,omitempty"` // AS568, ISO 3601, ISO 6194, ISO 15
	Size     string            `json:"size,omitempty"`     // -214, 24.2 x 3, 20 x 35 x 7, 6204
	Material string            `json:"material,omitempty"` // ISO 1629 letters
	Hardness quantity.Quantity `json:"hardness,omitzero"`  // Shore A, a bare number
	Cure     string            `json:"cure,omitempty"`     // 2029-Q2 or a day
	MakerNo  string            `json:"maker_no,omitempty"` // the maker's part number

	Inside  quantity.Quantity `json:"inside,omitzero"` // of a ring
	Section quantity.Quantity `json:"section,omitzero"`
	Shaft   quantity.Quantity `json:"shaft,omitzero"` // of a lip seal: what it runs on
	Bore    quantity.Quantity `json:"bore,omitzero"`  // of the housing
	Width   quantity.Quantity `json:"width,omitzero"`
	Outside quantity.Quantity `json:"outside,omitzero"` // of the removed seal, which has relaxed: not the bore
}

// Order is how a new piece is got.
type Order struct {
	State    string `json:"state,omitempty"` // one of the Order constants, "" while nothing was said
	Supplier string `json:"supplier,omitempty"`
	Number   string `json:"number,omitempty"`
	Due      Date   `json:"due,omitempty"`
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

// Fit is how a new piece went in where that was tried.
type Fit struct {
	Says string            `json:"says,omitempty"` // one of the Fit constants
	Gap  quantity.Quantity `json:"gap,omitzero"`   // as measured: the clearance it has there
}

// How a new piece went in.
const (
	FitGood  = "fits"
	FitTight = "too_tight"
	FitLoose = "too_loose"
	FitWrong = "other_shape"
)

// FitWords are what can be said of a fit.
var FitWords = []string{FitGood, FitTight, FitLoose, FitWrong}

// Bad reports that the piece does not fit, with the fit measured where it can be.
func (f Fit) Bad() bool {
	return f.Says == FitWrong || (f.Says == FitTight || f.Says == FitLoose) && !f.Gap.IsZero()
}
