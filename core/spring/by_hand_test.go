package spring_test

import (
	"testing"

	"corvek/core/spring"

	"github.com/stretchr/testify/assert"
)

// A wire of 3 mm wound on a mean of 20 mm with six active coils: 79.3e9·0.003⁴/(8·0.02³·6) =
// 16,727 N/m. Pressed from 42 to 36 mm it gives 100.4 N, which on a seat of 4 mm is 79.87 bar; 85 bar
// ask for 0.3856 mm under it.
func TestACoilByHand(t *testing.T) {
	rate := spring.Rate(0.003, 0.02, 6, spring.SteelShear)
	assert.InEpsilon(t, 16727.34, rate, 1e-6)
	force := spring.Force(rate, 0.042, 0.036)
	assert.InEpsilon(t, 100.3641, force, 1e-6)
	assert.InEpsilon(t, 79.86718e5, spring.Cracking(force, 0.004), 1e-6)
	assert.InEpsilon(t, 0.385601e-3, spring.ShimFor(85e5, 0.004, rate, 0.042, 0.036), 1e-5)
}

// The work of a disc is its load over its travel, whichever way it is worked out: 50 × 25.4 × 3 mm with
// 1.1 mm of cone takes 5.093 J to three quarters.
func TestWorkIsLoadOverTravel(t *testing.T) {
	for _, d := range []spring.Disc{
		{Outside: 0.05, Inside: 0.0254, Thickness: 0.003, Cone: 0.0011, Youngs: 206e9, Poisson: 0.3},
		{Outside: 0.05, Inside: 0.0254, Thickness: 0.00125, Cone: 0.0016, Youngs: 206e9, Poisson: 0.3},
	} {
		const steps = 20000
		s, sum := 0.75*d.Cone, 0.0
		for i := range steps {
			sum += d.Force(s*(float64(i)+0.5)/steps) * s / steps
		}
		assert.InEpsilon(t, sum, d.Energy(s), 1e-6)
	}
	d := spring.Disc{Outside: 0.05, Inside: 0.0254, Thickness: 0.003, Cone: 0.0011, Youngs: 206e9, Poisson: 0.3}
	assert.InEpsilon(t, 5.09275, d.Energy(0.75*d.Cone), 1e-5)
}
