package web

import (
	"corvek/core/quantity"
)

// fine writes a length that is smaller than a shop usually writes, such as an
// uncertainty: with three figures rather than to a thousandth.
func fine(m float64, system quantity.System) string {
	name := "µm"
	if system == quantity.Inch {
		name = "thou"
	}
	u, _ := quantity.UnitByName(name, quantity.Length)
	return quantity.Figures(u.In(m), 3) + " " + u.Name
}
