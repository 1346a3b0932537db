package leakage_test

import (
	"testing"

	"corvek/core/leakage"

	"github.com/stretchr/testify/assert"
)

// A piston of 20 mm with 20 µm of radial clearance over 30 mm, 200 bar, 0.04 Pa·s: centred
// π·0.02·(20e-6)³·200e5/(12·0.04·0.03) = 6.981e-7 m³/s; half-way off 1.375 times, touching 2.5 times.
func TestAnEccentricGapByHand(t *testing.T) {
	for e, times := range map[float64]float64{0: 1, 0.5: 1.375, 1: 2.5} {
		assert.InEpsilon(t, times*6.9813e-7, leakage.Annular(0.02, 20e-6, 0.03, 200e5, 0.04, e), 1e-4)
	}
	nine := leakage.Path{Shape: leakage.ShapeAnnular, Count: 9, Diameter: 0.02, Gap: 20e-6, Length: 0.03, Share: 0.5}
	c := leakage.Conditions{Drop: 400e5, Viscosity: 0.04}
	assert.InEpsilon(t, 9*6.9813e-7, nine.Flow(c), 1e-4, "nine pistons under half of 400 bar")
}

// 50 µm, 4 m/s, 46 cSt: 2·50e-6·4/46e-6 = 8.696.
func TestReynoldsOfAGapByHand(t *testing.T) {
	assert.InEpsilon(t, 8.6957, leakage.Reynolds(50e-6, 4, 46e-6), 1e-4)
}
