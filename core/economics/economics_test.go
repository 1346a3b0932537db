package economics_test

import (
	"testing"

	"corvek/core/economics"

	"github.com/stretchr/testify/assert"
)

func TestAdvice(t *testing.T) {
	c := economics.Case{Parts: 310, LabourHours: 6, Rate: 72, OutsideWork: 58, RebuildDays: 3, NewPrice: 1600,
		NewDays: 21, DowntimePerDay: 400, HasNew: true, LifeFraction: .8, Threshold: .65}
	assert.InDelta(t, 800, c.RebuildCost(), 1e-9)
	assert.InDelta(t, .625, c.Ratio(), 1e-9)
	assert.Equal(t, economics.Rebuild, c.Advise())
	assert.InDelta(t, 2000, c.RebuildTotal(), 1e-9)
	assert.InDelta(t, 10000, c.NewTotal(), 1e-9)

	// At the break-even price the ratio meets the threshold, and it still rebuilds.
	c.NewPrice = c.BreakEven()
	assert.InDelta(t, c.Threshold, c.Ratio(), 1e-12)

	even := economics.Case{Parts: 650, NewPrice: 1000, LifeFraction: 1, Threshold: .65, HasNew: true}
	assert.Equal(t, economics.Rebuild, even.Advise(), "at the threshold itself")

	short := c
	short.LifeFraction = .5
	short.NewPrice = 1600
	assert.Equal(t, economics.Replace, short.Advise(), "the same work for less life does not pay")
	short.HasNew = false
	assert.Equal(t, economics.Rebuild, short.Advise(), "no new unit can be had")
}
