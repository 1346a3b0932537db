// Package origin tells where a figure is from, as part of the figure: nothing is printed of a unit that is another's.
package origin

import "corvek/core/quantity"

// Origin is where a figure of a unit is from.
type Origin string

// The origins there are.
const (
	Typed      Origin = "typed"      // somebody told it, without a paper
	Read       Origin = "read"       // measured on this unit
	Sheet      Origin = "sheet"      // the shop's sheet of its model
	Document   Origin = "document"   // of the maker, a drawing, a standard
	Rule       Origin = "rule"       // a share of a size of this unit
	Table      Origin = "table"      // of a standard or of practice, by a size or a class of this unit
	Instrument Origin = "instrument" // what it was measured with
	Worked     Origin = "worked"     // worked out of others of this unit
	Simulated  Origin = "simulated"  // of an exercise: no figure of this unit
)

// Figure is a quantity of a unit as it is printed. Where it is from is part of it.
type Figure struct {
	Part, Name string // Part is the code of a part, "" of the whole unit
	SI         float64
	Dim        quantity.Dimension
	Origin     Origin
	Words      string  // the document and page, the rule, what it was worked out of
	Span       float64 // m, the length that § stands for in Words
}
