package proof

import (
	"fmt"
	"strings"

	"corvek/core/family"
	"corvek/core/fluidpower"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// GasIn reports that a step shuts gas in, by its medium.
func GasIn(t *family.Test) bool { return strings.Contains(t.Medium, "gas") }

// decay works out what a shut-in pressure lost once temperature is told apart, as a share of
// what stood at the start; against the unit's own limits it is the end pressure brought to
// the start temperature. Each temperature may be off by 1 K
// where no thermometer with a class is named. Where no temperatures were
// taken, cooling by 10 K may be in the drop: what is certain is only the rest.
func (r Rules) decay(t *family.Test, f *Figured, p *unit.Point) {
	start := p.Figure("pressure")
	if start.IsZero() || f.Q.IsZero() {
		return
	}
	in := fluidpower.ShutIn{Gas: GasIn(t)}
	first, last := p.Figure("temperature"), p.Figure("temperature_end")
	gauge := r.gauge("pressure", start)
	doubt := gauge.Uncertainty(start) + gauge.Uncertainty(f.Q)
	corrected := f.Q.SI
	switch {
	case first.IsZero() != last.IsZero():
		f.Needs = "the other temperature"
		return
	case !first.IsZero():
		t1, t2 := first.SI+fluidpower.Kelvin, last.SI+fluidpower.Kelvin
		corrected = in.Brought(f.Q.SI, t1, t2)
		f.Heat, f.Told = f.Q.SI-corrected, true
		doubt += in.Thermal(start.SI, t1, r.gauge("temperature", first).Thermometer())
	default:
		f.Cooling = in.Thermal(start.SI, 20+fluidpower.Kelvin, fluidpower.UsualCooling)
		corrected, doubt = corrected+f.Cooling/2, doubt+f.Cooling/2
	}
	lost := start.SI - corrected
	f.Note = fmt.Sprintf("%s lost, ±%s", quantity.Show(lost, quantity.Pressure, quantity.Metric),
		quantity.Show(doubt, quantity.Pressure, quantity.Metric))
	if f.From != guidance {
		f.Value, f.Uncertainty = corrected, doubt
		return
	}
	f.Value, f.Uncertainty, f.Dim = lost/start.SI, doubt/start.SI, quantity.Number
}
