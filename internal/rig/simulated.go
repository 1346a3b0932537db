// Package rig is the test stand. The simulated stand that ships with the
// product derives every figure from the unit's own clearances and relief
// spring, with the resolution and scatter of real instruments, and says that
// it is simulated wherever its figures are shown.
package rig

import (
	"hash/fnv"
	"math"
	"math/rand/v2"
	"slices"

	"corvek/core/family"
	"corvek/core/fluidpower"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Reading is what the stand shows for one step, as an operator would write it.
type Reading struct {
	Figures map[string]string // by the code of the figure
	Word    string
}

// scatter is that of a steady reading, one standard deviation as a share of it.
const scatter = 0.002

// mechanical is the share of the theoretical torque that is left for a shaft, or comes on
// top of it for a pump.
const mechanical = 0.92

// steps are the resolutions of the simulated instruments.
var steps = map[quantity.Dimension]float64{
	quantity.Pressure: 0.5e5, quantity.Flow: 0.05e-3 / 60, quantity.Rotation: 1, quantity.Temperature: 1,
	quantity.Torque: 0.1, quantity.Force: 10, quantity.Length: 0.1e-3, quantity.Volume: 0.5e-6,
	quantity.Time: 1, quantity.Number: 0.01, quantity.Current: 0.01, quantity.Resistance: 0.1,
}

// Simulated is the stand with a unit on it.
type Simulated struct {
	Family  *family.Family
	Model   proof.Model
	Duty    proof.Duty
	Setting unit.Setting
	Limit   func(step, figure string) *unit.StepLimit // the unit's own limits; nil for none
	Seed    string                                    // the same unit at the same try reads the same
	Turn    string                                    // the worst feel of the shaft at the build
	SealOK  bool                                      // shaft seals and gaskets were renewed
}

// Run takes one step of the test plan.
func (s Simulated) Run(t family.Test) Reading {
	rng := s.noise(t.Code)
	at := s.Duty.Pressure * t.Pressure
	if t.Judges(family.ByEfficiency) {
		at = s.Model.Stall(at) // the relief holds it there
	}
	out := Reading{Figures: map[string]string{}, Word: s.observe(t)}
	for _, r := range t.Reads {
		g, _ := family.FigureByCode(r.Figure)
		v, ok := s.figure(t, r, at)
		if !ok {
			continue
		}
		if g.Dim == quantity.Flow {
			v *= 1 + scatter*rng.NormFloat64()
		}
		out.Figures[r.Figure] = show(math.Max(0, v), g.Dim)
	}
	return out
}

// figure is what one instrument shows with the unit at a pressure.
func (s Simulated) figure(t family.Test, r family.Read, at float64) (v float64, ok bool) {
	theory := s.Model.Theoretical()
	switch r.Figure {
	case "pressure":
		if r.By == family.BySetting && s.Model.Relief.Cracking > 0 {
			return s.Model.Stall(3 * s.Duty.Pressure), true
		}
		if r.By == family.ByLimit && s.Duty.HasPressure && r.Of == "" {
			if at == 0 {
				at = s.Duty.Pressure
			}
			return at, true
		}
	case "flow":
		switch r.By {
		case family.ByEfficiency:
			return s.Model.Deliver(at), theory > 0
		case family.ByDisplacement:
			return theory / 4, theory > 0
		case family.BySlip:
			return theory + s.Model.Leak(at), theory > 0
		}
		return theory / 2, theory > 0
	case "speed":
		if t.Judges(family.ByDisplacement) {
			return s.Duty.Speed / 4, s.Duty.HasSpeed
		}
		return s.Duty.Speed, s.Duty.HasSpeed
	case "case_flow":
		return s.Model.Leak(at), theory > 0
	case "outlet_a", "outlet_b":
		flow := s.Model.Deliver(at) / 2
		if flow == 0 {
			flow = 10e-3 / 60
		}
		return flow, true
	case "torque":
		if s.Duty.HasDisplacement && at > 0 {
			return fluidpower.TheoreticalTorque(at, s.Duty.Displacement) / mechanical, true
		}
	case "start_torque":
		return fluidpower.TheoreticalTorque(at, s.Duty.Displacement) * 0.8, s.Duty.HasDisplacement
	case "temperature", "temperature_end":
		return 46, true
	}
	return s.healthy(t, r)
}

// healthy is a figure that the model says nothing of: well inside what is asked of it where
// the seals are new, beyond it where they are the old ones.
func (s Simulated) healthy(t family.Test, r family.Read) (v float64, ok bool) {
	rules := proof.Rules{Accept: s.Family.Accept, Setting: s.Setting, Duty: s.Duty, Own: s.Limit}
	alone := family.Test{Code: t.Code, Pressure: t.Pressure, Reads: []family.Read{r}}
	j := proof.JudgeStep(&alone, &unit.Point{}, rules)
	f := j.Figures[0]
	v, ok = aim(f.Limits, s.SealOK)
	switch {
	case !ok:
		return s.usual(r.Figure)
	case f.Of == "start", f.Of == "duty":
		v *= s.Duty.Pressure
	case f.By == family.ByDecay:
		v = s.Duty.Pressure * (1 - v)
	case f.By == family.ByReseat:
		v *= s.Duty.Pressure
	}
	return v, true
}

// usual is what a unit of this size might show where neither model nor limit says anything.
func (s Simulated) usual(figure string) (v float64, ok bool) {
	if s.Duty.HasPressure && (figure == "pressure" || figure == "pressure_end" || figure == "cut_off") {
		return s.Duty.Pressure, true
	}
	v, ok = usualFigures[figure]
	return v, ok
}

// usualFigures are in base units.
var usualFigures = map[string]float64{
	"pressure": 100e5, "pressure_end": 100e5, "cut_off": 200e5, "standby": 22e5, "cracking": 100e5, "supply": 6e5,
	"back_pressure": 50e5, "flow": 20e-3 / 60, "torque": 500, "drag_torque": 15, "force": 20e3, "stroke": 0.3,
	"strokes": 20, "drops": 30, "turns": 2, "time": 1, "volume": 15e-6, "stroke_volume": 0.75e-6, "shut_in": 2e-3,
	"current": 2, "coil": 12, "noise": 72,
}

// aim is a figure inside its limits, or past them.
func aim(l metrology.Limits, good bool) (v float64, ok bool) {
	mid, both := l.Middle()
	switch {
	case l.Empty():
		return 0, false
	case !good && l.HasUpper:
		return 2 * l.Upper, true
	case both:
		return mid, true
	case l.HasUpper:
		return 0.3 * l.Upper, true
	}
	return l.Lower * 1.04, true
}

// observe answers with the feel noted at the build where the step asks for it, with a leak
// where the seals are old, and otherwise with the first good word.
func (s Simulated) observe(t family.Test) string {
	if slices.Contains(t.Words, s.Turn) {
		return s.Turn
	}
	if !s.SealOK && slices.Contains(t.Words, "drips") {
		return "drips"
	}
	if len(t.Good) > 0 {
		return t.Good[0]
	}
	return ""
}

func (s Simulated) noise(code string) *rand.Rand {
	h := fnv.New64a()
	_, _ = h.Write([]byte(s.Seed + "/" + code))
	return rand.New(rand.NewPCG(h.Sum64(), 1))
}

func show(si float64, d quantity.Dimension) string {
	u, decimals := quantity.ShopUnit(si, d, quantity.Metric)
	step := steps[d]
	if d == quantity.Flow && si < 2*step {
		step = 0.5e-6 / 60
	}
	if d == quantity.Number {
		return quantity.Figures(math.Round(si/step)*step, 3)
	}
	return u.Format(math.Round(si/step)*step, decimals)
}
