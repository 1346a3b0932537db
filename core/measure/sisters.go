package measure

import (
	"fmt"
	"math"
	"slices"

	"corvek/core/family"
	"corvek/core/unit"
)

// How far from its sisters a piece must be to be named: so many times their own
// scatter, and more than the instrument can make of nothing.
const oddFactor = 4.0

// sisters compares pieces that should be alike and names the one that is not:
// the one farthest from the middle reading, where the scatter of the others does
// not explain it (median absolute deviation, a common robust rule).
func (r *Result) sisters(s Spec, values map[string]float64) {
	var all []float64
	for _, slot := range s.Slots() {
		if v, ok := values[slot]; ok {
			all = append(all, v)
		}
	}
	if len(all) < 4 {
		return
	}
	middle := median(all)
	apart := make([]float64, len(all))
	for i, v := range all {
		apart[i] = math.Abs(v - middle)
	}
	scatter := median(apart)
	least := 2e-6
	if step, ok := s.Resolution.Known(); ok {
		least = 2 * step
	}
	for i, slot := range s.Slots() {
		v, ok := values[slot]
		if !ok {
			continue
		}
		if d := math.Abs(v - middle); d > r.OddBy && d > oddFactor*scatter && d > least*(1+1e-9) {
			r.Odd, r.OddBy = i+1, d
		}
	}
}

func median(vs []float64) float64 {
	s := slices.Clone(vs)
	slices.Sort(s)
	n := len(s)
	if n%2 == 1 {
		return s[n/2]
	}
	return (s[n/2-1] + s[n/2]) / 2
}

// fits takes mating parts pair by pair: what counts is the hole less its own shaft.
func (r *Result) fits(s Spec, entries []*unit.Reading) {
	values := map[string]float64{}
	for _, e := range entries {
		values[e.Slot] = e.Size.SI
	}
	var all []float64
	for i := 1; i <= max(1, s.Cols); i++ {
		hole, h := values[fmt.Sprintf("h%d", i)]
		shaft, k := values[fmt.Sprintf("s%d", i)]
		gap := math.NaN()
		if h && k {
			gap = hole - shaft
			if gap < 0 {
				r.Faults[fmt.Sprintf("s%d", i)] = "is larger than its hole; check both readings"
				gap = math.NaN()
			}
		}
		r.Fits = append(r.Fits, gap)
		if !math.IsNaN(gap) {
			all = append(all, gap)
		}
	}
	if len(all) == 0 {
		return
	}
	// Two readings make one clearance, so their uncertainties add as squares.
	r.Uncertainty *= math.Sqrt2
	r.judge(s, all)
}

// bow is half of what a dial indicator swings over a turn.
func (r *Result) bow(s Spec) {
	if s.Method == family.MethodTIR && r.HasValue {
		r.Bow, r.HasBow = r.Value/2, true
	}
}
