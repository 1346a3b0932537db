package report

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/core/wording"
)

// RanOnWords say on which stand an attempt was run, and on what oil, "" where nobody told it.
func RanOnWords(st *bench.State, a *unit.Attempt, units quantity.System) string {
	o := st.RanOn(a, nil)
	out := nonEmpty(a.RanOn.Stand, o.Name)
	if o.Known {
		words := quantity.Show(o.Viscosity, quantity.KinematicViscosity, units)
		if o.HasCelsius {
			words += " at " + quantity.Show(o.Celsius, quantity.Temperature, units)
		}
		out = append(out, words)
	}
	if o.Clean != "" {
		out = append(out, "ISO 4406 "+o.Clean+wording.Behind(", dirtier than the guidance of ", o.Dirty))
	}
	return strings.Join(out, ", ")
}

// runs say of each attempt that a claim rests on what it was run on and read with.
func (d Data) runs() (out []string) {
	numbers := map[int]bool{}
	for i := range d.S.Claims {
		for _, s := range d.S.Claims[i].Steps {
			if s.Read {
				numbers[s.Attempt] = true
			}
		}
	}
	for _, n := range slices.Sorted(maps.Keys(numbers)) {
		a := d.S.Unit.Attempt(n)
		ran := cmp.Or(RanOnWords(d.S, a, d.Units), "nobody told what")
		read := strings.Join(nonEmpty(a.PressureGauge, a.FlowMeter, a.Thermometer), ", ")
		out = append(out, fmt.Sprintf("Attempt %d, %s: run on %s%s.", n, d.Date(a.At), ran,
			wording.Behind("; read with ", read)))
	}
	return out
}
