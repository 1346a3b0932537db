package bearing_test

import (
	"math"
	"testing"

	"corvek/core/bearing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"
)

func TestSixCirclesRoundOne(t *testing.T) {
	n, gap := bearing.NeedleComplement(10, 10)
	assert.Equal(t, 6, n)
	assert.InDelta(t, 0, gap, 1e-6)
}

// The needles that fit do fit, one more would not, and the gap is less than a needle.
func TestComplementFits(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		shaft := rapid.Float64Range(5, 80).Draw(t, "shaft")
		d := rapid.Float64Range(1, 8).Draw(t, "needle")
		n, gap := bearing.NeedleComplement(shaft, d)
		each := 2 * math.Asin(d/(shaft+d))
		if float64(n)*each > 2*math.Pi+1e-6 || float64(n+1)*each < 2*math.Pi-1e-6 {
			t.Fatalf("%d of %v round %v", n, d, shaft)
		}
		if gap < 0 || gap > each*(shaft+d)/2+1e-6 {
			t.Fatalf("gap %v", gap)
		}
	})
}

// By hand: asin(2.5 / 22.5) is 0.111341, so that 28 needles fill 6.235096 of 6.283185; the rest, on the
// pitch radius of 11.25 mm, is 0.541 mm.
func TestGapOnThePitchCircle(t *testing.T) {
	most, gap := bearing.NeedleComplement(0.020, 0.0025)
	assert.Equal(t, 28, most)
	assert.InDelta(t, 0.541e-3, gap, 0.0005e-3)
}
