package fastener_test

import (
	"fmt"
	"testing"

	"corvek/core/fastener"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Proof stresses as ISO 898-1 (table 3) and SAE J429 (table 1) give them, at both ends of each range.
func TestProofStressesAsPublished(t *testing.T) {
	const mm, in, mpa, ksi = 1e-3, 25.4e-3, 1e6, 6.894757e6
	for _, x := range []struct {
		class           string
		diameter, proof float64
	}{
		{"8.8", 16 * mm, 580 * mpa}, {"8.8", 18 * mm, 600 * mpa}, {"8.8", 36 * mm, 600 * mpa},
		{"10.9", 3 * mm, 830 * mpa}, {"10.9", 36 * mm, 830 * mpa},
		{"12.9", 3 * mm, 970 * mpa}, {"12.9", 36 * mm, 970 * mpa},
		{"grade 2", 0.75 * in, 55 * ksi}, {"grade 2", 0.875 * in, 33 * ksi}, {"grade 2", 1.5 * in, 33 * ksi},
		{"grade 5", 1 * in, 85 * ksi}, {"grade 5", 1.125 * in, 74 * ksi}, {"grade 5", 1.5 * in, 74 * ksi},
		{"Grade 8", 0.25 * in, 120 * ksi}, {"grade8", 1.5 * in, 120 * ksi},
		{"8.8", 42 * mm, 600 * mpa}, // beyond the table: as its last range
	} {
		c, err := fastener.ClassByName(x.class)
		require.NoError(t, err)
		assert.InEpsilon(t, x.proof, c.Proof(x.diameter), 1e-6, "%s at %.4f m", x.class, x.diameter)
	}
}

// Pitches of ISO 261, the coarse one first.
func TestPitchesAsPublished(t *testing.T) {
	for size, pitches := range map[string][]float64{"M3": {0.5}, "M4": {0.7}, "M5": {0.8}, "M6": {1}, "M8": {1.25, 1},
		"M10": {1.5, 1.25, 1}, "M12": {1.75, 1.5, 1.25}, "M14": {2, 1.5}, "M16": {2, 1.5}, "M18": {2.5, 2, 1.5},
		"M20": {2.5, 2, 1.5}, "M22": {2.5, 2, 1.5}, "M24": {3, 2}, "M27": {3, 2}, "M30": {3.5, 2}, "M33": {3.5, 2},
		"M36": {4, 3}} {
		coarse, err := fastener.ParseThread(size)
		require.NoError(t, err)
		assert.InDelta(t, pitches[0], coarse.Pitch*1000, 1e-9, size)
		assert.Equal(t, size, coarse.Name)
		for _, p := range pitches[1:] {
			fine, err := fastener.ParseThread(fmt.Sprintf("%sx%g", size, p))
			require.NoError(t, err, "%s x %g", size, p)
			assert.InDelta(t, p, fine.Pitch*1000, 1e-9)
			assert.Equal(t, fmt.Sprintf("%sx%g", size, p), fine.Name)
		}
		_, err = fastener.ParseThread(size + "x7")
		assert.ErrorContains(t, err, fmt.Sprintf("comes with pitch %g", pitches[0]))
	}
}

// The star of eight bolts as it stands in the workshop's books, an odd circle, and rounds of torque.
func TestOrderAndRounds(t *testing.T) {
	assert.Equal(t, []int{1, 5, 3, 7, 2, 6, 4, 8}, fastener.Crosswise(8))
	assert.Equal(t, []int{1, 4, 2, 5, 3, 6}, fastener.Crosswise(6))
	assert.Equal(t, []int{1, 3, 5, 2, 4}, fastener.Crosswise(5))
	assert.Equal(t, []int{1}, fastener.Crosswise(1))
	assert.Nil(t, fastener.Crosswise(0))
	assert.Equal(t, []float64{0.3, 0.6, 1}, fastener.StageShares(3))
	assert.Equal(t, []float64{0.25, 0.5, 0.75, 1}, fastener.StageShares(4))
	assert.Equal(t, []float64{1}, fastener.StageShares(1))
}
