package metrology_test

import (
	"math"
	"testing"

	"corvek/core/metrology"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

func TestGuardedVerdictMirrors(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v := rapid.Float64Range(-1, 1).Draw(t, "value")
		u := rapid.Float64Range(0, .3).Draw(t, "uncertainty")
		a := metrology.Judge(v, metrology.Between(-.5, .5), u, true)
		b := metrology.Judge(-v, metrology.Between(-.5, .5), u, true)
		if a.Verdict != b.Verdict {
			t.Fatalf("%v and %v are judged differently", v, -v)
		}
		// A smaller uncertainty never turns in to out or out to in.
		c := metrology.Judge(v, metrology.Between(-.5, .5), u/2, true)
		if a.Verdict == metrology.In && c.Verdict != metrology.In || a.Verdict == metrology.Out &&
			c.Verdict != metrology.Out {
			t.Fatalf("%v became %v with less uncertainty", a.Verdict, c.Verdict)
		}
	})
}

// The pack found is as near the middle as any pack that brute force can make,
// and no larger than the smallest of the nearest.
func TestShimsAgainstBruteForce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var stock []metrology.ShimStock
		var single []float64
		for i := range rapid.IntRange(0, 3).Draw(t, "kinds") {
			s := metrology.ShimStock{Thickness: float64(rapid.IntRange(1, 30).Draw(t, "thickness")) * 1e-5,
				Count: rapid.IntRange(1, 3).Draw(t, "count")}
			stock = append(stock, s)
			for range s.Count {
				single = append(single, s.Thickness)
			}
			_ = i
		}
		fitted := []float64{5e-5}
		single = append(single, fitted...)
		measured := float64(rapid.IntRange(0, 60).Draw(t, "measured")) * 1e-5
		c, err := metrology.ChooseShims(measured, 8e-5, 18e-5, fitted, stock, 0, 0)
		if err != nil {
			t.Fatal(err)
		}
		target := math.Max(0, 5e-5+13e-5-measured)
		best, fewest := math.Inf(1), 0
		for mask := range 1 << len(single) {
			sum, n := 0.0, 0
			for i, s := range single {
				if mask>>i&1 == 1 {
					sum, n = sum+s, n+1
				}
			}
			if d := math.Abs(sum - target); d < best-1e-10 || d < best+1e-10 && n < fewest {
				best, fewest = d, n
			}
		}
		sum := 0.0
		for _, s := range c.Pack {
			sum += s
		}
		if math.Abs(math.Abs(sum-target)-best) > 1e-9 || len(c.Pack) != fewest {
			t.Fatalf("pack %v misses by %v; %d shims miss by %v", c.Pack, sum-target, fewest, best)
		}
	})
}

// A thousand shims of odd thicknesses are refused or answered, never searched for long.
func TestShimsAreBounded(t *testing.T) {
	var many, odd []metrology.ShimStock
	for i := range 40 {
		many = append(many, metrology.ShimStock{Thickness: 1e-4, Count: i})
	}
	_, err := metrology.ChooseShims(5e-3, 8e-5, 18e-5, nil, many, 0, 0)
	assert.ErrorIs(t, err, metrology.ErrTooManyPacks)
	for i := range 20 {
		odd = append(odd, metrology.ShimStock{Thickness: 1.01e-5 + float64(i*i)*1e-9*7, Count: 1000})
	}
	_, err = metrology.ChooseShims(1e-5, 8e-3, 18e-3, nil, odd, 0, 0)
	assert.ErrorIs(t, err, metrology.ErrTooManyPacks)
	// Millimetres and thousandths of an inch mixed, as shops have them, are well within.
	mixed := []metrology.ShimStock{{2.54e-5, 20}, {5.08e-5, 20}, {1e-5, 20}, {2e-5, 20}, {5e-5, 20}, {1e-4, 20}}
	c, err := metrology.ChooseShims(1e-5, 48e-5, 52e-5, []float64{7.62e-5}, mixed, 0, 0)
	assert.NoError(t, err)
	assert.True(t, c.Possible)
}

func BenchmarkShims(b *testing.B) {
	mixed := []metrology.ShimStock{{2.54e-5, 20}, {5.08e-5, 20}, {1e-5, 20}, {2e-5, 20}, {5e-5, 20}, {1e-4, 20}}
	for b.Loop() {
		if _, err := metrology.ChooseShims(1e-5, 48e-5, 52e-5, []float64{7.62e-5}, mixed, 0, 0); err != nil {
			b.Fatal(err)
		}
	}
}

func TestLeavesNeverJudgeBeyondWhatTheyTell(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		goes := float64(rapid.IntRange(1, 20).Draw(t, "goes"))
		stops := goes + float64(rapid.IntRange(1, 6).Draw(t, "more"))
		l := metrology.Between(5, 10)
		iv, err := metrology.Leaves{Goes: []float64{goes}, Stops: []float64{stops}}.Interval()
		if err != nil {
			t.Fatal(err)
		}
		v := iv.Judge(l)
		// Every gap the leaves allow must agree with a firm verdict.
		for gap := goes; gap < stops; gap += .25 {
			inside := gap >= 5 && gap <= 10
			if v == metrology.In && !inside || v == metrology.Out && inside {
				t.Fatalf("[%v, %v) was called %s, but %v is possible", goes, stops, v, gap)
			}
		}
	})
}

func TestWorst(t *testing.T) {
	assert.Equal(t, metrology.Out, metrology.Worst("in", "out", "undecided", ""))
	assert.Equal(t, metrology.Undecided, metrology.Worst("in", "undecided"))
	assert.Equal(t, metrology.Verdict(""), metrology.Worst())
}
