package proof

import (
	"math"

	"corvek/core/family"
	"corvek/core/fluidpower"
	"corvek/core/unit"
)

// overall is the overall efficiency (ISO 4391): of a pump hydraulic power over shaft power,
// of a motor the other way. It needs pressure, flow, torque and speed of the same step.
func (r Rules) overall(t *family.Test, f *Figured, p *unit.Point) {
	pressure, flow, speed := p.Figure("pressure"), p.Figure("flow"), p.Figure("speed").SI
	if speed <= 0 {
		speed = r.Duty.Speed
	}
	switch {
	case pressure.SI <= 0:
		f.Needs = "pressure"
	case flow.SI <= 0:
		f.Needs = "flow"
	case speed <= 0:
		f.Needs = "speed"
	}
	if f.Needs != "" {
		return
	}
	torque := f.Q.SI
	fluid, shaft := pressure.SI*flow.SI, fluidpower.ShaftPower(torque, speed)
	doubt := math.Hypot(
		f.Uncertainty/torque,
		math.Hypot(r.gauge("pressure", pressure).Uncertainty(pressure)/pressure.SI,
			r.gauge("flow", flow).Uncertainty(flow)/flow.SI),
	)
	f.Value = fluid / shaft
	if t.Judges(family.BySlip) {
		f.Value = shaft / fluid
	}
	f.Uncertainty = doubt * f.Value
	if f.Value > 1+f.Uncertainty {
		f.Note = "more comes out than goes in: a gauge is wrong"
	}
}
