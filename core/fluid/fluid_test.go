package fluid_test

import (
	"testing"

	"corvek/core/fluid"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// Rows of the tables of ASTM D2270: a fluid with v40 = L has index 0, with v40 = H index 100.
func TestViscosityIndexTableRows(t *testing.T) {
	for _, r := range []struct{ v100, l, h float64 }{{2.00, 7.994, 6.394}, {5.00, 40.23, 28.49},
		{7.00, 78.00, 48.57}, {10.00, 147.7, 82.87}, {15.00, 296.5, 149.7}, {20.00, 493.2, 229.5}} {
		vi, ok := fluid.VI(r.l, r.v100)
		assert.True(t, ok)
		assert.InDelta(t, 0, vi, 1.5, "L at %v", r.v100)
		vi, _ = fluid.VI(r.h, r.v100)
		assert.InDelta(t, 100, vi, 2.5, "H at %v", r.v100)
	}
	_, ok := fluid.VI(5, 1.9)
	assert.False(t, ok)
}

func TestTheLineGoesThroughItsPointsAndFalls(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		v100 := rapid.Float64Range(2, 40).Draw(t, "v100")
		v40 := v100 * rapid.Float64Range(2, 20).Draw(t, "ratio")
		line := fluid.Line(v40, v100)
		if d := line.At(40) - v40; d > 1e-6*v40 || d < -1e-6*v40 {
			t.Fatalf("%v at 40 °C, not %v", line.At(40), v40)
		}
		warm := rapid.Float64Range(0, 120).Draw(t, "temperature")
		if line.At(warm+1) >= line.At(warm) {
			t.Fatalf("thicker when warmer at %v", warm)
		}
	})
}

// ISO 4406: the code steps at the upper limit of each class.
func TestCodes(t *testing.T) {
	for count, code := range map[float64]int{0: 0, .01: 0, .011: 1, 1.3: 7, 1.31: 8, 10: 10, 10.1: 11, 80: 13,
		640: 16, 1300: 17, 2500: 18, 2501: 19, 5000: 19, 80000: 23, 2.5e6: 28, 2.6e6: 29} {
		assert.Equal(t, code, fluid.Code(count), "%v", count)
	}
}

// Where no density is given it is that of the fluid's kind.
func TestDensityOfAFluid(t *testing.T) {
	for name, want := range map[string]float64{"": 870, "mineral oil VG 68": 870, "Water glycol": 1080, "HFC": 1080,
		"phosphate ester": 1140, "synthetic ester HEES": 920, "brake fluid DOT 4": 1060, "water": 998} {
		assert.Equal(t, want, fluid.DensityOf(name), name)
	}
}
