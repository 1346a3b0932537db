package fluidpower

import "math"

// FlowAtMargin is the flow through a metering edge at another margin (standby) pressure than
// the one it was read at: it goes as the root of the drop (orifice law).
func FlowAtMargin(flow, margin, at float64) float64 { return flow * math.Sqrt(at/margin) }

// MarginFor is the margin pressure that gives a needed flow where one margin gave another.
func MarginFor(needed, flow, margin float64) float64 {
	return margin * (needed / flow) * (needed / flow)
}
