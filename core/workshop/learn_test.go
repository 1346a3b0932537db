package workshop_test

import (
	"math"
	"testing"

	"corvek/core/partner"
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

// Waits are learned as hours are: guidance weighs as much as twelve cases. Twelve parts that were away twice as
// long as was said make half of that doubling count, in the logarithm: the square root of two.
func TestWaitsAreLearned(t *testing.T) {
	l := workshop.Learn(remaining.Usual(), nil, 0, 0)
	factor, sigma := l.Wait(remaining.Outside, "", 0)
	assert.Equal(t, 1.0, factor)
	assert.Equal(t, remaining.Usual().Spread[remaining.Outside], sigma)
	over := &workshop.Over{}
	for range 12 {
		over.Away = append(over.Away, workshop.PartAway{Route: "hard_chrome", Days: 12})
	}
	l.LearnWaits(over, partner.Partners{{Name: "Harl Plating", Works: "hard chrome", Days: 6}})
	factor, _ = l.Wait(remaining.Outside, "", 0)
	assert.InDelta(t, math.Sqrt2, factor, 1e-9)
	factor, _ = l.Wait(remaining.Word, "", 0)
	assert.Equal(t, 1.0, factor, "nobody was asked")
	assert.Equal(t, 12, l.Waited(remaining.Outside, ""))
	factor, _ = l.Wait(remaining.Outside, "Harl Plating", 0)
	assert.InDelta(t, math.Exp(0.75*math.Log(2)), factor, 1e-9, "half way again, towards his own")
	factor, sigma = l.Wait(remaining.Outside, "Quick Chrome", 0.3)
	assert.InDelta(t, math.Sqrt2, factor, 1e-9, "of him nothing is known: as such work")
	assert.Equal(t, 0.3, sigma, "and as far off as he says himself")

	// A part that goes out takes as long as he says who does it, by as much longer as such work took.
	j := workshop.Job{Tag: "T-1", Units: []workshop.UnitWork{{Number: 1, Tasks: []remaining.Task{
		{Code: "outside", Kind: remaining.Outside, Days: 10, Sigma: 0.3}}}}}
	laid := small().Lay([]workshop.Job{j}, monday, nil, nil, l)
	assert.InDelta(t, 10*math.Sqrt2*24*60, float64(laid.Problem.Tasks[0].Work), 1)
	assert.Equal(t, 0.3, laid.Spreads[0].Sigma)
}
