package workshop_test

import (
	"math"
	"testing"

	"corvek/core/remaining"
	"corvek/core/workshop"

	"github.com/stretchr/testify/assert"
)

// Of no jobs guidance is as it ships; twelve of the shop's own weigh as much as guidance, and a model is moved from
// the shop's as the shop is from guidance.
func TestHoursAreLearnedFromTheShopsOwnJobs(t *testing.T) {
	g := remaining.Usual()
	none := workshop.Learn(g, nil, 0, 0)
	factor, whole, jobs := none.Of("any")
	assert.Equal(t, []any{1.0, 0}, []any{factor, jobs})
	assert.InDelta(t, 0.2, whole, 1e-9)
	assert.Equal(t, g.Fails, none.Fails)

	var past []workshop.Past
	for range 12 {
		past = append(past, workshop.Past{Model: "holm gx-32", Worked: 9, Reckoned: 6})
	}
	l := workshop.Learn(g, past, 12, 12)
	factor, whole, jobs = l.Of("another")
	assert.InDelta(t, math.Sqrt(1.5), factor, 1e-9, "half way, on the scale of ratios")
	assert.Zero(t, jobs)
	assert.Greater(t, whole, 0.0)
	assert.InDelta(t, (12*g.Fails+12)/24, l.Fails, 1e-9)
	assert.Equal(t, 0.15, g.Fails, "guidance itself is not touched")

	factor, _, jobs = l.Of("holm gx-32")
	assert.Equal(t, 12, jobs)
	assert.InDelta(t, math.Exp((math.Log(1.5)/2+math.Log(1.5))/2), factor, 1e-9, "half way again, towards its own")

	one := workshop.Learn(g, past[:1], 0, 0)
	factor, _, _ = one.Of("holm gx-32")
	assert.True(t, factor > 1 && factor < 1.1, "one case says little: %.3f", factor)
}
