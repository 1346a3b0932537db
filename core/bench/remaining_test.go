package bench_test

import (
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/bench/benchtest"
	"corvek/core/quantity"
	"corvek/core/remaining"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
)

// kinds are the kinds of work that the unit of a job still needs.
func kinds(t *testing.T, j *unit.Job) map[remaining.Kind]bool {
	out := map[remaining.Kind]bool{}
	for _, x := range benchtest.State(t, j).Remaining(remaining.Usual(), bench.ShopKnows{}) {
		out[x.Kind] = true
	}
	return out
}

// What is done is not to be done any more, from one entry to the next.
func TestWhatIsDoneRemainsNoMore(t *testing.T) {
	j := worn(t)
	u := j.Units[0]
	first := kinds(t, j)
	for _, k := range []remaining.Kind{remaining.Strip, remaining.Measure, remaining.Explain, remaining.Word,
		remaining.Build, remaining.Prove, remaining.HandOver} {
		assert.True(t, first[k], k)
	}

	for _, p := range u.Parts {
		p.Off = true
	}
	assert.False(t, kinds(t, j)[remaining.Strip])

	j.Quote = unit.Quote{GivenOn: "2031-05-13"}
	now := kinds(t, j)
	assert.False(t, now[remaining.Offer])
	assert.True(t, now[remaining.Word])
	j.Quote.Answer = unit.AnswerRebuild
	assert.False(t, kinds(t, j)[remaining.Word])

	u.DutyPressure, _ = quantity.Parse("180 bar", quantity.Pressure)
	need := benchtest.State(t, j).StandNeed()
	assert.GreaterOrEqual(t, need.Pressure, 180e5, "a step is run at duty at least")
	assert.InDelta(t, 46.4e-3/60, need.Flow, 1e-9)

	u.Ending = unit.EndFindings
	now = kinds(t, j)
	assert.False(t, now[remaining.Build] || now[remaining.Prove] || now[remaining.Parts])
	assert.True(t, now[remaining.Measure])

	j.HandedOverAt = benchtest.Day.Time()
	assert.Empty(t, kinds(t, j))
}

// What guidance gives a unit as it came in is what it gives one to which nothing was done yet, but for what a
// person has to decide and offer; and it is the same when all is done.
func TestWhatGuidanceGivesAUnit(t *testing.T) {
	j := worn(t)
	st := benchtest.State(t, j)
	g := remaining.Usual()
	var fresh time.Duration
	for _, x := range st.Remaining(g, bench.ShopKnows{}) {
		if !x.Waits() && !x.Alone() {
			fresh += x.Time
		}
	}
	reckoned := st.Reckoned(g)
	assert.Greater(t, reckoned, 4*time.Hour)
	assert.InDelta(t, fresh.Hours(), reckoned.Hours(), 1.5)
	for _, p := range j.Units[0].Parts {
		p.Off, p.Found = true, "1"
	}
	assert.Equal(t, reckoned, benchtest.State(t, j).Reckoned(g))
}
