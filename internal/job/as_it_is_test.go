package job_test

import (
	"context"
	"slices"
	"testing"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/explain"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func stopsOf(st *bench.State, part string) (kinds []unit.StopKind) {
	for _, list := range st.Stops {
		for _, s := range list {
			if s.Part == part {
				kinds = append(kinds, s.Kind)
			}
		}
	}
	return kinds
}

// A part said not to be on this unit is asked for nowhere; taken back, it is again.
func TestNotOnThisUnit(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	before := load(t, s, tag)
	require.NotNil(t, before.ByCode["relief_spring"])
	put(t, s, tag, "u1/part/relief_spring/absent", "no relief in this casting")

	st := load(t, s, tag)
	assert.Nil(t, st.ByCode["relief_spring"])
	assert.Len(t, st.Parts, len(before.Parts)-1)
	require.Len(t, st.Absent, 1)
	assert.Equal(t, "no relief in this casting", st.Absent[0].Absent)
	assert.Empty(t, stopsOf(st, "relief_spring"))
	for _, p := range st.Places {
		assert.NotEqual(t, "relief_spring", p.Part)
	}
	assert.Len(t, st.Steps(), len(st.Parts))

	require.NoError(t, s.TakeOffRest(context.Background(), iva, tag, 1))
	assert.False(t, load(t, s, tag).Absent[0].Off, "what is not there does not come off")
	put(t, s, tag, "u1/part/relief_spring/absent", "")
	assert.NotNil(t, load(t, s, tag).ByCode["relief_spring"])

	put(t, s, tag, "u1/part/front_needles/found", "33")
	assert.ErrorContains(t, edit(s, context.Background(), iva, tag, "u1/part/front_needles/absent", "none here", ""),
		"counted or measured here")
}

// Another number said with its source is the number from then on, everywhere; a
// shortage that is only explained is renewed.
func TestAnotherNumberOfPieces(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "external_gear_pump")
	require.NoError(t, s.TakeOffRest(ctx, iva, tag, 1))
	assert.Contains(t, stopsOf(load(t, s, tag), "front_needles"), unit.StopUncounted, "many at once count nothing")
	put(t, s, tag, "u1/part/front_needles/found", "33")
	st := load(t, s, tag)
	assert.Contains(t, stopsOf(st, "front_needles"), unit.StopShort)
	assert.Equal(t, decide.Replace, st.ByCode["front_needles"].Proposal.Choice)

	assert.Error(t, s.Recount(ctx, iva, tag, 1, "front_needles", 33, unit.CountCounted, " "), "needs a line of why")
	assert.Error(t, s.Recount(ctx, iva, tag, 1, "front_needles", 33, "guess", "because"))
	assert.Error(t, s.Recount(ctx, tove, tag, 1, "front_needles", 33, unit.CountCounted, "because"))
	require.NoError(t, s.Recount(ctx, iva, tag, 1, "front_needles", 33, unit.CountVariant, "cage of the B casting"))
	st = load(t, s, tag)
	p := st.ByCode["front_needles"]
	assert.Equal(t, 33, p.Expected)
	assert.Equal(t, unit.CountVariant, p.From)
	assert.Zero(t, p.Missing)
	assert.NotContains(t, stopsOf(st, "front_needles"), unit.StopShort)
	assert.NotContains(t, p.Proposal.Reason, "short")

	put(t, s, tag, "u1/part/front_needles/found", "34")
	assert.Contains(t, stopsOf(load(t, s, tag), "front_needles"), unit.StopOver, "one too many is a stop too")
	require.NoError(t, s.Recount(ctx, iva, tag, 1, "front_needles", 34, unit.CountCounted, "counted twice"))
	assert.Equal(t, unit.CountFamily, load(t, s, tag).ByCode["front_needles"].From, "as the family has it again")
}

// Pieces of a broken part tie by what they make up, and it is broken wherever
// that matters: it is nowhere kept, and Explain hears of it untold.
func TestRetainerInThreePieces(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "axial_piston_pump")
	require.NoError(t, s.TakeOffRest(ctx, iva, tag, 1))
	put(t, s, tag, "u1/part/retainer/found", "0")
	put(t, s, tag, "u1/part/retainer/bits", "2")
	assert.Contains(t, stopsOf(load(t, s, tag), "retainer"), unit.StopShort)

	require.NoError(t, s.AddLoose(ctx, iva, tag, 1, "bit of a plate", "case", 1))
	put(t, s, tag, "u1/loose/1/bit", "yes")
	put(t, s, tag, "u1/loose/1/part", "retainer")
	put(t, s, tag, "u1/part/retainer/bits_make", "1")
	st := load(t, s, tag)
	p := st.ByCode["retainer"]
	assert.Zero(t, p.Missing, "three pieces make one retainer")
	assert.Equal(t, decide.Replace, p.Proposal.Choice)
	assert.Contains(t, p.Proposal.Reason, "broken")
	heard := false
	for _, f := range st.Findings {
		heard = heard || f.Code == "retainer_broken" && f.Strength == explain.Seen
	}
	assert.True(t, heard, "Explain weighs what Strip found")
	assert.True(t, st.BrokenUp())

	put(t, s, tag, "u1/part/retainer/decision/choice", "keep")
	assert.Contains(t, stopsOf(load(t, s, tag), "retainer"), unit.StopReason, "kept only with a written reason")
}

// A mark said on a part, or as evidence, is one mark: each station hears both.
func TestMarkOnAPartIsHeardEverywhere(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "axial_piston_pump")
	strength := func() (float64, bool) {
		for _, f := range load(t, s, tag).Findings {
			if f.Code == "retainer_broken" {
				return f.Strength, true
			}
		}
		return 0, false
	}
	_, said := strength()
	require.False(t, said)
	put(t, s, tag, "u1/part/retainer/sound", "yes")
	got, _ := strength()
	assert.Equal(t, explain.Absent, got, "looked at and sound: it is not broken")
	assert.Contains(t, load(t, s, tag).ByCode["retainer"].Proposal.Reason, "looked at and sound")
	put(t, s, tag, "u1/part/retainer/sound", "")

	put(t, s, tag, "u1/part/retainer/mark/broken/state", "seen")
	got, _ = strength()
	assert.Equal(t, explain.Seen, got)
	put(t, s, tag, "u1/part/retainer/mark/broken/found_how", "after_freeing")
	got, _ = strength()
	assert.Less(t, got, explain.Seen, "found only after freeing it counts for less")
	put(t, s, tag, "u1/part/retainer/mark/broken/origin", "made_by_us")
	_, said = strength()
	assert.False(t, said, "what we broke says nothing of the cause")
	assert.Equal(
		t,
		decide.Replace,
		load(t, s, tag).ByCode["retainer"].Proposal.Choice,
		"and it is broken all the same",
	)
	put(t, s, tag, "u1/part/retainer/mark/broken/state", "")
	assert.Equal(t, decide.Keep, load(t, s, tag).ByCode["retainer"].Proposal.Choice)

	put(t, s, tag, "u1/evidence/retainer_broken/state", "seen")
	p := load(t, s, tag).ByCode["retainer"]
	require.Len(t, p.Seen, 1)
	assert.Equal(t, decide.Replace, p.Proposal.Choice, "Decide hears what Explain was told")
}

// A part that came off seized is not "nothing found": it is looked at first.
func TestSeizedPartIsLookedAt(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	put(t, s, tag, "u1/part/front_cover/stuck", "seized")
	p := load(t, s, tag).ByCode["front_cover"]
	assert.Equal(t, decide.Open, p.Proposal.Choice)
	put(t, s, tag, "u1/part/front_cover/sound", "yes")
	p = load(t, s, tag).ByCode["front_cover"]
	assert.Equal(t, decide.Keep, p.Proposal.Choice)
	assert.Contains(t, p.Proposal.Reason, "came off seized")
}

// A part that the family does not know is a full part: its kind says what is
// measured on it, which way it may lie, and that rubber is renewed.
func TestAddedPartIsAFullPart(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "external_gear_pump")
	seal, err := s.AddPart(ctx, iva, tag, 1, "front_cover", "second shaft seal", "lip_seal", 1)
	require.NoError(t, err)
	spring, err := s.AddPart(ctx, iva, tag, 1, seal, "bleed spring", "spring", 1)
	require.NoError(t, err)
	st := load(t, s, tag)
	assert.Equal(t, decide.Replace, st.ByCode[seal].Proposal.Choice, "a seal is new at every rebuild")
	put(t, s, tag, "u1/part/"+seal+"/off", "yes")
	assert.Contains(t, stopsOf(load(t, s, tag), seal), unit.StopFacing)
	put(t, s, tag, "u1/part/"+spring+"/feature/free_length/found/v1", "22.4 mm")
	assert.True(t, load(t, s, tag).ByCode[spring].Features[0].Found.Any)
}

// A unit that the gauges do not blame stays shut until it is asked, or until a lead
// opens it all the same with a reason that is printed.
func TestGaugesKeepTheUnitShut(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "axial_piston_pump")
	put(t, s, tag, "u1/not_asked", "")
	part := load(t, s, tag).Parts[0].Code
	off := "u1/part/" + part + "/off"
	assert.ErrorContains(t, edit(s, ctx, iva, tag, off, "yes", ""), "not settled at the machine yet")
	assert.ErrorContains(t, s.TakeOffRest(ctx, iva, tag, 1), "not settled at the machine yet")
	require.NoError(t, s.WaiveStop(ctx, odd, tag, 1, "u1/strip/gauges/not_told", "the machine stands at sea"))
	put(t, s, tag, "u1/gauge/on_stroke", "yes") // another reason, which that does not settle
	assert.ErrorContains(t, edit(s, ctx, iva, tag, off, "yes", ""), "Signal line vented")
	put(t, s, tag, "u1/gauge/vent_signal", "falls")
	assert.ErrorContains(t, edit(s, ctx, iva, tag, off, "yes", ""), "cleared by the gauges: the signal is held up")
	require.NoError(t, s.WaiveStop(ctx, odd, tag, 1, "u1/strip/acquitted", "the mill wants it opened"))
	put(t, s, tag, off, "yes")
	stops := load(t, s, tag).Stops["strip"]
	gauges := slices.IndexFunc(stops, func(x bench.Stop) bool { return x.Kind == unit.StopAcquitted })
	require.GreaterOrEqual(t, gauges, 0)
	assert.Equal(t, "the mill wants it opened", stops[gauges].Waived.Reason)
}

// A brake whose own stack differs from its family's is rebuilt as it came off: what
// belongs is what was removed, and nothing about it is called wrong.
func TestOwnStackIsRebuiltAsRemoved(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "winch_brake_pack")
	own := "disc> disc< disc> disc<"
	at := "u1/part/disc_springs/"
	put(t, s, tag, at+"off", "yes")
	put(t, s, tag, at+"stack_found", own)
	put(t, s, tag, at+"step/stack_fit", own)
	put(t, s, tag, at+"step/done", "yes")
	stackStop := func() bool {
		for _, stop := range load(t, s, tag).Stops["build"] {
			if stop.Part == "disc_springs" && stop.Kind == unit.StopStack {
				return true
			}
		}
		return false
	}
	require.True(t, stackStop(), "against the family's stack it is wrong")
	put(t, s, tag, at+"stack_from", unit.StackAsRemoved)
	assert.False(t, stackStop())
	put(t, s, tag, at+"step/stack_fit", "disc> disc< disc> disc>")
	assert.True(t, stackStop(), "and turned over it is not as removed")

	put(t, s, tag, at+"stack_from", unit.StackUnknown)
	assert.False(t, stackStop(), "where nobody knows what belongs nothing is called wrong")
	p := load(t, s, tag).ByCode["disc_springs"]
	assert.Len(t, p.Stack.Changed, 1, "and the difference is said")
	assert.False(t, p.Stack.FoundDoes.HasForce, "the family's springs are not this unit's")
	assert.Equal(t, own, p.StackFound, "what was removed stays as it was")

	for name, size := range map[string]string{"outside": "100 mm", "inside": "51 mm", "thickness": "2.7 mm",
		"cone": "1.8 mm"} {
		put(t, s, tag, at+"spring_"+name, size)
	}
	put(t, s, tag, at+"stack_space", "16 mm")
	does := load(t, s, tag).ByCode["disc_springs"].Stack.FoundDoes
	require.True(t, does.HasForce, does.Fault)
	assert.InDelta(t, 4*(2.7e-3+1.8e-3), does.FreeLength, 1e-9, "four single springs, opposed")
}
