package job_test

import (
	"testing"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// kindsAt are the kinds of stop that hold at Build for a part.
func kindsAt(st *bench.State, part string) (kinds []unit.StopKind) {
	for _, stop := range st.Stops["build"] {
		if stop.Part == part {
			kinds = append(kinds, stop.Kind)
		}
	}
	return kinds
}

// lookedAt says of all that nobody looked at that it was, and is sound.
func lookedAt(t *testing.T, s *job.Service, tag string) {
	t.Helper()
	var codes []string
	for _, p := range load(t, s, tag).Unseen() {
		codes = append(codes, p.Code)
	}
	if len(codes) > 0 {
		require.NoError(t, s.LookedAt(t.Context(), iva, tag, 1, codes))
	}
	require.Empty(t, load(t, s, tag).Unseen())
}

// What works and nobody looked at is open, and one act answers for all that were looked at: not for what bears a mark
// or is still on.
func TestOneActAnswersForAllThatWereLookedAt(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "cam_piston_pump")
	assert.Empty(t, load(t, s, tag).Unseen(), "it is still on")
	assert.ErrorContains(t, s.LookedAt(t.Context(), iva, tag, 1, []string{"camshaft"}), "still on")
	require.NoError(t, s.TakeOffRest(t.Context(), iva, tag, 1))
	before := len(load(t, s, tag).Unseen())
	require.Greater(t, before, 2)
	assert.Contains(t, stops(load(t, s, tag), "decide"), "Front bearing: not looked at")
	put(t, s, tag, "u1/part/front_bearing/mark/scored/state", "seen")
	assert.Len(t, load(t, s, tag).Unseen(), before-1)
	assert.ErrorContains(t, s.LookedAt(t.Context(), iva, tag, 1, []string{"shoes", "front_bearing"}), "bears a mark")
	assert.False(t, load(t, s, tag).ByCode["shoes"].Sound, "nothing of it is kept")
	assert.ErrorContains(t, s.LookedAt(t.Context(), iva, tag, 1, nil), "tick what was looked at")
	lookedAt(t, s, tag)
	assert.NotContains(t, stops(load(t, s, tag), "decide"), "not looked at")
}

// What went wrong in a build is caught before the stand: each by its own stop, and the stand
// is refused for it.
func TestMistakesOfABuildAreCaughtBeforeProve(t *testing.T) {
	s := press(t)
	jobtest.ToTheStand(t, s, "T-0417")
	for name, c := range map[string]struct {
		part, field, value, right string
		want                      unit.StopKind
	}{
		"a backward gear": {"driven_gear", "step/facing", "long journal to the rear", "long journal to the front",
			unit.StopFacing},
		"a needle that stayed out":   {"front_needles", "step/count", "33", "34", unit.StopCount},
		"an extra shim":              {"relief_shims", "step/count", "3", "2", unit.StopCount},
		"a joint left as it was":     {"cover_bolts", "step/torque", "", "38 N·m", unit.StopTorque},
		"a bolt that is overdone":    {"cover_bolts", "step/torque", "120 N·m", "38 N·m", unit.StopTorque},
		"a bolt without a head mark": {"cover_bolts", "class", "unknown", "8.8", unit.StopTorque},
		"stiff after the cover":      {"front_cover", "step/turn", "stiff", "free", unit.StopStiff},
	} {
		ref := "u1/part/" + c.part + "/" + c.field
		require.NotContains(t, kindsAt(load(t, s, "T-0417"), c.part), c.want, name)
		put(t, s, "T-0417", ref, c.value)
		assert.Contains(t, kindsAt(load(t, s, "T-0417"), c.part), c.want, name)
		assert.Error(t, s.NextAttempt(t.Context(), iva, "T-0417", 1, bench.Change{}), name)
		put(t, s, "T-0417", ref, c.right)
	}
	require.NoError(t, s.NextAttempt(t.Context(), iva, "T-0417", 1, bench.Change{}), "without a mistake it goes")
}

// A lip that runs on its old groove is told from the depth it was pressed to; where no depth
// is left, the shaft is sleeved.
func TestALipRunsBesideItsOldGroove(t *testing.T) {
	s := press(t)
	jobtest.ToTheStand(t, s, "T-0417")
	outer := "u1/part/seal_outer/"
	put(t, s, "T-0417", outer+"step/press", "")
	assert.Contains(t, kindsAt(load(t, s, "T-0417"), "seal_outer"), unit.StopLip, "the shaft has a groove")
	for name, value := range map[string]string{"lip_groove": "4.5 mm", "lip_groove_width": "0.8 mm",
		"seal_width": "7 mm", "lip_position": "5 mm", "lip_bore": "12 mm"} {
		put(t, s, "T-0417", outer+name, value)
	}
	put(t, s, "T-0417", outer+"step/press", "0 mm") // the lip at 5.0 mm, in the groove from 4.5 to 5.3
	assert.Contains(t, kindsAt(load(t, s, "T-0417"), "seal_outer"), unit.StopLip)
	put(t, s, "T-0417", outer+"step/press", "1 mm") // at 6.0 mm, beside it
	assert.NotContains(t, kindsAt(load(t, s, "T-0417"), "seal_outer"), unit.StopLip)
	put(t, s, "T-0417", outer+"lip_groove_width", "9 mm")
	put(t, s, "T-0417", outer+"lip_groove", "4 mm")
	assert.Contains(t, kindsAt(load(t, s, "T-0417"), "seal_outer"), unit.StopLip, "no depth is left")
}

// A part that closes over an open place is told, until somebody writes why, also once the
// place was filled after all; taken out again it remembers.
func TestOrderIsHeldAndRemembered(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	cover := func() unit.Step { return load(t, s, tag).ByCode["front_cover"].Step }
	put(t, s, tag, "u1/part/front_cover/step/done", "yes")
	assert.NotContains(
		t,
		kindsAt(load(t, s, tag), "front_cover"),
		unit.StopOrder,
		"it can be built up from either cover",
	)
	put(t, s, tag, "u1/part/front_cover/step/done", "")
	put(t, s, tag, "u1/part/rear_cover/step/done", "yes")
	put(t, s, tag, "u1/part/front_cover/step/done", "yes")
	assert.Contains(t, kindsAt(load(t, s, tag), "front_cover"), unit.StopOrder)
	assert.Contains(t, cover().Over, "front needles")
	assert.Contains(t, cover().Over, "drive gear")
	assert.NotContains(t, cover().Over, "relief spring", "another branch is another matter")
	put(t, s, tag, "u1/part/front_cover/step/order_why", "tried dry for its gap")
	assert.NotContains(t, kindsAt(load(t, s, tag), "front_cover"), unit.StopOrder)
	put(t, s, tag, "u1/part/front_cover/step/done", "")
	assert.Equal(t, 2, cover().TakenOut)
	assert.Empty(t, cover().Over)
}

// A fastener is in, or tightened; only tightening waits for all that it closes.
func TestATightenedJointWaitsForWhatItCloses(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "axial_piston_pump")
	at := func(part, name string) string { return "u1/part/" + part + "/step/" + name }
	for _, p := range load(t, s, tag).InOrder() {
		if p.Code != "shaft" && p.Code != "front_bearing" && p.Code != "seal_plate" && p.Code != "shaft_seal" {
			put(t, s, tag, at(p.Code, "done"), "yes")
		}
	}
	assert.NotContains(t, kindsAt(load(t, s, tag), "cover_bolts"), unit.StopOrder, "the bolts are in, and loose")
	put(t, s, tag, at("cover_bolts", "torque"), "40 N·m")
	st := load(t, s, tag)
	assert.Contains(t, kindsAt(st, "cover_bolts"), unit.StopOrder)
	assert.Equal(t, "shaft", st.ByCode["cover_bolts"].Step.Over)
	put(t, s, tag, at("cover_bolts", "torque"), "")
	put(t, s, tag, at("shaft", "done"), "yes")
	put(t, s, tag, at("cover_bolts", "torque"), "40 N·m")
	assert.NotContains(t, kindsAt(load(t, s, tag), "cover_bolts"), unit.StopOrder)
}

// A new round opens the unit down to where the cause points; what was not touched stays
// built, and what came out remembers.
func TestARoundOpensDownToAPart(t *testing.T) {
	s := press(t)
	jobtest.ToTheStand(t, s, "T-0417")
	put(t, s, "T-0417", "u1/part/cover_bolts/step/turn", "stiff")
	require.Equal(t, "cover_bolts", load(t, s, "T-0417").PointedAt().Code, "it was felt there")
	require.NoError(t, s.OpenRound(t.Context(), iva, "T-0417", 1, "build", "front_cover", "stiff"))
	st := load(t, s, "T-0417")
	assert.False(t, st.ByCode["front_cover"].Step.Done)
	assert.False(t, st.ByCode["cover_bolts"].Step.Done, "it lies above")
	assert.Equal(t, 1, st.ByCode["front_cover"].Step.TakenOut)
	assert.True(t, st.ByCode["body"].Step.Done, "not touched")
	assert.True(t, st.ByCode["relief_spring"].Step.Done, "on a branch of its own")
	assert.Empty(t, st.ByCode["cover_bolts"].Step.Turn)
	assert.Error(t, s.OpenRound(t.Context(), iva, "T-0417", 1, "build", "nothing", "x"))
	require.NoError(t, s.OpenRound(t.Context(), iva, "T-0417", 1, "strip", "", "all of it"))
	assert.False(t, load(t, s, "T-0417").ByCode["body"].Step.Done)
}

// A unit that was never filled does not go to the stand, and when it was filled is kept.
func TestItIsFilledBeforeItRuns(t *testing.T) {
	s := press(t)
	jobtest.ToTheStand(t, s, "T-0417")
	st := load(t, s, "T-0417")
	require.NotEmpty(t, st.Filling())
	assert.NotEmpty(t, st.Unit.Filled["primed"])
	put(t, s, "T-0417", "u1/fill/primed", "")
	assert.ErrorContains(t, s.NextAttempt(t.Context(), iva, "T-0417", 1, bench.Change{}), "primed")
	put(t, s, "T-0417", "u1/fill/primed", build.FillNone)
	assert.NoError(t, s.NextAttempt(t.Context(), iva, "T-0417", 1, bench.Change{}))
}

// Each family goes through Decide, Kit and Build: every place gets its piece, every part goes
// in as it belongs, and nothing is asked that does not belong to it. What is still open then is
// only what is measured again on the built unit.
func TestEveryFamilyIsKittedAndBuilt(t *testing.T) {
	t.Parallel() // hundreds of writes, in a store of its own
	s := emptyShop(t)
	for _, f := range whole.Of(t, s.Families().List()) {
		t.Run(f.Code, func(t *testing.T) {
			tag := newUnit(t, s, f.Code)
			put(t, s, tag, "u1/rotation", "right")
			require.NoError(t, s.TakeOffRest(t.Context(), iva, tag, 1))
			fill(t, s, tag)
			lookedAt(t, s, tag)
			for _, stop := range load(t, s, tag).Stops["decide"] {
				assert.Equal(t, unit.StopCaution, stop.Kind, stop.Text)
			}
			for _, place := range load(t, s, tag).Places {
				require.NoError(t, s.AddPiece(t.Context(), iva, tag, 1, "", place.Name, place.Need, place.Part))
			}
			assert.Empty(t, load(t, s, tag).KitIssues)
			jobtest.Build(t, s, tag)
			st := load(t, s, tag)
			for _, step := range st.Steps() {
				assert.True(t, step.Done, step.Name)
			}
			for _, stop := range st.Stops["build"] {
				assert.Contains(t, []unit.StopKind{unit.StopAgain, unit.StopCaution}, stop.Kind, stop.Text)
			}
		})
	}
}
