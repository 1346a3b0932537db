package job_test

import (
	"context"
	"slices"
	"testing"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/report"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The suffix tells the variant, and the variant what is on the unit: nothing asks for
// what it has not, the rule is said, and without the variant all is as before.
func TestTheVariantRulesTheUnit(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	put(t, s, tag, "u1/model", "GX-32 R1")
	before := load(t, s, tag)
	require.NotNil(t, before.Variant.Chosen)
	put(t, s, tag, "u1/variant", before.Variant.Chosen.Variant.Name)

	st := load(t, s, tag)
	assert.Len(t, st.Parts, len(before.Parts)-2)
	for _, code := range []string{"seal_outer", "seal_spacer"} {
		assert.Nil(t, st.ByCode[code])
		assert.Empty(t, stopsOf(st, code))
		p := st.Unit.Part(code)
		assert.Contains(t, p.Absent, "model number ends R1", "the rule is said")
	}
	assert.NotNil(t, st.ByCode["seal_inner"])
	for _, p := range st.Parts {
		assert.Equal(t, before.ByCode[p.Code].Expected, p.Expected, p.Code)
		assert.Len(t, p.Features, len(before.ByCode[p.Code].Features), p.Code)
	}
	assert.Contains(t, report.Differs(st)[0], "One shaft seal: model number ends R1")

	put(t, s, tag, "u1/variant", "")
	again := load(t, s, tag)
	assert.Len(t, again.Parts, len(before.Parts))
	assert.Empty(t, report.Differs(again))
}

func TestTheVariantChangesCountsAndStacks(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "winch_brake_pack")
	put(t, s, tag, "u1/variant", "Seven friction plates")
	st := load(t, s, tag)
	plates, springs := partOf(t, st, "plates"), partOf(t, st, "disc_springs")
	assert.Equal(t, 15, plates.Expected)
	assert.Equal(t, unit.CountVariant, plates.From)
	assert.Len(t, plates.Stack.Right, 15)
	assert.Equal(t, 12, springs.Expected)
	assert.Equal(t, 7, plates.Features[0].Def.Cols, "seven linings are measured")

	// What was counted by hand stays, whatever the variant.
	require.NoError(t, s.Recount(context.Background(), iva, tag, 1, "disc_springs", 10, unit.CountCounted,
		"counted twice"))
	put(t, s, tag, "u1/variant", "Five friction plates")
	st = load(t, s, tag)
	assert.Equal(t, 11, partOf(t, st, "plates").Expected)
	assert.Equal(t, unit.CountFamily, partOf(t, st, "plates").From)
	assert.Equal(t, 10, partOf(t, st, "disc_springs").Expected)
}

// Limits and sizes are a model's: a variant that the shop kept brings them, and one typed here stays.
func TestTheVariantBringsItsSizes(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	require.NoError(
		t,
		s.SaveVariant(context.Background(), odd, "relief_valve", "tall", "{code: tall, name: Tall spring, "+
			"suffix: [T], change: {parts: {spring: {features: [{code: free_length, as_new: 56 mm, lower: 55.5 mm, "+
			"upper: 56.5 mm, standing: maker, source: sheet 4}]}}}}", "measured on two"),
	)
	tag := newUnit(t, s, "relief_valve")
	put(t, s, tag, "u1/part/spring/feature/free_length/found/v1", "56.1 mm")
	spring := func() *bench.Feature { return partOf(t, load(t, s, tag), "spring").Features[0] }
	assert.Empty(t, spring().Found.Verdict, "whose spring it is is not known")
	put(t, s, tag, "u1/variant", "Tall spring")
	assert.Equal(t, metrology.In, spring().Found.Verdict, "the spring is this variant's")
	assert.Equal(t, unit.AsNew{Low: quantity.Kept("56 mm", quantity.Length, ""), From: unit.NewSheet,
		Source: "sheet 4"}, spring().New)
	put(t, s, tag, "u1/part/spring/feature/free_length/upper", "56.05 mm")
	put(t, s, tag, "u1/variant", "")
	assert.Equal(t, "56.05 mm", spring().Upper.Typed, "a limit typed here stays")
	assert.False(t, spring().New.Holds(), "the size as new goes with its variant")
}

// A part on the bench that the variant has not is on the unit all the same.
func TestWhatLiesOnTheBenchIsThere(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	put(t, s, tag, "u1/part/seal_outer/found", "1")
	put(t, s, tag, "u1/variant", "One shaft seal")
	st := load(t, s, tag)
	p := partOf(t, st, "seal_outer")
	assert.True(t, p.OnUnit())
	assert.Equal(t, "lip_seal", p.Def.Kind)
	assert.True(t, p.Def.Renew, "its kind brings what belongs to it")
	assert.Equal(t, unit.CountCounted, p.From)
	assert.Nil(t, st.ByCode["seal_spacer"])
	put(t, s, tag, "u1/variant", "")
	p = partOf(t, load(t, s, tag), "seal_outer")
	assert.Empty(t, p.Kind)
	assert.Equal(t, "1", p.Found)
}

// A relief valve more, and then not: parts, leaks and steps of the test follow.
func TestAnAssemblyOnceMoreAndOnceLess(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "external_gear_pump")
	parts := len(load(t, s, tag).Parts)
	assert.ErrorContains(t, s.AddAssembly(ctx, iva, tag, 1, "relief", " "), "how it is known")
	assert.ErrorContains(t, s.AddAssembly(ctx, iva, tag, 1, "engine", "x"), "not an assembly of the library")
	require.NoError(t, s.AddAssembly(ctx, iva, tag, 1, "relief", "a second bore is open"))

	st := load(t, s, tag)
	assert.Len(t, st.Parts, parts+4)
	p := partOf(t, st, "relief_2.spring")
	assert.Equal(t, "Relief spring, relief valve 2", p.Name)
	assert.Equal(t, "a second bore is open", p.Why)
	put(t, s, tag, "u1/part/relief_2.spring/feature/free_length/lower", "41.5 mm")
	put(t, s, tag, "u1/part/relief_2.spring/feature/free_length/found/v1", "40 mm")
	assert.Equal(t, metrology.Out, partOf(t, load(t, s, tag), "relief_2.spring").Worst)
	_, asked := load(t, s, tag).Family.TestByCode("relief_2_relief")
	assert.True(t, asked)

	assert.ErrorContains(t, s.LeaveOutAssembly(ctx, iva, tag, 1, "relief_2", "miscounted"), "take that back first")
	put(t, s, tag, "u1/part/relief_2.spring/feature/free_length/found/v1", "")
	put(t, s, tag, "u1/part/relief_2.spring/feature/free_length/lower", "")
	require.NoError(t, s.LeaveOutAssembly(ctx, iva, tag, 1, "relief_2", "miscounted"))
	assert.Len(t, load(t, s, tag).Parts, parts)
	assert.Empty(t, load(t, s, tag).Absent)

	require.NoError(t, s.LeaveOutAssembly(ctx, iva, tag, 1, "check", "no check in this casting"))
	st = load(t, s, tag)
	assert.Len(t, st.Absent, 3)
	assert.Equal(t, "no check in this casting", st.Absent[0].Absent)
}

// An assembly that the family has not comes with all that belongs to it, and goes again.
func TestAnAssemblyOfTheLibraryIsAdded(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "lubricator_pump")
	parts := len(load(t, s, tag).Parts)
	require.NoError(t, s.AddAssembly(ctx, iva, tag, 1, "relief_valve", "screwed into the head"))
	st := load(t, s, tag)
	assert.Len(t, st.Parts, parts+4)
	spring := partOf(t, st, "relief_valve_spring")
	assert.Equal(t, "Relief valve", spring.Def.Branch)
	assert.NotEmpty(t, spring.Features)
	_, asked := st.Family.TestByCode("relief")
	assert.True(t, asked, "its step of the test")
	assert.True(
		t,
		slices.ContainsFunc(st.Family.Owes, func(o family.Owed) bool { return slices.Contains(o.By, "relief") }),
		"and its claim",
	)
	require.NoError(t, s.AddAssembly(ctx, iva, tag, 1, "relief_valve", "and a second"))
	assert.NotNil(t, load(t, s, tag).ByCode["relief_valve_2.poppet"])
	require.NoError(t, s.LeaveOutAssembly(ctx, iva, tag, 1, "relief_valve_2", "miscounted"))
	require.NoError(t, s.LeaveOutAssembly(ctx, iva, tag, 1, "relief_valve", "another pump's"))
	assert.Len(t, load(t, s, tag).Parts, parts)
}

// What was made true at the bench is kept on the sheet of the model, and the next unit of it is laid out so.
func TestAUnitMadeTrueIsKeptForTheNext(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "external_gear_pump")
	assert.ErrorContains(t, s.KeepSheet(ctx, iva, tag, 1, job.Kept{Groups: []string{"form"}}), "model number first")
	put(t, s, tag, "u1/model", "GX-99 K")
	put(t, s, tag, "u1/part/seal_outer/absent", "one seal in this cover")
	_, err := s.AddPart(ctx, iva, tag, 1, "shims", "Wear ring", "o_ring", 2)
	require.NoError(t, err)
	require.NoError(t, s.Recount(ctx, iva, tag, 1, "front_needles", 36, unit.CountCounted, "counted twice"))
	require.NoError(t, s.AddAssembly(ctx, iva, tag, 1, "check", "two checks"))
	put(t, s, tag, "u1/part/rear_plate/feature/side_clearance/upper", "6 thou")
	put(t, s, tag, "u1/part/rear_plate/feature/side_clearance/source", "sheet 12")
	put(t, s, tag, "u1/part/rear_plate/feature/side_clearance/standing", "maker")
	put(t, s, tag, "u1/part/cover_bolts/thread", "M12")
	put(t, s, tag, "u1/part/cover_bolts/class", "10.9")
	keepAll(t, s, tag)

	next, err := s.Create(ctx, iva, job.NewJob{Customer: "Mill", Title: "Next", Complaint: "weak",
		Family: "external_gear_pump", Model: "gx99k"})
	require.NoError(t, err)
	st := load(t, s, next)
	assert.Nil(t, st.ByCode["seal_outer"])
	assert.Equal(t, 36, partOf(t, st, "front_needles").Expected)
	ring := partOf(t, st, "wear_ring")
	assert.Equal(t, 2, ring.Expected)
	assert.Equal(t, "o_ring", ring.Def.Kind)
	assert.True(t, ring.Def.Renew)
	assert.NotEmpty(t, ring.Features, "its kind brings what is measured")
	assert.NotNil(t, st.ByCode["check_2.ball"])
	side := partOf(t, st, "rear_plate").Part.Feature("side_clearance")
	assert.Equal(t, "6 thou", side.Upper.Typed)
	assert.Equal(t, "sheet", side.LimitSource)
	assert.Equal(t, "GX-99 K: maker's document, sheet 12", side.Source)
	joint := partOf(t, st, "cover_bolts").Part.Joint
	assert.Equal(t, "M12", joint.Thread)
	assert.Equal(t, "10.9", joint.Class)
}

// A lead writes a variant of the shop's own, changes it and takes it out of use; each with a reason.
func TestAVariantOfTheShopsOwnIsTheLeads(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	require.NoError(t, s.SaveVariant(ctx, odd, "external_gear_pump", "tarn_short",
		"{code: tarn_short, name: Tarn short, suffix: [K], change: {without: [seal_outer]}}", "measured on two"))
	assert.ErrorIs(t, s.SaveVariant(ctx, iva, "external_gear_pump", "tarn_short", "", "x"), people.ErrForbidden)
	assert.ErrorContains(t, s.SaveVariant(ctx, odd, "external_gear_pump", "tarn_short", "code: [", "x"), "tarn_short")
	assert.ErrorContains(t, s.SaveVariant(ctx, odd, "external_gear_pump", "tarn_short",
		"code: other\nname: O\nsuffix: [O]\n", "x"), "must be")
	require.NoError(t, s.SaveVariant(ctx, odd, "external_gear_pump", "tarn_short", "", "was one unit only"))
	assert.Nil(t, s.Families()["external_gear_pump"].VariantNamed("tarn_short"))
	history, err := s.Store.FamilyHistory(ctx, "external_gear_pump/tarn_short")
	require.NoError(t, err)
	assert.Len(t, history, 2)
}

// A setting from a document rules the step that proves it.
func TestOwnSettingOfARelief(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	put(t, s, tag, "u1/duty_pressure", "175 bar")
	put(t, s, tag, "u1/attempt/0/point/relief/pressure", "165 bar")
	verdict := func() metrology.Verdict {
		for _, p := range load(t, s, tag).Received.Points {
			if p.Test.Judges(family.BySetting) {
				return p.Verdict
			}
		}
		return "no such step"
	}
	assert.Equal(t, metrology.Out, verdict(), "guidance: 5 to 20 percent over duty")
	put(t, s, tag, "u1/setting_low", "160 bar")
	put(t, s, tag, "u1/setting_high", "170 bar")
	put(t, s, tag, "u1/setting_source", "sheet 4-12")
	assert.Equal(t, metrology.In, verdict())
	assert.ErrorContains(t, edit(s, context.Background(), iva, tag, "u1/setting_high", "150 bar", "170 bar"),
		"above the upper")
	st := load(t, s, tag)
	for _, p := range st.Received.Points {
		if p.Test.Judges(family.BySetting) {
			assert.Equal(t, []string{"pressure 160.0 bar to 170.0 bar, sheet 4-12"},
				report.LimitWords(p.Figures, quantity.Metric))
		}
	}
}
