package bench

import (
	"fmt"
	"strings"

	"corvek/core/calc"
	"corvek/core/family"
	"corvek/core/leakage"
	"corvek/core/proof"
	"corvek/core/quantity"
)

// Lost is what the clearances of one part let past at duty, with the working.
type Lost struct {
	Flow  float64 // m3/s
	Share float64 // of the theoretical flow, 0 where that is not known
	Steps []string
}

// LostBy is the price of a part's clearances in lost flow; ok is false where nothing of it
// leaks, or duty and viscosity are not known.
func (st *Modelled) LostBy(p *Part) (lost Lost, ok bool) {
	if !st.Leak.Known {
		return lost, false
	}
	paths, _ := proof.Paths(st.Family, func(feature string) (float64, bool) {
		part, _ := family.CutFeature(feature)
		f := st.feature(feature)
		if part != p.Code || f == nil || !f.Found.Figure() {
			return 0, false
		}
		return f.Found.Total(f.Measured), true
	}, st.length)
	c := leakage.Conditions{Drop: st.Duty.Pressure, Viscosity: st.Duty.Viscosity}
	for _, path := range paths {
		flow := path.Flow(c)
		lost.Flow += flow
		lost.Steps = append(lost.Steps, path.Name+":")
		lost.Steps = append(lost.Steps, workingOf(path, c)...)
		if n := max(path.Count, 1); n > 1 {
			lost.Steps = append(lost.Steps, fmt.Sprintf("%d such gaps: Q = %s", n,
				quantity.Show(flow, quantity.Flow, quantity.Metric)))
		}
	}
	if theory := st.Found.Theoretical(); theory > 0 {
		lost.Share = lost.Flow / theory
	}
	return lost, len(paths) > 0
}

// workingOf is the working of one gap of a path.
func workingOf(p leakage.Path, c leakage.Conditions) []string {
	given := calc.NewGiven().SI("length", p.Length, quantity.Length).
		SI("pressure_drop", c.Drop*p.Share, quantity.Pressure).
		SI("dynamic_viscosity", c.Viscosity, quantity.DynamicViscosity)
	name := "plane_leak"
	if p.Shape == leakage.ShapeAnnular {
		name = "annular_leak"
		given.SI("diameter", p.Diameter, quantity.Length).SI("clearance", 2*p.Gap, quantity.Length).
			SI("eccentricity", p.Eccentricity, quantity.Number)
	} else {
		given.SI("width", p.Width, quantity.Length).SI("gap", p.Gap, quantity.Length)
	}
	out, err := calc.Ask(name, given)
	if err != nil {
		return []string{strings.ReplaceAll(name, "_", " ") + ": " + err.Error()}
	}
	return out.Steps
}
