package seal_test

import (
	"testing"

	"corvek/core/seal"

	"github.com/stretchr/testify/assert"
)

// Sections of ISO 3601-1 with their tolerances, and rings of its general series.
func TestRingsOfTheGeneralSeriesAsPublished(t *testing.T) {
	byCode := map[string]seal.Ring{}
	for _, r := range seal.Rings {
		if r.Standard == "ISO 3601-1 G" {
			byCode[r.Code] = r
		}
	}
	for _, x := range []struct {
		code                       string
		inside, section, tolerance float64
	}{
		{"20x2.65", 20, 2.65, 0.09}, {"20x3.55", 20, 3.55, 0.10}, {"40x5.3", 40, 5.3, 0.13}, {"10x1.8", 10, 1.8, 0.08},
	} {
		r, known := byCode[x.code]
		if assert.True(t, known, x.code) {
			assert.InDelta(t, x.inside, r.Inside*1000, 1e-9, x.code)
			assert.InDelta(t, x.section, r.Section*1000, 1e-9, x.code)
			assert.InDelta(t, x.tolerance, r.SectionTolerance*1000, 1e-9, x.code)
		}
	}
}

// A measured ring is looked for within what is said on both its figures.
func TestRingsWithinWhatIsSaid(t *testing.T) {
	has := func(inside, section, tolerance float64) bool { // AS568-214: 24.99 x 3.53 mm
		for _, r := range seal.FindRings(inside/1000, section/1000, tolerance/1000, 50) {
			if r.Standard == "AS568" && r.Code == "-214" {
				return true
			}
		}
		return false
	}
	assert.True(t, has(24.99, 3.53, 0.05))
	assert.True(t, has(25.03, 3.56, 0.05))
	assert.False(t, has(25.10, 3.53, 0.05), "its inside is too far")
	assert.False(t, has(24.88, 3.53, 0.05))
	assert.False(t, has(24.99, 3.60, 0.05), "its section is too far")
	assert.False(t, has(24.99, 3.46, 0.05))
}

// Lip seals come nearest first, by shaft and bore, and by width where that was measured.
func TestLipsNearestFirst(t *testing.T) {
	own := []seal.Lip{{Shaft: 0.0303, Bore: 0.0473, Width: 0.007}, {Shaft: 0.0301, Bore: 0.0471, Width: 0.012},
		{Shaft: 0.0301, Bore: 0.0471, Width: 0.007}, {Shaft: 0.0310, Bore: 0.0471, Width: 0.007}}
	got := seal.FindLips(0.0301, 0.0471, 0.007, own, 3)
	if assert.Len(t, got, 3) {
		assert.Equal(t, own[2], got[0])
		assert.NotEqual(t, own[0], got[1], "0.4 mm away is further than 5 mm of width")
	}
	assert.NotContains(t, seal.FindLips(0.0301, 0.0471, 0, own, 50), own[3], "0.9 mm is no wear of a shaft")
	assert.Len(t, seal.FindLips(0.0301, 0.0471, 0, own, 2), 2)
}
