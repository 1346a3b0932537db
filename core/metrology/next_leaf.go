package metrology

import (
	"math"
	"slices"
)

const thou = 25.4e-6 // m

// Tried are all leaves that were tried, in m.
func (l Leaves) Tried() []float64 { return slices.Concat(l.Goes, l.Drags, l.Stops) }

// Coarse reports that the interval reaches just from limit to limit: it is in as
// far as the leaves tell, and its middle is known no better than the whole band.
func (iv Interval) Coarse(l Limits) bool {
	return iv.Bounded && l.HasLower && l.HasUpper && sameLeaf(iv.AtLeast, l.Lower) && sameLeaf(iv.LessThan, l.Upper)
}

// NextLeaf is the leaf to try next: the limit that lies inside an undecided
// interval, or the upper one while nothing stops; never one that was tried, then
// the next larger. Of an interval from limit to limit it is the one nearest its
// middle. set are the leaves at hand, the usual ones where none are given. Limits,
// interval and leaves are in the same sense, in m. ok is false when nothing is left
// to try.
func (iv Interval) NextLeaf(l Limits, tried, set []float64) (leaf float64, ok bool) {
	was := func(v float64) bool {
		return slices.ContainsFunc(tried, func(t float64) bool { return sameLeaf(t, v) })
	}
	inside := func(v float64) bool {
		return (v > iv.AtLeast || sameLeaf(v, iv.AtLeast)) &&
			(!iv.Bounded || v < iv.LessThan && !sameLeaf(v, iv.LessThan))
	}
	if len(set) == 0 {
		set = usualLeaves(tried)
	}
	open := func(v float64) bool { return inside(v) && !was(v) }
	switch {
	case iv.Coarse(l):
		return nearest((l.Lower+l.Upper)/2, slices.DeleteFunc(slices.Clone(set), func(v float64) bool {
			return !open(v)
		}))
	case iv.Judge(l) != Undecided:
		return 0, false
	case l.HasUpper && open(l.Upper):
		return l.Upper, true
	case l.HasLower && open(l.Lower):
		return l.Lower, true
	}
	for _, v := range slices.Sorted(slices.Values(set)) {
		if v > iv.AtLeast && open(v) {
			return v, true
		}
	}
	return 0, false
}

func nearest(goal float64, set []float64) (best float64, ok bool) {
	for _, v := range set {
		if !ok || math.Abs(v-goal) < math.Abs(best-goal) {
			best, ok = v, true
		}
	}
	return best, ok
}

// usualLeaves are those of a usual set of the kind that was tried: every 0.05 mm,
// or every half thou up to six and every thou beyond.
func usualLeaves(tried []float64) (out []float64) {
	const step, most = 50e-6, 2e-3
	metric := len(tried) > 0
	for _, v := range tried {
		metric = metric && math.Abs(v/step-math.Round(v/step)) < 1e-6
	}
	if metric {
		for i := 1; float64(i)*step < most+step/2; i++ {
			out = append(out, float64(i)*step)
		}
		return out
	}
	for v := 1.0; v <= 80; v += map[bool]float64{true: 0.5, false: 1}[v < 6] {
		out = append(out, v*thou)
	}
	return out
}
