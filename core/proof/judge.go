package proof

import (
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/unit"
)

// Band is the least volumetric efficiency accepted at a share of duty pressure:
// a straight line from the free-running figure to the one at duty, level beyond it.
func Band(a family.Accept, share float64) float64 {
	return a.EfficiencyFree + (a.EfficiencyDuty-a.EfficiencyFree)*min(1, share)
}

// reach is the share of a step's pressure that must have been reached for its
// flow to count.
const reach = 0.97

// Least is the pressure in Pa at which a step with this target counts as reached.
func Least(target float64) float64 { return reach * target }

// Reached reports that a step was run at its pressure, Pa.
func Reached(pressure, target float64) bool { return pressure >= Least(target) }

// Renewed is where new parts put a clearance: the middle of its limits, or half
// of an upper limit that stands alone.
func Renewed(l metrology.Limits) (gap float64, ok bool) {
	if m, ok := l.Middle(); ok {
		return m, true
	}
	return l.Upper / 2, l.HasUpper
}

// ReliefBand is the pressures in Pa between which a relief is to hold: the unit's own
// setting where one is known, else what its family says of duty pressure. Without
// either there are no limits.
func ReliefBand(a family.Accept, own unit.Setting, duty float64) metrology.Limits {
	l := metrology.Limits{}
	switch {
	case !own.Low.IsZero() || !own.High.IsZero():
		l.Lower, l.HasLower = own.Low.SI, !own.Low.IsZero()
		l.Upper, l.HasUpper = own.High.SI, !own.High.IsZero()
	case a.ReliefHigh > 0 && duty > 0:
		l = metrology.Between(a.ReliefLow*duty, a.ReliefHigh*duty)
	}
	return l
}

// JudgeWord judges an observation by the words that are good.
func JudgeWord(t family.Test, word string) metrology.Verdict {
	if word == "" {
		return ""
	}
	for _, g := range t.Good {
		if g == word {
			return metrology.In
		}
	}
	return metrology.Out
}

// Sum is the verdict over a whole attempt: out when any point is out, in only
// when every required point is in, otherwise still open.
func Sum(points []metrology.Verdict) metrology.Verdict {
	open := len(points) == 0
	for _, v := range points {
		switch v {
		case metrology.Out:
			return metrology.Out
		case metrology.In:
		default:
			open = true
		}
	}
	if open {
		return metrology.Undecided
	}
	return metrology.In
}
