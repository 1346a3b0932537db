package job_test

import (
	"testing"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/invented"
	"corvek/core/unit"
	"corvek/internal/job/jobtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A relief spring far from the book's length is asked whose it is before anything is
// proposed, and what it sets is worked out by its own rate or not at all.
func TestASpringFarFromTheBookIsAskedAboutFirst(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	jobtest.OwnSizes(t, s, tag, invented.Sizes{})
	put(t, s, tag, "u1/part/relief_spring/coil_rate", "")
	put(t, s, tag, "u1/part/relief_spring/off", "yes")
	put(t, s, tag, "u1/part/relief_spring/feature/free_length/found/v1", "47.00 mm")
	st := load(t, s, tag)
	spring := st.ByCode["relief_spring"]
	assert.Equal(t, decide.Open, spring.Choice(), spring.Proposal.Reason)
	assert.Contains(t, spring.Proposal.Reason, "another variant's?")
	assert.Contains(t, stopsOf(st, "relief_spring"), unit.StopOpen)
	assert.Zero(t, st.Found.Relief.Cracking, "a length alone says no pressure")
	require.NotNil(t, st.Coil(spring.AsFound))
	assert.Nil(t, st.Coil(spring.AsFound).Output)

	// d = 3 mm, D = 12 mm, n = 6: R = 79.3e9·0.003⁴/(8·0.012³·6) = 77.44 N/mm.
	put(t, s, tag, "u1/part/relief_spring/coil_wire", "3 mm")
	put(t, s, tag, "u1/part/relief_spring/coil_mean", "12 mm")
	put(t, s, tag, "u1/part/relief_spring/coil_turns", "6")
	st = load(t, s, tag)
	out := st.Coil(st.ByCode["relief_spring"].AsFound).Output
	require.NotNil(t, out)
	cracking, ok := out.Value("cracking_pressure")
	require.True(t, ok)
	assert.InEpsilon(t, cracking, st.Found.Relief.Cracking, 1e-9, "Prove's prediction rests on the same figure")

	for is, want := range map[string]decide.Choice{unit.CoilOwn: decide.Replace, unit.CoilAnother: decide.Replace,
		unit.CoilChanged: decide.Keep} {
		put(t, s, tag, "u1/part/relief_spring/coil_is", is)
		assert.Equal(t, want, load(t, s, tag).ByCode["relief_spring"].Choice(), is)
	}
	put(t, s, tag, "u1/part/relief_spring/feature/free_length/found/v1", "41.00 mm")
	st = load(t, s, tag)
	assert.False(t, st.Coil(st.ByCode["relief_spring"].AsFound).Doubt, "2 % short is wear, and no question")
	put(t, s, tag, "u1/setting_low", "180 bar")
	out = load(t, s, tag).Coil(st.ByCode["relief_spring"].AsFound).Output
	_, ok = out.Value("shim_for_target")
	assert.True(t, ok, "the shim for the setting wanted")
	assert.Positive(t, st.Found.Relief.Cracking)
}

// A face that is lapped is asked how flat it is and measured again before the build is
// honest, and what came off counts against what may.
func TestALappedPlateIsMeasuredAgain(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	put(t, s, tag, "u1/part/front_plate/off", "yes")
	put(t, s, tag, "u1/part/front_plate/feature/face/found/grade", "4")
	lap := func() (w bench.Way) {
		for _, w := range load(t, s, tag).ByCode["front_plate"].Going() {
			return w
		}
		return w
	}
	assert.Equal(t, "lap", lap().Code)
	open := func() []unit.StopKind { return stopsOf(load(t, s, tag), "front_plate") }
	assert.Contains(t, open(), unit.StopRework)
	assert.Contains(t, open(), unit.StopAgain)
	put(t, s, tag, "u1/part/front_plate/rework/lap/flat_how", unit.FlatBlued)
	put(t, s, tag, "u1/part/front_plate/rework/lap/taken", "0.03 mm")
	put(t, s, tag, "u1/part/front_plate/feature/face/built/grade", "1")
	assert.NotContains(t, open(), unit.StopRework)
	assert.NotContains(t, open(), unit.StopAgain)
	left, _ := lap().Route.Left()
	assert.InDelta(t, 0.07e-3, left, 1e-9)

	put(t, s, tag, "u1/part/front_plate/rework/lap/flat_first", "4 um")
	put(t, s, tag, "u1/part/front_plate/rework/lap/flat_now", "11 um")
	assert.Contains(t, open(), unit.StopRework, "it got less flat")
	put(t, s, tag, "u1/part/front_plate/rework/grind/goes", "yes")
	assert.Equal(t, "grind", lap().Code)
	put(t, s, tag, "u1/part/front_plate/rework/grind/sent", "2031-05-13")
	assert.Equal(t, "outside", load(t, s, tag).Job.Waiting)
	put(t, s, tag, "u1/part/front_plate/rework/lap/taken", "0.12 mm")
	put(t, s, tag, "u1/part/front_plate/rework/grind/goes", "")
	assert.Equal(t, "grind", lap().Code, "too much came off for the lap")
}

// A part that is added to a unit can be saved as its kind can.
func TestAnAddedPartIsSavedAsItsKindIs(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	code, err := s.AddPart(t.Context(), iva, tag, 1, "front_cover", "second rod", "rod", 1)
	require.NoError(t, err)
	st := load(t, s, tag)
	ways := st.ByCode[code].Ways()
	require.NotEmpty(t, ways)
	assert.Equal(t, "rechrome", ways[0].Code)
}

// The price of a part's clearances in lost flow is its share of the whole leak.
func TestLostFlowOfThePartsIsTheWholeLeak(t *testing.T) {
	s := press(t)
	st, err := s.Load(t.Context(), "T-0417", 1)
	require.NoError(t, err)
	sum := 0.0
	for _, p := range st.Parts {
		lost, ok := st.LostBy(p)
		sum += lost.Flow
		assert.Equal(t, ok, len(lost.Steps) > 0)
	}
	assert.InEpsilon(t, st.Leak.Flow, sum, 1e-9)
}
