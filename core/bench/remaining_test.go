package bench_test

import (
	"math"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/bench/benchtest"
	"corvek/core/decide"
	"corvek/core/partner"
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

// A piece with no day of its own takes the days of its supplier, and a part that goes out those of him who does such
// work; a day or a lead time that was said for the piece itself holds.
func TestDaysOfThoseWhoAreWaitedFor(t *testing.T) {
	j := worn(t)
	u := j.Units[0]
	for _, code := range []string{"seal_outer", "cover_bolts"} {
		u.Part(code).Decisions = []*unit.Decision{{Round: 1, Choice: string(decide.Replace)}}
		u.Part(code).Order.Supplier = "Brenn & Holt"
	}
	u.Part("cover_bolts").Order.Days = 3
	u.Part("cover_bolts").Order.State, u.Part("cover_bolts").Order.Placed = unit.OrderPlaced, "2031-05-18"
	known := bench.ShopKnows{Partners: partner.Partners{{Name: "Brenn & Holt", Days: 6, Most: 12}}}
	waits := map[string]remaining.Task{}
	for _, x := range benchtest.State(t, j).Remaining(remaining.Usual(), known) {
		if x.Kind == remaining.Parts {
			waits[x.Code] = x
		}
	}
	seal, bolts := waits["parts:seal_outer"], waits["parts:cover_bolts"]
	assert.Equal(t, 6.0, seal.Days)
	assert.InDelta(t, math.Ln2/1.2816, seal.Sigma, 1e-9)
	assert.Contains(t, seal.Name, "from Brenn & Holt")
	assert.Equal(t, 3.0, bolts.Days)
	assert.Zero(t, bolts.Sigma)
	assert.Equal(t, "Brenn & Holt", bolts.By, "his own past tells how far off that is")
	assert.Equal(t, unit.Date("2031-05-18"), bolts.Since, "it is counted from the order on")
	assert.Empty(t, seal.Since, "not ordered yet")
}
