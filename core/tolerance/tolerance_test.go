package tolerance_test

import (
	"fmt"
	"math"
	"testing"

	"corvek/core/tolerance"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// Forty classes at their sizes, as tables of limits of size give them (ISO 286-2), in µm.
func TestLimitsOfSizes(t *testing.T) {
	for _, c := range []struct {
		class        string
		mm           float64
		lower, upper float64
	}{
		{"H7", 3, 0, 10}, {"H7", 6, 0, 12}, {"H7", 10, 0, 15}, {"H7", 16, 0, 18}, {"H7", 20, 0, 21},
		{"H7", 40, 0, 25}, {"H7", 63, 0, 30}, {"H7", 100, 0, 35}, {"H7", 160, 0, 40}, {"H7", 200, 0, 46},
		{"H7", 300, 0, 52}, {"H7", 320, 0, 57}, {"H7", 450, 0, 63},
		{"H8", 40, 0, 39}, {"H8", 63, 0, 46}, {"H8", 80, 0, 46}, {"H8", 100, 0, 54}, {"H8", 125, 0, 63},
		{"H8", 320, 0, 89}, {"H9", 50, 0, 62}, {"H10", 80, 0, 120}, {"H10", 320, 0, 230}, {"H11", 25, 0, 130},
		{"f7", 20, -41, -20}, {"f7", 25, -41, -20}, {"f7", 45, -50, -25}, {"f7", 70, -60, -30}, {"f7", 110, -71, -36},
		{"f8", 36, -64, -25}, {"f9", 36, -87, -25}, {"f9", 140, -143, -43},
		{"h6", 20, -13, 0}, {"h8", 50, -39, 0}, {"h9", 70, -74, 0}, {"h11", 19, -130, 0}, {"h11", 40, -160, 0},
		{"g6", 12, -17, -6}, {"g6", 40, -25, -9}, {"e8", 30, -73, -40}, {"d9", 60, -174, -100},
		{"F8", 20, 20, 53}, {"G7", 25, 7, 28}, {"E9", 50, 50, 112}, {"D10", 60, 100, 220},
		{"js6", 20, -6.5, 6.5}, {"JS7", 80, -15, 15},
	} {
		class, ok := tolerance.Parse(c.class)
		require.True(t, ok, c.class)
		b, ok := class.At(c.mm / 1000)
		require.True(t, ok, c.class)
		assert.InDelta(t, c.lower, b.Lower*1e6, 1e-9, "%g %s", c.mm, c.class)
		assert.InDelta(t, c.upper, b.Upper*1e6, 1e-9, "%g %s", c.mm, c.class)
	}
}

func TestWhatIsNoClass(t *testing.T) {
	for _, text := range []string{"", "H", "H0", "H19", "k6", "P7", "8H", "IT", "f 7", "Js7"} {
		_, ok := tolerance.Parse(text)
		assert.False(t, ok, text)
	}
	it, ok := tolerance.Parse(" IT6 ")
	require.True(t, ok)
	_, ok = it.At(0.02)
	assert.False(t, ok, "a bare grade has no place")
	w, ok := tolerance.Width(0.02, it.Grade)
	assert.True(t, ok)
	assert.InDelta(t, 13e-6, w, 1e-12)
	for _, size := range []float64{0, -1, 0.5001, math.NaN(), math.Inf(1)} {
		_, ok = tolerance.Width(size, 7)
		assert.False(t, ok, size)
	}
}

// A grade grows with the size and from grade to grade, and a shaft of a zone passes through a hole of H.
func TestGradesGrow(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a := rapid.Float64Range(1e-4, tolerance.Most).Draw(t, "a")
		b := rapid.Float64Range(a, tolerance.Most).Draw(t, "b")
		grade := rapid.IntRange(1, 17).Draw(t, "grade")
		small, _ := tolerance.Width(a, grade)
		large, _ := tolerance.Width(b, grade)
		next, _ := tolerance.Width(a, grade+1)
		require.LessOrEqual(t, small, large)
		require.Less(t, small, next)
		zone := rapid.SampledFrom([]string{"d", "e", "f", "g", "h"}).Draw(t, "zone")
		shaft, _ := tolerance.Class{Zone: zone, Grade: grade}.At(a)
		hole, _ := tolerance.Class{Zone: "H", Grade: grade}.At(a)
		require.LessOrEqual(t, shaft.Upper, hole.Lower)
	})
}

// At the end of a range either class may hold; away from it there is one.
func TestNearTheEndOfARange(t *testing.T) {
	h8, _ := tolerance.Parse("H8")
	assert.Len(t, h8.Near(0.080, 1e-6), 2, "80.000 mm, known to 1 µm: 46 or 54 µm")
	assert.Len(t, h8.Near(0.0805, 1e-6), 1)
	assert.Len(t, h8.Near(0.070, 1e-6), 1)
	assert.Empty(t, h8.Near(0.6, 1e-6))
}

func ExampleClass_At() {
	f7, _ := tolerance.Parse("f7")
	b, _ := f7.At(0.045)
	fmt.Printf("%.0f to %.0f µm\n", b.Lower*1e6, b.Upper*1e6)
	// Output: -50 to -25 µm
}
