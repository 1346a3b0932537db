package metrology_test

import (
	"math"
	"testing"

	"corvek/core/metrology"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

const thou = 25.4e-6

func leaves(goes, drags, stops []float64) metrology.Leaves {
	scale := func(vs []float64) []float64 {
		out := make([]float64, len(vs))
		for i, v := range vs {
			out[i] = v * thou
		}
		return out
	}
	return metrology.Leaves{Goes: scale(goes), Drags: scale(drags), Stops: scale(stops)}
}

// Leaves and limits in thou, worked by hand: the gap lies from the thickest leaf
// that goes up to, not including, the thinnest that stops.
func TestWhatLeavesSay(t *testing.T) {
	for _, c := range []struct {
		name               string
		goes, drags, stops []float64
		limits             metrology.Limits
		atLeast, lessThan  float64 // lessThan 0: unbounded
		verdict            metrology.Verdict
		next               float64 // 0: nothing to try
	}{
		{"inside the band", []float64{3, 5}, nil, []float64{6}, metrology.Between(3, 7), 5, 6, metrology.In, 0},
		{"upper limit inside the interval", []float64{5}, nil, []float64{9}, metrology.Between(3, 7), 5, 9,
			metrology.Undecided, 7},
		{"lower limit inside the interval", []float64{2}, nil, []float64{5}, metrology.Between(3, 7), 2, 5,
			metrology.Undecided, 3},
		{"both limits inside: the upper first", []float64{2}, nil, []float64{9}, metrology.Between(3, 7), 2, 9,
			metrology.Undecided, 7},
		{"first stop is the upper limit", []float64{5}, nil, []float64{7}, metrology.AtMost(7), 5, 7, metrology.In, 0},
		{"first stop is the lower limit", []float64{2}, nil, []float64{3}, metrology.AtLeast(3), 2, 3,
			metrology.Out, 0},
		{"thickest that goes is the lower limit", []float64{3}, nil, []float64{5}, metrology.AtLeast(3), 3, 5,
			metrology.In, 0},
		{"a leaf over the limit goes", []float64{8}, nil, []float64{9}, metrology.AtMost(7), 8, 9, metrology.Out, 0},
		{"goes freely at the limit", []float64{7}, nil, []float64{9}, metrology.AtMost(7), 7, 9,
			metrology.Undecided, 8},
		{"goes freely at the limit and nothing lies between", []float64{7}, nil, []float64{8}, metrology.AtMost(7), 7,
			8, metrology.Undecided, 0},
		{"all so far go, the limit's leaf too", []float64{3, 5, 7}, nil, nil, metrology.AtMost(7), 7, 0,
			metrology.Undecided, 8},
		{"from limit to limit", []float64{3}, nil, []float64{7}, metrology.Between(3, 7), 3, 7, metrology.In, 5},
		{"half thous up to six", []float64{2}, nil, []float64{4}, metrology.AtMost(2), 2, 4, metrology.Undecided, 2.5},
		{"drags at the limit", []float64{6}, []float64{7}, []float64{9}, metrology.AtMost(7), 7, 9, metrology.In, 0},
		{"drag under a leaf that goes means nothing", []float64{7}, []float64{6}, []float64{9}, metrology.AtMost(7),
			7, 9, metrology.Undecided, 8},
		{"nothing stops yet", []float64{5}, nil, nil, metrology.AtMost(7), 5, 0, metrology.Undecided, 7},
		{"nothing stops, over the limit", []float64{8}, nil, nil, metrology.AtMost(7), 8, 0, metrology.Out, 0},
		{"nothing goes", nil, nil, []float64{2}, metrology.AtMost(7), 0, 2, metrology.In, 0},
		{"nothing goes, under the lower limit", nil, nil, []float64{2}, metrology.Between(3, 7), 0, 2,
			metrology.Out, 0},
		{"no limit asked", []float64{5}, nil, []float64{6}, metrology.Limits{}, 5, 6, "", 0},
	} {
		t.Run(c.name, func(t *testing.T) {
			iv, err := leaves(c.goes, c.drags, c.stops).Interval()
			require.NoError(t, err)
			assert.InDelta(t, c.atLeast*thou, iv.AtLeast, 1e-12)
			assert.Equal(t, c.lessThan > 0, iv.Bounded)
			if mid, ok := iv.Midpoint(); ok {
				assert.InDelta(t, c.lessThan*thou, iv.LessThan, 1e-12)
				assert.InDelta(t, (c.atLeast+c.lessThan)/2*thou, mid, 1e-12)
			}
			limits := c.limits
			limits.Lower, limits.Upper = limits.Lower*thou, limits.Upper*thou
			assert.Equal(t, c.verdict, iv.Judge(limits))
			tried := leaves(c.goes, c.drags, c.stops).Tried()
			next, ok := iv.NextLeaf(limits, tried, nil)
			assert.Equal(t, c.next > 0, ok)
			assert.InDelta(t, c.next*thou, next, 1e-12)
		})
	}
}

func TestLeavesThatCannotBe(t *testing.T) {
	for _, l := range []metrology.Leaves{leaves([]float64{8}, nil, []float64{7}),
		leaves([]float64{7}, nil, []float64{7}), leaves(nil, []float64{7}, []float64{7}),
		leaves([]float64{2}, []float64{9}, []float64{8})} {
		_, err := l.Interval()
		assert.ErrorIs(t, err, metrology.ErrContradiction)
	}
	_, err := metrology.Leaves{}.Interval()
	assert.ErrorIs(t, err, metrology.ErrNoLeaf)
}

// 0.20 mm of play pushed to one side is 0.10 mm on each side of a centred part,
// and the verdict is the same in either sense.
func TestSenseOfAClearance(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		goes := rapid.Float64Range(1, 10).Draw(t, "goes")
		stops := goes + rapid.Float64Range(.1, 5).Draw(t, "step")
		iv, err := leaves([]float64{goes}, nil, []float64{stops}).Interval()
		if err != nil {
			t.Fatal(err)
		}
		limits := metrology.Between(rapid.Float64Range(0, 5).Draw(t, "lower")*thou,
			rapid.Float64Range(5, 15).Draw(t, "upper")*thou)
		each := iv.In(metrology.Total, metrology.Each)
		if each.AtLeast != iv.AtLeast/2 || each.LessThan != iv.LessThan/2 {
			t.Fatalf("%v becomes %v", iv, each)
		}
		if iv.Judge(limits) != each.Judge(limits.In(metrology.Total, metrology.Each)) {
			t.Fatalf("judged differently in another sense: %v %v", iv, limits)
		}
		if back := each.In(metrology.Each, metrology.Total); back != iv {
			t.Fatalf("%v comes back as %v", iv, back)
		}
	})
}

// The leaf that is proposed was not tried and lies where the gap may be; the one
// at the limit settles it, whether it stops or goes with drag.
func TestProposedLeaf(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		goes := float64(rapid.IntRange(1, 20).Draw(t, "goes"))
		stops := goes + float64(rapid.IntRange(1, 10).Draw(t, "step"))
		limits := metrology.AtMost(float64(rapid.IntRange(1, 30).Draw(t, "upper")) * thou)
		l := leaves([]float64{goes}, nil, []float64{stops})
		iv, err := l.Interval()
		if err != nil {
			t.Fatal(err)
		}
		leaf, ok := iv.NextLeaf(limits, l.Tried(), nil)
		if !ok {
			return
		}
		if leaf < iv.AtLeast+1e-12 || leaf > iv.LessThan-1e-12 {
			t.Fatalf("%v: %g says nothing new", l, leaf)
		}
		if math.Abs(leaf-limits.Upper) > 1e-12 {
			return
		}
		stopped, dragged := l, l
		stopped.Stops = append([]float64{leaf}, l.Stops...)
		dragged.Drags = []float64{leaf}
		for _, l := range []metrology.Leaves{stopped, dragged} {
			if iv, err = l.Interval(); err != nil || iv.Judge(limits) != metrology.In {
				t.Fatalf("%v: %v, %v", l, iv.Judge(limits), err)
			}
		}
	})
}

// In millimetres the usual leaves go by twentieths; a set at hand is kept to.
func TestNextLeafOfTheSet(t *testing.T) {
	l := metrology.Leaves{Goes: []float64{0.10e-3}, Stops: []float64{0.25e-3}}
	iv, err := l.Interval()
	require.NoError(t, err)
	leaf, ok := iv.NextLeaf(metrology.AtMost(0.10e-3), l.Tried(), nil)
	require.True(t, ok)
	assert.InDelta(t, 0.15e-3, leaf, 1e-12)
	leaf, ok = iv.NextLeaf(metrology.AtMost(0.10e-3), l.Tried(), []float64{0.08e-3, 0.10e-3, 0.20e-3, 0.30e-3})
	require.True(t, ok)
	assert.InDelta(t, 0.20e-3, leaf, 1e-12)
}
