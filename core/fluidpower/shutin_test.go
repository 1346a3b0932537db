package fluidpower_test

import (
	"testing"

	"corvek/core/fluidpower"

	"github.com/stretchr/testify/assert"
)

// A shut-in volume by hand. Nitrogen at 200 bar that cools from 20 °C by 3 K: 201.01325 bar · 3 / 293.15
// is 2.057 bar. Oil that cannot shrink loses 1.5 GPa · 0.0007 = 10.5 bar a kelvin.
func TestShutInByHand(t *testing.T) {
	gas := fluidpower.ShutIn{Gas: true}
	assert.InDelta(t, -205710.3, gas.Thermal(200e5, 293.15, -3), 0.1)
	assert.InDelta(t, 200e5, gas.Brought(200e5-205710.3, 293.15, 290.15), 0.1)
	assert.InDelta(t, 200e5-205710.3, gas.Brought(200e5, 290.15, 293.15), 0.1)

	oil := fluidpower.ShutIn{}
	assert.InDelta(t, -21e5, oil.Thermal(200e5, 313.15, -2), 1e-3)
	assert.InDelta(t, 121e5, oil.Brought(100e5, 313.15, 311.15), 1e-3)
	assert.InDelta(t, 79e5, oil.Brought(100e5, 311.15, 313.15), 1e-3)
	assert.InDelta(t, -14e5, fluidpower.ShutIn{Bulk: 1.0e9}.Thermal(200e5, 313.15, -2), 1e-3, "of its own bulk modulus")
}
