package job_test

import (
	"context"
	"strings"
	"testing"

	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/report"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A failure has several causes: each with its part in it, its place, its action and who
// does it; one that lies outside is asked for its action like the root, each by itself.
func TestSeveralCauses(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "axial_piston_pump")
	put(t, s, tag, "u1/conclusion/cause", "stuck_control")
	require.NoError(t, s.AddCause(ctx, iva, tag, 1, unit.RoleFirst, "", "Shaft snapped at the spline"))
	require.NoError(t, s.AddCause(ctx, iva, tag, 1, unit.RoleContributing, "contamination", "no breather since May"))
	assert.ErrorContains(t, s.AddCause(ctx, iva, tag, 1, "culprit", "", "x"), "what part it had")
	assert.ErrorContains(t, s.AddCause(ctx, iva, tag, 1, unit.RoleRoot, "", " "), "choose a cause of the list")
	assert.ErrorContains(t, s.AddCause(ctx, iva, tag, 1, unit.RoleRoot, "dragon", ""), "is not a cause")
	assert.Error(t, s.AddCause(ctx, tove, tag, 1, unit.RoleRoot, "", "x"), "who only looks names nothing")

	outside := func() (texts []string) {
		for _, stop := range load(t, s, tag).Stops["explain"] {
			if stop.Kind == unit.StopOutside {
				texts = append(texts, stop.Text)
			}
		}
		return texts
	}
	assert.Equal(t, []string{"Hard dirt in the oil lies outside the unit: say what is done there and by whom"},
		outside())
	put(t, s, tag, "u1/cause/2/action", "Fit a breather, flush the tank")
	put(t, s, tag, "u1/cause/2/owner", "the mill")
	put(t, s, tag, "u1/cause/1/lies", "inside")
	assert.Empty(t, outside())

	st := load(t, s, tag)
	causes := st.Causes()
	require.Len(t, causes, 3)
	assert.Equal(t, []string{"root", "first_failure", "contributing"}, []string{causes[0].Role, causes[1].Role,
		causes[2].Role})
	d := report.New(st, quantity.Metric, s.Now())
	paper := strings.Join(d.Causes, "\n")
	assert.Contains(t, paper, "Gave way first: Shaft snapped at the spline, inside the unit.")
	assert.Contains(t, paper, "no breather since May. Against it: Fit a breather, flush the tank, by the mill.")
	assert.Contains(t, strings.Join(report.StartUp(st), "\n"), "Before anything turns: Fit a breather")

	require.NoError(t, s.RemoveCause(ctx, iva, tag, 1, 1))
	assert.ErrorContains(t, s.RemoveCause(ctx, iva, tag, 1, 1), "not there any more")
	assert.Len(t, load(t, s, tag).Causes(), 2)
}

// A failed test brings another root to light: it joins, and the first stays on the papers.
func TestANewRootJoinsTheFirst(t *testing.T) {
	s, ctx := press(t), context.Background()
	put(t, s, "T-0417", "u1/conclusion/cause", "contamination")
	require.NoError(t, s.OpenRound(ctx, iva, "T-0417", 1, "build", "", "still weak when hot"))
	put(t, s, "T-0417", "u1/conclusion/cause", "relief_tired")
	st := load(t, s, "T-0417")
	assert.Equal(t, "relief_tired", st.Cause.Code)
	causes := st.Causes()
	require.Len(t, causes, 2)
	assert.Equal(t, []string{"relief_tired", "contamination"}, []string{causes[0].Code, causes[1].Code})
	assert.Equal(t, 1, causes[1].Round)
	assert.Contains(t, strings.Join(report.Causes(st), "\n"), "Root cause found in round 1: Hard dirt in the oil")
}

// Fair wear is what is left when other roots were looked for: called with nothing looked
// for it is challenged, by name; looked for, or answered in words, it stands.
func TestFairWearIsChallenged(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	put(t, s, tag, "job/symptom/weak_hot", "yes")
	put(t, s, tag, "u1/conclusion/cause", "fair_wear")
	challenged := func() bool {
		for _, stop := range load(t, s, tag).Stops["explain"] {
			if stop.Kind == unit.StopLeftOver {
				return true
			}
		}
		return false
	}
	require.True(t, challenged())
	for range 20 { // whatever is asked for is looked for, and not there
		st := load(t, s, tag)
		rivals := st.NotLookedFor()
		if len(rivals) == 0 {
			break
		}
		for code, word := range rivals[0].Points {
			if word == "almost_always" {
				put(t, s, tag, "u1/evidence/"+code+"/state", "absent")
			}
		}
	}
	assert.False(t, challenged(), "they were looked for")

	other := newUnit(t, s, "external_gear_pump")
	tag = other
	put(t, s, tag, "job/symptom/weak_hot", "yes")
	put(t, s, tag, "u1/conclusion/cause", "fair_wear")
	require.True(t, challenged())
	put(t, s, tag, "u1/conclusion/statement", "Twelve thousand hours, no mark of dirt, water or heat.")
	assert.False(t, challenged(), "answered in words")
}

// The chain says where it stops; a contributing cause carries it on.
func TestTheChainSaysWhereItStops(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "axial_piston_pump")
	put(t, s, tag, "u1/conclusion/cause", "fed_on_stroke")
	st := load(t, s, tag)
	links := st.Why(st.Cause)
	last := links[len(links)-1]
	assert.True(t, last.Open)
	assert.Contains(t, last.Text, strings.ToLower(st.Cause.Name))
	require.NoError(t, s.AddCause(ctx, iva, tag, 1, unit.RoleContributing, "", "Varnish from an oil never changed"))
	st = load(t, s, tag)
	links = st.Why(st.Cause)
	last = links[len(links)-1]
	assert.False(t, last.Open)
	assert.Equal(t, "Varnish from an oil never changed", last.Text)
	assert.NotEmpty(t, last.Told)
}
