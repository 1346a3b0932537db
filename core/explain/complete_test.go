package explain_test

import (
	"math"
	"testing"

	"corvek/core/explain"
	"corvek/core/family"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A sign of which no cause says anything but what is so anyway is a fault of the data: it can be seen and raises
// nothing. Each cause that lies inside, or came at assembly, leaves at least one mark that can be looked at.
func TestEachSignIsSpokenOfAndEachCauseHasOne(t *testing.T) {
	eachFamily(t, func(t *testing.T, _ *family.Family, k *explain.Knowledge) {
		for i := range k.Evidence {
			e := &k.Evidence[i]
			spoken := false
			for j := range k.Causes {
				w, says := k.Causes[j].Points[e.Code]
				spoken = spoken || says && math.Abs(w.P()-e.Background.P()) > 0.05
			}
			assert.True(t, spoken || answers[e.Code], "%s (%s): no cause speaks of it", e.Code, e.Text)
		}
		for j := range k.Causes {
			c := &k.Causes[j]
			if c.Where != "inside" && c.Where != "assembly" || c.LeftOver {
				continue
			}
			shown := false
			for i := range k.Evidence {
				e := &k.Evidence[i]
				shown = shown || e.At != explain.Asked && c.Points[e.Code].P() >= 0.75 && e.Background.P() <= 0.12
			}
			assert.True(t, shown, "%s (%s): nothing at its place shows it", c.Code, c.Name)
		}
	})
}

// answers that say only that the usual is so.
var answers = map[string]bool{}

// What the group knows of a cause holds for a family that tells of it in its own words: a part broken clean speaks
// for a shock in the gear pump too, which has a torque shock and dirt of its own.
func TestAFamilysOwnCauseKeepsWhatTheGroupKnows(t *testing.T) {
	k := base(t)["external_gear_pump"]
	c, known := k.CauseByCode("misassembly")
	require.True(t, known)
	assert.NotEmpty(t, c.Points["part_turned"], "of the group")
	assert.NotEmpty(t, c.Points["gear_reversed"], "of the family")
}

// A sign that hardly anything but its own cause leaves gives more than seven bits, so that it outweighs what a rare
// cause needs.
func TestAnUnmistakableSignGivesSevenBits(t *testing.T) {
	k := &explain.Knowledge{
		Evidence: []explain.Evidence{{Code: "m", Text: "m", Minutes: 1, Background: explain.Hardly}},
		Causes: []explain.Cause{
			{Code: "a", Prior: "almost_never", Points: map[string]explain.Word{"m": "almost_always"}},
			{Code: "b", Prior: "usual"},
		},
	}
	x := k.Explain([]explain.Finding{{Code: "m", Strength: explain.Seen}})
	require.Equal(t, "a", x.Ranking[0].Cause.Code)
	assert.Greater(t, x.Ranking[0].For[0].Information, 7.0)
	assert.Greater(t, x.Ranking[0].Posterior, 0.8)
}

// Hours alone, or hours with what is on every old machine, make nothing lead.
func TestNothingLeadsOnHowCommonItIs(t *testing.T) {
	eachFamily(t, func(t *testing.T, _ *family.Family, k *explain.Knowledge) {
		for _, found := range []string{"hours_full", "hours_full seal_hard", "recent_work", "serviced hours_full"} {
			x := k.Explain(notes(found))
			lead, ok := explain.Lead(x.Ranking)
			if ok {
				assert.GreaterOrEqual(t, lead.Posterior, explain.Leads)
				assert.False(t, lead.Cause.LeftOver && lead.Posterior < explain.LeftOverLeads, found)
			}
			if found == "hours_full" || found == "recent_work" {
				assert.False(t, ok, "%s: %s leads at %.2f", found, lead.Cause, lead.Posterior)
			}
		}
	})
}

// A cartridge that came loose turns in its seat: witness marks that do not line up speak for it and not against it.
func TestWitnessMarksSpeakForWhatCameLoose(t *testing.T) {
	for of, cause := range map[string]string{"piston_pump_with_cartridge": "loose_cartridge",
		"flow_divider": "cartridge_came_loose", "double_acting_cylinder": "nut_came_loose"} {
		k := base(t).For(of)
		c, known := k.CauseByCode(cause)
		require.True(t, known, cause)
		e, known := k.EvidenceByCode("witness_off")
		require.True(t, known)
		assert.Greater(t, c.Points["witness_off"].P(), e.Background.P(), of)
	}
}

// A shaft that stands still was told, or is tried by hand: a complaint that can be looked at is among the looks.
func TestAComplaintThatCanBeSeenIsLookedAt(t *testing.T) {
	k := base(t)["external_gear_pump"]
	asked := false
	for _, c := range k.Explain(notes("weak_hot")).Next {
		asked = asked || c.Evidence.Code == "told_seized"
		assert.False(t, c.Evidence.From.Symptom != "" && c.Evidence.At == explain.Asked, c.Evidence.Code)
	}
	assert.True(t, asked, "the shaft is turned by hand")
}
