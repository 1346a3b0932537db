package quantity_test

import (
	"testing"

	"corvek/core/quantity"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Pressures have a switch of their own: gauges in psi beside calipers in mm.
func TestPressuresAndSizesInTheirOwnUnits(t *testing.T) {
	for _, c := range []struct {
		system         quantity.System
		size, pressure string
	}{
		{quantity.Metric, "25.400 mm", "100.0 bar"}, {quantity.Inch, "1.0000 in", "1450 psi"},
		{quantity.MetricPsi, "25.400 mm", "1450 psi"}, {quantity.InchBar, "1.0000 in", "100.0 bar"},
	} {
		assert.Equal(t, c.size, quantity.Show(0.0254, quantity.Length, c.system))
		assert.Equal(t, c.pressure, quantity.Show(100e5, quantity.Pressure, c.system))
		for _, d := range []quantity.Dimension{quantity.Length, quantity.Pressure, quantity.Torque} {
			assert.NotEqual(t, c.system.For(d), c.system.Other(d))
		}
	}
}

// What was typed in the reader's units stays as it was typed; else it is brought to them.
func TestAsTheReaderHasIt(t *testing.T) {
	limit, err := quantity.Parse("7 thou", quantity.Length)
	require.NoError(t, err)
	assert.Equal(t, "7 thou", limit.In(quantity.Inch))
	assert.Equal(t, "0.178 mm", limit.In(quantity.Metric))
	assert.Equal(t, "0.178 mm", limit.In(quantity.MetricPsi))
	speed, err := quantity.Parse("1450 rpm", quantity.Rotation)
	require.NoError(t, err)
	assert.Equal(t, "1450 rpm", speed.In(quantity.Inch))
	assert.Empty(t, quantity.Quantity{}.In(quantity.Inch))
}
