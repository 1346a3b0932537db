package job_test

import (
	"context"
	"strings"
	"testing"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/core/invented"
	"corvek/internal/job/jobtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What gets lost at the bench is caught by the record.
func TestTheRecordCatchesWhatHandsLose(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	take := func(code string) (string, *bench.State) {
		tag := newUnit(t, s, code)
		require.NoError(t, s.TakeOffRest(context.Background(), iva, tag, 1))
		return tag, load(t, s, tag)
	}

	t.Run("a gear fitted backwards", func(t *testing.T) {
		tag, st := take("external_gear_pump")
		g := partOf(t, st, "driven_gear")
		put(t, s, tag, at(g, "step/done"), "yes")
		put(t, s, tag, at(g, "step/facing"), "long journal to the rear")
		assert.Contains(t, stops(load(t, s, tag), "build"), "Driven gear: fitted \"long journal to the rear\"")
		put(t, s, tag, at(g, "step/facing"), "long journal to the front")
		assert.NotContains(t, stops(load(t, s, tag), "build"), "Driven gear: fitted")
	})
	t.Run("a missing needle", func(t *testing.T) {
		tag, st := take("external_gear_pump")
		put(t, s, tag, at(partOf(t, st, "rear_needles"), "found"), "33")
		st = load(t, s, tag)
		assert.Contains(t, stops(st, "strip"), "Rear needles: 33 of 34, one not found")
		assert.Contains(t, stops(st, "handover"), "flushed", "it is still in the unit or in the circuit")
	})
	t.Run("an extra shim", func(t *testing.T) {
		tag, st := take("bent_axis_unit")
		p := partOf(t, st, "preload_shims")
		put(t, s, tag, at(p, "stack_found"), "shim shim")
		put(t, s, tag, at(p, "step/stack_fit"), "shim shim shim")
		put(t, s, tag, at(p, "step/done"), "yes")
		assert.Contains(t, stops(load(t, s, tag), "build"), "one shim too many")
	})
	t.Run("a flipped dished spring", func(t *testing.T) {
		tag, st := take("winch_brake_pack")
		p := partOf(t, st, "disc_springs")
		put(t, s, tag, at(p, "stack_found"), p.Stack.Def.As)
		put(t, s, tag, at(p, "step/stack_fit"), strings.Replace(p.Stack.Def.As, "disc<", "disc>", 1))
		put(t, s, tag, at(p, "step/done"), "yes")
		assert.Contains(t, stops(load(t, s, tag), "build"), "dished spring at place 3 is turned over")
		put(t, s, tag, at(p, "step/stack_fit"), p.Stack.Def.As)
		assert.NotContains(t, stops(load(t, s, tag), "build"), "turned over")
	})
	t.Run("what a plate pack holds", func(t *testing.T) {
		tag, st := take("winch_brake_pack")
		springs, plates := partOf(t, st, "disc_springs"), partOf(t, st, "plates")
		jobtest.OwnSizes(t, s, tag, invented.Sizes{})
		put(t, s, tag, at(plates, "stack_found"), plates.Stack.Def.As)
		st = load(t, s, tag)
		_, ok := st.Carries(partOf(t, st, "plates"), false)
		assert.False(t, ok, "the springs are not noted yet")
		put(t, s, tag, at(springs, "stack_found"), springs.Stack.Def.As)
		st = load(t, s, tag)
		torque, ok := st.Carries(partOf(t, st, "plates"), false)
		require.True(t, ok)
		assert.InDelta(t, 0.06146*partOf(t, st, "disc_springs").Stack.FoundDoes.Force, torque, 0.1)
		_, ok = st.Carries(partOf(t, st, "plates"), true)
		assert.False(t, ok, "nothing is noted as fitted")
	})
	t.Run("a ball lost with its screw", func(t *testing.T) {
		tag, st := take("slave_cylinder")
		assert.False(t, partOf(t, st, "bleed_screw").Off, "it is left alone by the rest, and what is behind it too")
		assert.False(t, partOf(t, st, "bleed_ball").Off)
		put(t, s, tag, at(partOf(t, st, "bleed_screw"), "off"), "yes")
		put(t, s, tag, at(partOf(t, st, "bleed_ball"), "off"), "yes")
		put(t, s, tag, at(partOf(t, st, "bleed_ball"), "found"), "0")
		assert.Contains(t, stops(load(t, s, tag), "strip"), "Bleed ball: 0 of 1, one not found")
	})
	t.Run("a stack whose order nobody wrote down", func(t *testing.T) {
		tag, _ := take("winch_brake_pack")
		assert.Contains(t, stops(load(t, s, tag), "strip"),
			"Dished spring stack: order and facing as removed not noted")
	})
	t.Run("a seized part freed before it was described", func(t *testing.T) {
		tag, st := take("master_cylinder")
		p := partOf(t, st, "piston")
		put(t, s, tag, at(p, "stuck"), "seized")
		assert.Contains(t, stops(load(t, s, tag), "strip"), "before freeing or wiping")
		put(t, s, tag, at(p, "note"), "rust ring at mid bore, moved 2 mm")
		assert.NotContains(t, stops(load(t, s, tag), "strip"), "before freeing")
	})
}

// The order on the bench need not be the family's, and Build runs it backwards.
func TestOrderAsItCameApart(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "flow_divider")
	order := func() (a, b int) {
		for i, p := range load(t, s, tag).InOrder() {
			switch p.Code {
			case "relief_a":
				a = i
			case "relief_b":
				b = i
			}
		}
		return a, b
	}
	a, b := order()
	assert.Greater(t, a, b, "a comes off first")
	require.NoError(t, s.MovePart(ctx, iva, tag, 1, "relief_b", -1))
	a, b = order()
	assert.Less(t, a, b, "the first off goes on last")
	require.NoError(t, s.MovePart(ctx, iva, tag, 1, "end_cover", -1))
	st := load(t, s, tag)
	assert.Equal(t, "end_cover", st.Parts[0].Code)
	steps := st.InOrder()
	assert.Equal(t, "end_bolts", steps[len(steps)-1].Code, "what cannot be is not proposed")
	var fe *field.Error
	require.ErrorAs(t, s.MovePart(ctx, iva, tag, 1, "end_cover", -1), &fe)
	require.ErrorAs(t, s.MovePart(ctx, iva, tag, 1, "no_such_part", 1), &fe)
}

// What does not fit the concluded cause is answered in words.
func TestMisfitIsAnswered(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "axial_piston_pump")
	put(t, s, tag, "u1/evidence/retainer_broken/state", "seen")
	put(t, s, tag, "u1/evidence/fine_lines/state", "seen")
	put(t, s, tag, "u1/conclusion/cause", "contamination")
	assert.Contains(t, stops(load(t, s, tag), "explain"),
		"Does not fit hard dirt in the oil: retainer plate broken or bent")
	put(t, s, tag, "u1/conclusion/statement", "The retainer broke when the scored slippers seized; both are shown "+
		"in the pictures.")
	assert.NotContains(t, stops(load(t, s, tag), "explain"), "Does not fit")
}

// A field modification belongs to the identity: what became of it is said at Build.
func TestModificationIsCarriedOver(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "relief_valve")
	assert.NotContains(t, stops(load(t, s, tag), "build"), "Modified")
	put(t, s, tag, "u1/modification", "restrictor in the pilot line")
	assert.Contains(t, stops(load(t, s, tag), "build"), "restrictor in the pilot line")
	put(t, s, tag, "u1/modification_kept", "carried over")
	assert.NotContains(t, stops(load(t, s, tag), "build"), "Modified")
}
