package bench

import (
	"math"

	"corvek/core/family"
	"corvek/core/unit"
)

// Need is what the job needs, in base units, by what a limit is a share of; needs says what must be
// told first.
func (st *Rated) Need(of string) (value float64, needs string) {
	switch of {
	case family.OfLeak:
		return st.allowedLeak()
	case family.OfLayer:
		return st.layerTorque()
	}
	if v, told := st.Unit.Needed(of).Known(); told {
		return v, ""
	}
	return 0, family.NeedWords(of)
}

// told reports that the job tells a need of a claim. What a machine can bear is told as a creep over its
// time or as a leak.
func (st *Rated) told(field string) bool {
	switch field {
	case "duty_pressure":
		return st.Duty.HasPressure
	case "speed":
		return st.Duty.HasSpeed
	case "displacement":
		return st.Duty.HasDisplacement
	case "setting_low":
		return !st.Unit.Setting.Low.IsZero()
	case "need_medium":
		return st.Unit.Need.Medium != ""
	case "need_creep", "need_load_time":
		return !st.Unit.Needed(field).IsZero() || !st.Unit.Need.Leak.IsZero()
	}
	return !st.Unit.Needed(field).IsZero()
}

// allowedLeak is the leak that the machine can bear: told as a flow, or what the allowed creep takes
// of the cap side over its time.
func (st *Rated) allowedLeak() (flow float64, needs string) {
	n := st.Unit.Need
	if v, told := n.Leak.Known(); told {
		return v, ""
	}
	creep, hasCreep := n.Creep.Known()
	over, hasTime := n.LoadTime.Known()
	bore, hasBore := st.size("tube", "bore")
	switch {
	case !hasCreep:
		return 0, "allowed leak or creep"
	case !hasTime || over <= 0:
		return 0, family.NeedWords("need_load_time")
	case !hasBore:
		return 0, "bore"
	}
	return creep * circle(bore) / over, ""
}

// layerTorque is the torque that a brake must hold: line pull times the radius of the middle of its
// layer, with the factor that is asked.
func (st *Rated) layerTorque() (torque float64, needs string) {
	u := st.Unit
	for _, field := range []string{"need_line_pull", "need_drum", "need_rope", "need_layer"} {
		if u.Needed(field).IsZero() {
			return 0, family.NeedWords(field)
		}
	}
	n := u.Need
	factor, told := n.Factor.Known()
	if !told {
		factor = 1
	}
	radius := n.Drum.SI/2 + (n.Layer.SI-0.5)*n.Rope.SI
	return n.LinePull.SI * radius * factor, ""
}

func circle(diameter float64) float64 { return math.Pi * diameter * diameter / 4 }

// size is a size of this unit as it was measured, of the first part of a kind that has it.
func (st *Stripped) size(kind, feature string) (si float64, ok bool) {
	for _, p := range st.Parts {
		if p.Def.Kind != kind {
			continue
		}
		if si, ok = p.measured(feature); ok {
			return si, true
		}
	}
	return 0, false
}

// measured is a size of the part: after the work where it was measured then, else as it was found.
func (p *AsFound) measured(feature string) (si float64, ok bool) {
	for _, f := range p.Features {
		switch {
		case f.Code != feature:
		case f.Built.HasValue:
			return f.Built.Value, true
		case f.Found.HasValue:
			return f.Found.Value, true
		}
	}
	return 0, false
}

// Level is the pressure in Pa that a step of the test is run at; needs says what must be told or
// read first.
func (st *Rated) Level(at family.Tight) (pressure float64, needs string) { return st.level(nil, at) }

// level is Level with the relief as it was read in an attempt, where that read it.
func (st *Rated) level(a *unit.Attempt, at family.Tight) (pressure float64, needs string) {
	duty := st.Duty.Pressure
	if at == family.AtStated {
		return st.Need("need_pressure")
	}
	if at == family.AtComplaint {
		if v, told := st.Unit.Need.ComplaintPressure.Known(); told {
			return v, ""
		}
	}
	if !st.Duty.HasPressure {
		return 0, family.NeedWords("duty_pressure")
	}
	switch at {
	case family.AtHighest:
		opens, has := st.reliefOpens(a)
		if has && opens == 0 {
			return 0, "the pressure at which its relief opens"
		}
		return math.Max(duty, opens), ""
	case family.AtRodEnd:
		bore, hasBore := st.size("tube", "bore")
		rod, hasRod := st.size("rod", "diameter")
		switch {
		case !hasBore:
			return 0, "bore"
		case !hasRod || rod >= bore:
			return 0, "rod"
		}
		return duty * circle(bore) / (circle(bore) - circle(rod)), ""
	}
	return duty, ""
}

// reliefOpens is the pressure at which the relief of this unit opened when it was last read, which
// is the highest that the unit sees; 0 where nobody read it. has is false of a unit without one.
func (st *Rated) reliefOpens(a *unit.Attempt) (pressure float64, has bool) {
	r := st.Family.Relief
	if r == nil || st.ByCode[r.Part] == nil {
		return 0, false
	}
	for i := range st.Family.Tests {
		t := &st.Family.Tests[i]
		if !t.Judges(family.BySetting) {
			continue
		}
		has = true
		for n := len(st.Unit.Attempts) - 1; n >= 0; n-- {
			x := st.Unit.Attempts[n]
			if x.Number == 0 || x != a && x.Source == unit.SourceSimulated {
				continue
			}
			if p := x.Point(t.Code); p != nil && p.Figure("pressure").SI > 0 {
				return p.Figure("pressure").SI, true
			}
		}
	}
	return 0, has
}

// late tells that the limit of a figure is another now than when it was read in an attempt.
func (st *Rated) late(a *unit.Attempt, step, figure string) bool {
	p := a.Point(step)
	if p == nil {
		return false
	}
	g := st.Unit.Ground(p.Taking(figure).Ground)
	if g == nil {
		return true
	}
	low, high, now := "limit/"+step+"."+figure+"/least", "limit/"+step+"."+figure+"/most", st.stands
	if st.Unit.StepLimit(step, figure) == nil { // it is judged by the setting of the relief
		low, high = "unit/setting_low", "unit/setting_high"
	}
	return g.Stood[low] != now[low] || g.Stood[high] != now[high]
}
