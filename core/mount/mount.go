// Package mount is what a rebuilt unit shows on a simulated stand, worked out from its record:
// its own clearances, settings, springs, and the mistakes of its build.
package mount

import (
	"math"

	"corvek/core/family"
	"corvek/core/fluidpower"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/unit"
)

// Facts are the unit as its record has it.
type Facts struct {
	Tag     string
	Family  *family.Family
	Model   proof.Model // after the work, from its own clearances and relief spring
	Duty    proof.Duty
	Setting unit.Setting
	Limit   func(step, figure string) *unit.StepLimit // the unit's own limits; nil for none
	Need    func(of string) (float64, string)         // what the job needs; nil where nothing was told
	Level   func(at family.Tight) (float64, string)   // the pressure a step is run at; nil for duty
	Stiff   bool                                      // it turned hard at the build
	SealOK  bool                                      // soft parts were renewed
	Air     bool                                      // it was not filled or bled as it asks
	Ring    bool                                      // a seal went in the wrong way round
	Springs float64                                   // share of their force that the springs fitted give, 0 not known
	Wear    float64                                   // largest share of a wear limit that a clearance has used
	Worn    bool                                      // a clearance was measured, so that wear is known
	// What of it is not known and was made up, so that it can be run for practice
	Invented []string
}

// leaky are figures that grow with a clearance where no model of leaks says more.
var leaky = map[string]bool{
	"leakage":     true,
	"leakage_in":  true,
	"leakage_out": true,
	"drift":       true,
	"drops":       true,
	"vent":        true,
}

// past is how much of a limit goes past a clearance: laminar leak goes as its third power, and
// a clearance at its wear limit is taken as twice that of a new fit, which just meets the limit.
func past(wear float64) float64 { return math.Pow((1+math.Max(0, wear))/2, 3) }

// faults are the mistakes of the build that the stand shows by itself.
func (u Facts) faults() (out []string) {
	if u.Air {
		out = append(out, FaultAir)
	}
	if u.Ring {
		out = append(out, FaultRing)
	}
	return out
}

// sprung are figures that a spring sets: a stack with too little force moves them all.
var sprung = map[string]bool{"cracking": true, "reseat": true, "falling": true, "cut_off": true, "standby": true,
	"torque": true}

// weak tells whether the springs fitted give another force than what belongs there.
func (u Facts) weak() bool { return u.Springs > 0 && u.Springs != 1 }

// Mount puts the unit on the simulated stand for a step of its test: what pump and motor
// deliver follows from the model as the stand runs, what else the step reads is worked out
// here.
func (u Facts) Mount(t *family.Test) Mounted {
	m := Mounted{Tag: u.Tag, Action: u.Family.Action, Model: u.Model, Duty: u.Duty, Stiff: u.Stiff, SealOK: u.SealOK,
		Rest: map[string]float64{}, Faults: u.faults(), Invented: u.Invented}
	at := u.level(t.At) * t.Pressure
	for _, r := range t.Reads {
		v, ok := u.figure(t, r, at)
		set := r.By == family.BySetting && u.Model.Relief.Cracking == 0
		if ok && (set || family.OfNeed(r.Of)) {
			m.Needed = append(m.Needed, r.Figure)
		}
		if u.weak() && (sprung[r.Figure] || r.By == family.BySetting) {
			v *= u.Springs
		}
		if ok {
			m.Rest[r.Figure] = v
		}
	}
	return m
}

// level is the pressure in Pa that a step is run at, duty where nothing more is known.
func (u Facts) level(at family.Tight) float64 {
	if u.Level != nil {
		if level, needs := u.Level(at); needs == "" {
			return level
		}
	}
	return u.Duty.Pressure
}

// need is what a limit is a share of: what the job needs, and where that was not told what a unit of
// this kind might need.
func (u Facts) need(of, figure string) float64 {
	if u.Need != nil {
		if v, needs := u.Need(of); needs == "" {
			return v
		}
	}
	if v, usual := usualNeeds[of]; usual {
		return v
	}
	return usualFigures[figure]
}

// usualNeeds are in base units.
var usualNeeds = map[string]float64{family.OfLeak: 5e-6 / 60, family.OfLayer: 500, "need_creep": 2e-3,
	"need_shot": 0.75e-6, "need_draw_time": 60, "need_turns": 2, "need_load_time": 20}

// figure is what an instrument shows once the stand has come to the pressure.
func (u Facts) figure(t *family.Test, r family.Read, at float64) (v float64, ok bool) {
	if r.Figure == "start_torque" && u.Duty.HasDisplacement {
		return fluidpower.TheoreticalTorque(at, u.Duty.Displacement) * Mechanical, true
	}
	rules := proof.Rules{Accept: u.Family.Accept, Setting: u.Setting, Duty: u.Duty, Own: u.Limit}
	alone := family.Test{Code: t.Code, Pressure: t.Pressure, Reads: []family.Read{r}}
	j := proof.JudgeStep(&alone, &unit.Point{}, rules)
	f := j.Figures[0]
	good := u.SealOK && !u.Ring
	v, ok = aim(f.Limits, good)
	if u.Worn && good && leaky[r.Figure] && f.Limits.HasUpper {
		v = math.Max(v, f.Limits.Upper*past(u.Wear)) // never finer than an instrument reads
	}
	switch {
	case !ok:
		return u.usual(r.Figure)
	case f.By == family.ByReseat:
		v *= u.opens()
	case f.Of == family.OfStart, f.Of == family.OfDuty:
		v *= u.Duty.Pressure
	case f.By == family.ByRatio:
		v *= usualFigures["supply"]
	case f.By == family.ByShot:
		v *= u.need("need_shot", r.Figure) * usualFigures["strokes"]
	case f.By == family.ByLimit && f.Of != "" && f.Of != family.OfTheory && f.Of != family.OfTorque:
		v *= u.need(f.Of, r.Figure)
	}
	return v, true
}

// opens is where its relief opens: in the middle of what it is to be set to, else at duty.
func (u Facts) opens() float64 {
	if v, ok := proof.ReliefBand(u.Family.Accept, u.Setting, u.Duty.Pressure).Middle(); ok {
		return v
	}
	return u.Duty.Pressure
}

// usual is what a unit of this size might show where neither model nor limit says anything.
func (u Facts) usual(figure string) (v float64, ok bool) {
	if u.Duty.HasPressure && (figure == "pressure" || figure == "cut_off") {
		return u.Duty.Pressure, true
	}
	v, ok = usualFigures[figure]
	return v, ok
}

// usualFigures are in base units.
var usualFigures = map[string]float64{
	"pressure": 100e5, "cut_off": 200e5, "standby": 22e5, "cracking": 100e5, "supply": 6e5, "back_pressure": 50e5,
	"flow": 20e-3 / 60, "torque": 500, "drag_torque": 15, "force": 20e3, "stroke": 0.3, "strokes": 20, "drops": 30,
	"turns": 2, "time": 1, "volume": 15e-6, "stroke_volume": 0.75e-6, "shut_in": 2e-3, "noise": 72,
	"outlet_a": 10e-3 / 60, "outlet_b": 10e-3 / 60, "suction_lift": 0.3,
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
