package rig

import (
	"testing"

	"corvek/core/family"
	"corvek/core/mount"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Air that was not bled makes the pressure hunt.
func TestAirMakesThePressureHunt(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	relief := lib["relief_valve"]
	crack, known := relief.TestByCode("crack")
	require.True(t, known)
	good := mount.Facts{Family: relief, SealOK: true}
	good.Duty.Pressure, good.Duty.HasPressure = 200e5, true
	air := good
	air.Air = true
	spread := func(u mount.Facts) (most float64) {
		b := NewSimulated(3)
		b.Unit = u.Mount(crack)
		b.Controls = Controls{Drive: true, Pressure: 100e5, Speed: 1450}
		for range 1000 {
			b.Step(0.02)
		}
		for range 200 {
			b.Step(0.02)
			most = max(most, b.Read()["pressure"]/100e5-1)
		}
		return most
	}
	assert.Less(t, spread(good), 0.01)
	assert.Greater(t, spread(air), 0.05)
}
