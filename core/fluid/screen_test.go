package fluid_test

import (
	"testing"

	"corvek/core/fluid"

	"github.com/stretchr/testify/assert"
)

// Openings by ASTM E11; what a pump draws through by hand: 125 µm · √(184/46) = 250 µm.
func TestAStrainerIsReadFromItsWords(t *testing.T) {
	for _, c := range []struct {
		words, oil string
		viscosity  float64 // mm²/s
		opening    float64 // µm
		fine       bool
	}{
		{"100 mesh suction strainer", "mineral oil VG 46", 46, 150, false},
		{"Suction screen, mesh 200", "mineral oil VG 46", 46, 75, true},
		{"120-mesh screen", "mineral oil VG 46", 46, 125, false},
		{"120 mesh strainer", "mineral oil VG 220", 184, 125, true},
		{"60 mesh strainer", "mineral oil VG 220", 184, 250, false},
		{"60 mesh strainer", "water glycol HFC", 40, 250, false},
		{"100 mesh strainer", "coolant", 0, 150, true},
		{"return filter 10 µm", "mineral oil VG 46", 46, 10, false},
		{"suction filter 60 micron", "mineral oil VG 46", 0, 60, true},
	} {
		s, ok := fluid.ScreenIn(c.words)
		assert.True(t, ok, c.words)
		assert.InDelta(t, c.opening, 1e6*s.Opening, 1e-9, c.words)
		words, fine := s.Says(c.viscosity*1e-6, c.oil)
		assert.Equal(t, c.fine, fine, "%s, %s: %s", c.words, c.oil, words)
	}
	for _, words := range []string{"", "none", "return filter", "gears in mesh", "10 bar bypass"} {
		_, ok := fluid.ScreenIn(words)
		assert.False(t, ok, words)
	}
	s, ok := fluid.ScreenIn("110 mesh")
	assert.True(t, ok)
	words, fine := s.Says(46e-6, "")
	assert.False(t, fine)
	assert.Contains(t, words, "no usual sieve")
}
