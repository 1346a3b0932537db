package wording

import (
	"corvek/core/origin"
	"corvek/core/quantity"
)

// origins say where a figure is from, at the bench.
var origins = map[origin.Origin]string{
	origin.Typed: "told", origin.Read: "measured on this unit", origin.Sheet: "sheet of the model",
	origin.Document: "document", origin.Rule: "rule, by this unit's own size", origin.Table: "table",
	origin.Instrument: "its instrument", origin.Worked: "worked out",
	origin.Simulated: "simulated, an exercise",
}

// OriginOf says where a figure is from, in a word and what stands behind it.
func OriginOf(f origin.Figure) string {
	words := Rule(f.Words, f.Span, func(m float64) string { return quantity.Show(m, quantity.Length, quantity.Metric) })
	return origins[f.Origin] + Behind(": ", words)
}
