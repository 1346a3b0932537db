package fluidpower_test

import (
	"math"
	"testing"

	"corvek/core/fluidpower"

	"github.com/stretchr/testify/assert"
)

func TestByHand(t *testing.T) {
	assert.InEpsilon(t, 3117.245e-6, fluidpower.CircleArea(.063), 1e-6)
	assert.InEpsilon(t, 46.4e-3/60, fluidpower.TheoreticalFlow(32e-6, 1450), 1e-12)
	assert.InEpsilon(t, 89.1268, fluidpower.TheoreticalTorque(175e5, 32e-6), 1e-6)
	// Theory loses nothing: torque times speed is pressure times flow.
	assert.InEpsilon(t, 175e5*fluidpower.TheoreticalFlow(32e-6, 1450),
		fluidpower.ShaftPower(fluidpower.TheoreticalTorque(175e5, 32e-6), 1450), 1e-12)
	assert.InEpsilon(t, .0102927, fluidpower.TemperatureRate(2041.667, .120, 870, 1900), 1e-5)
}

// The closed forms for whole pumps, and the sum against a fine sampling for odd patterns.
func TestRippleAgainstClosedFormsAndSampling(t *testing.T) {
	all := func(z int) (d []float64, of []bool) {
		for range z {
			d, of = append(d, 1), append(of, true)
		}
		return d, of
	}
	for _, z := range []int{3, 5, 7, 9, 11} {
		d, of := all(z)
		r := fluidpower.PistonRipple(d, of, 1)
		half := math.Pi / float64(2*z)
		assert.InEpsilon(t, (1/math.Sin(half)-1/math.Tan(half))/2/(float64(z)/math.Pi), r.PeakToPeak()/r.Mean, 1e-9,
			"%d", z)
		assert.Equal(t, 2*z, r.PerTurn)
	}
	for _, z := range []int{4, 6, 8, 10} {
		d, of := all(z)
		r := fluidpower.PistonRipple(d, of, 1)
		assert.Equal(t, z, r.PerTurn)
		assert.InEpsilon(t, 1, r.Mean, 1e-12)
	}
	d := []float64{1, .4, 0, 1, 1, .7, 0, 1, 1}
	_, of := all(9)
	r := fluidpower.PistonRipple(d, of, 2)
	peak, low := 0.0, math.Inf(1)
	for k := range 20000 {
		sum := 0.0
		for i, v := range d {
			sum += v * math.Max(0, math.Sin(2*math.Pi*(float64(k)/20000+float64(i)/9))) * 2 * math.Pi / 9
		}
		peak, low = math.Max(peak, sum), math.Min(low, sum)
	}
	assert.InEpsilon(t, peak, r.Peak, 1e-6)
	assert.InEpsilon(t, low, r.Low, 1e-3)
	assert.Equal(t, 1, r.PerTurn)
	three := []float64{0, 1, 1, 0, 1, 1, 0, 1, 1}
	assert.Equal(t, 6, fluidpower.PistonRipple(three, of, 1).PerTurn, "three alike thirds, an odd number")
}

// The flow at every turn lies between the extremes, and its mean over a turn is
// the mean that was told.
func TestPistonFlowAgreesWithRipple(t *testing.T) {
	delivery := []float64{0, 1, 1, .4, 1, 1, 1}
	all := []bool{true, true, true, true, true, true, true}
	r := fluidpower.PistonRipple(delivery, all, 1e-3)
	sum, n := 0.0, 7200
	for k := range n {
		q := fluidpower.PistonFlow(delivery, 1e-3, 2*math.Pi*float64(k)/float64(n))
		assert.GreaterOrEqual(t, q, r.Low-1e-15)
		assert.LessOrEqual(t, q, r.Peak+1e-15)
		sum += q
	}
	assert.InEpsilon(t, r.Mean, sum/float64(n), 1e-6)
}
