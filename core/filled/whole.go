package filled

import (
	"strconv"

	"corvek/core/bench"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// duty gives displacement, speed and pressure under the names they have in a calculator.
func (f *from) duty(pressure string) {
	f.size("displacement", f.Unit.Displacement, "displacement of the unit")
	f.size("speed", f.Unit.Speed, "speed of the unit")
	f.size(pressure, f.Unit.DutyPressure, "duty pressure")
}

// read gives a figure of a step of the newest test that has it.
func (f *from) read(name, step, figure string) {
	for i := len(f.Attempts) - 1; i >= 0; i-- {
		a := f.Attempts[i]
		for j := range a.Points {
			p := &a.Points[j]
			if p.Test == nil || p.Test.Code != step {
				continue
			}
			if x := p.Figure(figure); x != nil && !x.Q.IsZero() {
				f.size(name, x.Q, x.Name+" at "+p.Test.Name+", test "+strconv.Itoa(a.Number))
				return
			}
		}
	}
}

func pump(f *from, _ string) {
	f.duty("pressure")
	f.read("flow", "p100", "flow")
	f.read("torque", "p100", "torque")
	f.read("case_flow", "case_flow", "case_flow")
}

func motor(f *from, _ string) {
	f.duty("pressure")
	f.read("flow", "slip_cw", "flow")
	f.read("torque", "slip_cw", "torque")
	f.read("case_flow", "case_flow", "case_flow")
}

// kindSize gives a size that the one part of a kind has, as new or as it was read.
func (f *from) kindSize(name string, kinds []string, feature string) {
	for _, p := range f.Parts {
		for _, k := range kinds {
			if p.Def.Kind != k {
				continue
			}
			if s, known := f.Sizes.At(p.Code + "." + feature); known {
				f.si(name, s.SI, quantity.Length, p.Name+", "+feature)
				return
			}
		}
	}
}

var tubes = []string{"tube", "barrel", "body"}

func cylinder(f *from, _ string) {
	f.kindSize("bore", tubes, "bore")
	f.kindSize("rod", []string{"rod"}, "diameter")
	f.size("pressure", f.Unit.DutyPressure, "duty pressure")
	f.size("stroke", f.Unit.Need.Stroke, "full stroke it needs")
}

func creepLeak(f *from, _ string) {
	f.kindSize("bore", tubes, "bore")
	f.read("creep", "drift", "drift")
}

// pieces is how many of a kind there are, as they were counted.
func (f *from) pieces(name, kind string) {
	for _, p := range f.Parts {
		if n, err := strconv.Atoi(p.Found); p.Def.Kind == kind && err == nil && n > 0 {
			f.put(name, strconv.Itoa(n), p.Name+", counted")
			return
		}
	}
}

func pistonRipple(f *from, _ string) {
	f.pieces("pistons", "piston_set")
	f.size("speed", f.Unit.Speed, "speed of the unit")
	f.size("displacement", f.Unit.Displacement, "displacement of the unit")
}

func retainerLift(f *from, _ string) {
	f.kindSize("piston_diameter", []string{"piston_set"}, "diameter")
	f.pieces("pistons", "piston_set")
}

func flowDivider(f *from, _ string) {
	f.read("flow_a", "share", "outlet_a")
	f.read("flow_b", "share", "outlet_b")
}

func fluidBalance(f *from, _ string) {
	u := f.Unit
	f.size("capacity", u.Capacity, "capacity of the system")
	f.size("level_before", u.LevelBefore, "in the system when draining began")
	f.size("drained", u.Drained, "drained")
	f.size("water", u.Water, "water that settled out")
	f.size("gained_elsewhere", u.GainedElsewhere, "found in the other sump")
	f.size("vessel", u.Vessel, "vessel it was drained into")
}

func residual(f *from, _ string) {
	f.size("capacity", f.Unit.Capacity, "capacity of the system")
	f.size("drained", f.Unit.Drained, "drained")
}

func fillPlan(f *from, _ string) {
	f.size("capacity", f.Unit.Capacity, "capacity of the system")
	f.size("cap", f.Unit.Need.Fill, "most oil that the book lets in")
}

func linePull(f *from, _ string) {
	n := &f.Unit.Need
	f.size("drum_diameter", n.Drum, "drum of the machine")
	f.size("rope_diameter", n.Rope, "rope of the machine")
	f.size("layer", n.Layer, "layer of the rope")
	for _, p := range f.Parts {
		if t, carries := f.Carries(p, p.Stack != nil && len(p.Stack.Fit) > 0); carries {
			f.si("torque", t, quantity.Torque, "what "+p.Name+" carries by its own springs and plates")
			return
		}
	}
}

func standby(f *from, _ string) {
	f.size("book_low", f.Unit.Setting.Low, "setting, from")
	f.size("book_high", f.Unit.Setting.High, "setting, to")
	f.read("measured", "standby", "standby")
	f.read("flow", "standby", "flow")
	f.size("flow_needed", f.Unit.Need.Flow, "flow that the machine needs")
}

func shims(f *from, _ string) {
	u, sh := f.Unit, f.State.Shims
	f.put("fitted", u.ShimsFitted, "shims as they came out")
	f.put("available", u.ShimsAvailable, "shims on the shelf")
	f.size("removed_from_body", u.OffBody, "off the body")
	f.size("removed_from_gears", u.OffGears, "off the gears")
	if sh == nil || sh.Fault != "" {
		return
	}
	whence := sh.Feature.Def.Name + " of " + sh.Feature.Part.Name + ", both sides together"
	f.si("measured_clearance", sh.Measured, quantity.Length, whence+", as found")
	f.si("lower", sh.Lower, quantity.Length, whence+", limit")
	f.si("upper", sh.Upper, quantity.Length, whence+", limit")
}

func needles(f *from, _ string) {
	f.kindSize("shaft", []string{"gear_shaft", "rod"}, "journal")
	f.kindSize("needle", []string{"needles"}, "diameter")
}

// rebuild is the offer to rebuild this unit alone, as it is worked out at Decide.
func rebuild(f *from, _ string) {
	j := f.Job
	f.size("rate", j.LabourRate, "rate of an hour")
	f.size("new_price", j.NewPrice, "price of a new one")
	f.size("downtime_cost_per_day", j.DowntimeCost, "a day of standing")
	o := bench.OffersOf([]*bench.State{f.State}).Rebuild
	if !o.Known {
		f.size("labour_hours", j.LabourHours, "hours of work")
		return
	}
	const offer = "offer to rebuild"
	f.si("parts", o.Parts, quantity.Number, offer+", parts")
	f.si("labour_hours", o.Hours*3600, quantity.Time, offer+", hours")
	f.si("outside_work", o.Outside, quantity.Number, offer+", work outside")
	if o.Said.Days {
		f.si("rebuild_days", o.Days*86400, quantity.Time, offer+", days")
	}
}

// builtOr is the stage that was read last.
func builtOr(x *bench.Feature) string {
	if x.Built.HasValue {
		return unit.StageBuilt
	}
	return unit.StageFound
}
