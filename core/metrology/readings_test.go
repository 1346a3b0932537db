package metrology_test

import (
	"math"
	"testing"

	"corvek/core/metrology"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// A bore of 40 mm read at three depths on two axes, in µm over 40 mm:
//
//	depth 1:  12   4    spread  8
//	depth 2:  30   9    spread 21
//	depth 3:  15  10    spread  5
//
// Mean 80/6; out-of-round 21; taper max(|12−15|, |4−10|) = 6.
func TestBoreGridByHand(t *testing.T) {
	const um = 1e-6
	grid := [][]float64{{40e-3 + 12*um, 40e-3 + 4*um}, {40e-3 + 30*um, 40e-3 + 9*um}, {40e-3 + 15*um, 40e-3 + 10*um}}
	s := metrology.SummariseGrid(grid)
	assert.Equal(t, 6, s.N)
	assert.InDelta(t, 40e-3+80.0/6*um, s.Mean, 1e-12)
	assert.InDelta(t, 26*um, s.Range, 1e-12)
	assert.InDelta(t, 21*um, s.OutOfRound, 1e-12)
	assert.InDelta(t, 6*um, s.Taper, 1e-12)
	assert.InDelta(t, 30*um, s.Wear(40e-3, metrology.Bore), 1e-12)
	assert.InDelta(t, -4*um, s.Wear(40e-3, metrology.Shaft), 1e-12, "a shaft on the tight side has lost nothing")
	assert.Equal(t, s.Maximum, s.Worst(metrology.Bore))
	assert.Equal(t, s.Minimum, s.Worst(metrology.Shaft))
	// Squares about the mean: (−4/3)² + (−28/3)² + (50/3)² + (−13/3)² + (5/3)² + (−10/3)² = 3594/9.
	assert.InDelta(t, math.Sqrt(3594.0/9/5)*um, s.StandardDeviation, 1e-12)

	column := metrology.SummariseGrid([][]float64{{1}, {2}})
	assert.False(t, column.HasOutOfRound, "one axis cannot tell out-of-round")
	assert.True(t, column.HasTaper)
	row := metrology.SummariseGrid([][]float64{{1, 2}})
	assert.True(t, row.HasOutOfRound)
	assert.False(t, row.HasTaper, "one depth cannot tell taper")
	assert.Zero(t, metrology.Summarise([]float64{3}).StandardDeviation)
}

// Moving every reading moves mean and extremes and nothing else; no order of
// readings matters.
func TestReadingsShiftAndOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		values := rapid.SliceOfN(rapid.Float64Range(-1, 1), 1, 12).Draw(t, "values")
		shift := rapid.Float64Range(-5, 5).Draw(t, "shift")
		moved := make([]float64, len(values))
		for i, v := range values {
			moved[len(values)-1-i] = v + shift
		}
		a, b := metrology.Summarise(values), metrology.Summarise(moved)
		for name, pair := range map[string][2]float64{
			"mean": {a.Mean + shift, b.Mean}, "minimum": {a.Minimum + shift, b.Minimum},
			"maximum": {a.Maximum + shift, b.Maximum},
			"range":   {a.Range, b.Range}, "deviation": {a.StandardDeviation, b.StandardDeviation},
		} {
			if math.Abs(pair[0]-pair[1]) > 1e-12*(1+math.Abs(shift)) {
				t.Fatalf("%s: %g and %g", name, pair[0], pair[1])
			}
		}
		if a.Mean < a.Minimum-1e-12 || a.Mean > a.Maximum+1e-12 || a.StandardDeviation > a.Range {
			t.Fatalf("%+v", a)
		}
	})
}

func TestWearLifeByHand(t *testing.T) {
	for _, c := range []struct {
		name                     string
		nominal, limit, measured float64
		rate, used, left         float64
		worn                     bool
	}{
		{"a bore two fifths gone", 25, 25.05, 25.02, 5e-6, 0.4, 6000, true},
		{"a shaft two fifths gone", 25, 24.95, 24.98, 5e-6, 0.4, 6000, true},
		{"at the limit", 25, 25.05, 25.05, 12.5e-6, 1, 0, true},
		{"past it", 25, 25.05, 25.06, 15e-6, 1.2, 0, true},
		{"as new", 25, 25.05, 25, 0, 0, 0, false},
		{"still on the tight side", 25, 24.95, 25.01, -2.5e-6, -0.2, 0, false},
	} {
		t.Run(c.name, func(t *testing.T) {
			l := metrology.WearLife(c.nominal, c.limit, c.measured, 4000)
			assert.InDelta(t, c.rate, l.Rate, 1e-12)
			assert.InDelta(t, c.used, l.Used, 1e-9)
			assert.InDelta(t, c.left, l.HoursLeft, 1e-6)
			assert.Equal(t, c.worn, l.Worn)
		})
	}
}

// ISO 14253-1, the four places a value can lie at an upper limit of 7 with
// U = 1, and what the plain rule makes of them.
func TestGuardBandsAtTheUpperLimit(t *testing.T) {
	for value, want := range map[float64][2]metrology.Verdict{
		6:    {metrology.In, metrology.In}, // U ends on the limit: inside
		6.01: {metrology.Undecided, metrology.In},
		7:    {metrology.Undecided, metrology.In},
		7.5:  {metrology.Undecided, metrology.Out},
		8:    {metrology.Undecided, metrology.Out}, // U ends on the limit again
		8.01: {metrology.Out, metrology.Out},
	} {
		l := metrology.AtMost(7)
		assert.Equal(t, want[0], metrology.Judge(value, l, 1, true).Verdict, "guarded %g", value)
		assert.Equal(t, want[1], metrology.Judge(value, l, 1, false).Verdict, "simple %g", value)
		assert.InDelta(t, 7-value, metrology.Judge(value, l, 1, true).MarginUpper, 1e-12)
	}
	m, ok := metrology.Between(3, 7).Middle()
	assert.True(t, ok)
	assert.Equal(t, 5.0, m)
	_, ok = metrology.AtLeast(3).Middle()
	assert.False(t, ok)
	// A dial of 0.01 mm: 0.01/√3 = 0.00577 mm.
	assert.InDelta(t, 5.7735e-6, metrology.ExpandedFromResolution(1e-5), 1e-10)
}
