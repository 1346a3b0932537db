package decide_test

import (
	"testing"

	"corvek/core/decide"

	"github.com/stretchr/testify/assert"
)

// What an offer takes is what its decisions add up to; hand-worked.
func TestOfferAddsUpItsDecisions(t *testing.T) {
	parts := []decide.Billed{
		{Name: "Shaft seal", Count: 2, Choice: decide.Replace, Soft: true},
		{Name: "Bearing", Count: 2, Choice: decide.Replace, Price: 45, Priced: true},
		{Name: "Retainer", Count: 1, Choice: decide.Replace},
		{Name: "Rod", Count: 1, Choice: decide.Rework, Outside: 460, Ways: []decide.Route{{Hours: 1, Days: 10}}},
		{Name: "Plate", Count: 1, Choice: decide.Rework, Ways: []decide.Route{{Hours: 1.5}}},
		{Name: "Barrel", Count: 1, Choice: decide.Keep, Looked: true, HasUsed: true, Used: 0.75, HasHours: true,
			Hours: 1900},
		{Name: "Shaft", Count: 1, Choice: decide.Keep, Looked: true, HasUsed: true, Used: 0.2},
		{Name: "Cover", Count: 1, Choice: decide.Keep},
		{Name: "Spring", Count: 1, Choice: decide.Open},
	}
	o := decide.OfferOf(decide.OfferRebuild, parts, decide.Costs{Kit: 240, HasKit: true, Hours: 8, Outside: 50,
		Days: 4, PartsDays: 9})
	assert.InDelta(t, 240+2*45, o.Parts, 1e-9)
	assert.InDelta(t, 8+1+1.5, o.Hours, 1e-9)
	assert.InDelta(t, 50+460, o.Outside, 1e-9)
	assert.InDelta(t, 4+10, o.Days, 1e-9, "the parts come while the rod is away")
	assert.Equal(t, []string{"retainer"}, o.Unpriced, "soft parts come with the kit")
	assert.InDelta(t, 0.25, o.Life, 1e-9)
	assert.Equal(t, "barrel", o.Limits)
	assert.InDelta(t, 1900, o.HoursLeft, 1e-9)
	assert.Equal(t, []string{"still open: spring", "kept near the limit: barrel (75 %)",
		"kept and looked at by nobody: cover"}, o.Risks)
}

// A life that the shop names stands before what was measured; without either none is named.
func TestLifeIsSaidOrMeasuredOrUnknown(t *testing.T) {
	kept := []decide.Billed{{Name: "Barrel", Choice: decide.Keep, HasUsed: true, Used: 0.4}}
	assert.InDelta(t, 0.6, decide.OfferOf(decide.OfferRebuild, kept, decide.Costs{}).Life, 1e-9)
	said := decide.OfferOf(decide.OfferRebuild, kept, decide.Costs{Life: 0.8})
	assert.InDelta(t, 0.8, said.Life, 1e-9)
	assert.True(t, said.LifeSaid)
	assert.Zero(t, decide.OfferOf(decide.OfferRebuild, nil, decide.Costs{}).Life)
}

// A soft part comes with the kit where that has a price; any other wants its own, which is
// nought where the kit has it too.
func TestPartsWithoutAPriceAreNamed(t *testing.T) {
	parts := []decide.Billed{{Name: "Seal", Choice: decide.Replace, Soft: true}, {Name: "Bearing",
		Choice: decide.Replace}, {Name: "Ring", Choice: decide.Replace, Priced: true}}
	assert.Equal(t, []string{"bearing"}, decide.OfferOf(decide.OfferOverhaul, parts, decide.Costs{Kit: 1,
		HasKit: true}).Unpriced)
	assert.Equal(t, []string{"seal", "bearing"}, decide.OfferOf(decide.OfferRebuild, parts, decide.Costs{}).Unpriced)
}

func TestRisksNameFewAndCountTheRest(t *testing.T) {
	var parts []decide.Billed
	for _, n := range []string{"A", "B", "C", "D", "E"} {
		parts = append(parts, decide.Billed{Name: n, Choice: decide.Keep})
	}
	o := decide.OfferOf(decide.OfferRebuild, parts, decide.Costs{})
	assert.Equal(t, []string{"kept and looked at by nobody: a, b, c and 2 more"}, o.Risks)
	assert.Equal(t, []string{"A", "B"}, decide.Names([]decide.Billed{{Name: "A"}, {Name: "B"}, {Name: "A"}}))
}
