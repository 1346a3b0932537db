package family_test

import (
	"testing"

	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestASumOfSizes(t *testing.T) {
	at := func(path string) (float64, bool) {
		m, ok := map[string]float64{"gear.tip": 45, "gear.journal": 20, "a_1.gear.tip": 7}[path]
		return m, ok
	}
	for text, want := range map[string]float64{
		"gear.tip":                              45,
		"0.5 gear.tip - 0.5 gear.journal":       12.5,
		"1.5708 gear.tip + 1.5708 gear.journal": 102.102,
		"- gear.journal + gear.tip":             25,
		"a_1.gear.tip":                          7,
	} {
		sum, err := family.ReadSum(text)
		require.NoError(t, err, text)
		v, lacks := sum.Of(at)
		assert.Empty(t, lacks, text)
		assert.InDelta(t, want, v, 1e-9, text)
	}
	sum, err := family.ReadSum("gear.tip - plate.land")
	require.NoError(t, err)
	_, lacks := sum.Of(at)
	assert.Equal(t, []string{"plate.land"}, lacks)
	for _, bad := range []string{"14 mm", "0.5", "gear.tip gear.journal", "gear", "2 * gear.tip", "gear.tip -"} {
		_, err := family.ReadSum(bad)
		assert.Error(t, err, bad)
	}
}
