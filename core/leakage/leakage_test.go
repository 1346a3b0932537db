package leakage_test

import (
	"testing"

	"corvek/core/leakage"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

// 25 mm wide, 10 mm long, 0.1 mm high, 100 bar, 40 mPa·s: 5.2083e-5 m³/s by hand.
func TestPlaneByHand(t *testing.T) {
	assert.InEpsilon(t, 5.208333e-5, leakage.Plane(.025, 1e-4, .010, 1e7, .04), 1e-6)
}

// A thin ring unrolled is a plane gap; touching on one side it leaks 2.5 times as much.
func TestRingIsAnUnrolledPlane(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := rapid.Float64Range(.005, .2).Draw(t, "diameter")
		h := rapid.Float64Range(1e-6, 1e-4).Draw(t, "gap")
		ring := leakage.Annular(d, h, .02, 1e7, .04, 0)
		plane := leakage.Plane(3.141592653589793*d, h, .02, 1e7, .04)
		if diff := ring/plane - 1; diff > 1e-9 || diff < -1e-9 {
			t.Fatalf("%v against %v", ring, plane)
		}
		if ratio := leakage.Annular(d, h, .02, 1e7, .04, 1) / ring; ratio < 2.4999 || ratio > 2.5001 {
			t.Fatalf("touching leaks %v times", ratio)
		}
	})
}

func TestPaths(t *testing.T) {
	c := leakage.Conditions{Drop: 175e5, Viscosity: .04}
	side := leakage.Path{Shape: leakage.ShapePlane, Count: 4, Width: .014, Length: .022, Gap: 1e-4, Share: 1}
	one := side
	one.Count = 1
	assert.InEpsilon(t, 4*one.Flow(c), side.Flow(c), 1e-12)
	half := side
	half.Share = .5
	assert.InEpsilon(t, side.Flow(c)/2, half.Flow(c), 1e-12)
	ring := leakage.Path{Shape: leakage.ShapeAnnular, Diameter: .02, Length: .025, Gap: 2e-5, Share: 1}
	assert.InEpsilon(t, side.Flow(c)+ring.Flow(c), leakage.Total([]leakage.Path{side, ring}, c), 1e-12)
	shut := side
	shut.Gap = 0
	assert.Zero(t, shut.Flow(c))
	assert.Zero(t, side.Flow(leakage.Conditions{Drop: -1, Viscosity: .04}), "no flow against the pressure")
	assert.Zero(t, side.Flow(leakage.Conditions{Drop: 1}), "no viscosity, no estimate")
}
