package mount

import (
	"testing"

	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The mistakes of the build show on the stand by themselves: springs with six tenths of their
// force crack at six tenths, a ring the wrong way round leaks past its limit, air is told.
func TestMistakesOfTheBuildShow(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	relief := lib["relief_valve"]
	crack, known := relief.TestByCode("crack")
	require.True(t, known)
	good := Facts{Family: relief, SealOK: true}
	good.Duty.Pressure, good.Duty.HasPressure = 200e5, true
	weak := good
	weak.Springs = 0.6
	right := good.Mount(crack).Rest["cracking"]
	require.Positive(t, right)
	assert.InDelta(t, 0.6*right, weak.Mount(crack).Rest["cracking"], 1)

	reseat, known := relief.TestByCode("reseat")
	require.True(t, known)
	ring := good
	ring.Ring = true
	assert.Less(t, good.Mount(reseat).Rest["leakage"], 5e-6/60)
	assert.Greater(t, ring.Mount(reseat).Rest["leakage"], 5e-6/60, "past the 5 ml a minute that are allowed")
	assert.Equal(t, []string{FaultRing}, ring.Mount(reseat).Faults)

	// A clearance at its wear limit lets just the limit past, a new one no more than a good
	// unit, and one of twice the wear is out.
	worn := good
	worn.Worn = true
	for wear, share := range map[float64]float64{0: 0.3, 1: 1, 2: 3.375} {
		worn.Wear = wear
		assert.InDelta(t, share*5e-6/60, worn.Mount(reseat).Rest["leakage"], 1e-12)
	}

	air := good
	air.Air = true
	assert.Equal(t, []string{FaultAir}, air.Mount(crack).Faults)
	assert.Empty(t, good.Mount(crack).Faults)
}
