package mount

import (
	"slices"

	"corvek/core/leakage"
	"corvek/core/metrology"
	"corvek/core/proof"
)

// inventedLoss is the share of its flow that a unit of unknown clearances loses at duty on the practice stand.
const inventedLoss = 0.05

// InventedLeak is a path that lets so much past at a pressure (Pa) as a sound pump might lose: a plane gap of
// 30 µm over 10 mm, as wide as that takes.
func InventedLeak(m proof.Model, pressure float64) leakage.Path {
	return pathOf(m, pressure, inventedLoss*m.Theoretical())
}

// pathOf is a plane gap of 30 µm over 10 mm, as wide as it must be for a flow.
func pathOf(m proof.Model, pressure, flow float64) leakage.Path {
	p := leakage.Path{Name: "made up for practice", Shape: leakage.ShapePlane, Count: 1, Width: 1, Length: 10e-3,
		Gap: 30e-6, Share: 1}
	one := p.Flow(leakage.Conditions{Drop: pressure, Viscosity: m.Viscosity})
	if one > 0 {
		p.Width = flow / one
	}
	return p
}

// Losing is a model that lets so much more past at a pressure (Pa) that it delivers no more than a flow (m³/s).
func Losing(m proof.Model, pressure, flow float64) proof.Model {
	if more := m.Deliver(pressure) - flow; more > 0 {
		m.Paths = append(slices.Clone(m.Paths), pathOf(m, pressure, more))
	}
	return m
}

// InventedRelief is a relief that opens in the middle of a band, or just within its one end, and passes its whole
// flow there: where it opens by halves the flow is too little to be steady at the pressure it was read at.
func InventedRelief(band metrology.Limits) proof.Relief {
	opens, ok := band.Middle()
	switch {
	case ok:
	case band.HasUpper:
		opens = 0.97 * band.Upper
	default:
		opens = 1.03 * band.Lower
	}
	return proof.Relief{Cracking: opens}
}
