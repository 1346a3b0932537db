package job_test

import (
	"context"
	"strings"
	"testing"

	"corvek/core/bench"
	"corvek/core/invented"
	"corvek/core/metrology"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every field of the address book takes a fitting value, keeps it as typed,
// writes it to the record, and can be cleared again where that makes sense.
func TestEveryFieldKeepsWhatWasTyped(t *testing.T) {
	s, ctx := press(t), context.Background()
	require.NoError(t, s.AddLoose(ctx, iva, "T-0417", 1, "chip", "sump", 2))
	require.NoError(t, s.AddCause(ctx, iva, "T-0417", 1, "first_failure", "", "plates"))
	require.NoError(t, s.AddPiece(ctx, iva, "T-0417", 1, "K-1", "odd washer", 1, ""))
	jobtest.ToTheStand(t, s, "T-0417")
	require.NoError(t, s.NextAttempt(ctx, iva, "T-0417", 1, bench.Change{}))
	st := load(t, s, "T-0417")
	plate, spring := st.ByCode["front_plate"], st.ByCode["relief_spring"]
	gap, length := st.ByCode["rear_plate"].Features[0], spring.Features[0]
	loose, piece, attempt := st.Unit.Loose[0], st.Unit.Kit[0], st.Attempts[0]
	part := plate.Code

	cases := []struct{ field, was, is string }{
		{"job/title", "Press feed pump, No. 2 line", "Press pump"},
		{"job/complaint", st.Job.Complaint, "It is weak.\nVery."},
		{"job/caller", st.Job.Caller, "Hanna"},
		{"job/waiting", "technician", "parts"},
		{"job/waiting_note", "", "Seals on Friday"},
		{"job/policy", "on_condition", "full_overhaul"},
		{"job/lesson", "", "Look at the spring"},
		{"job/warranty_note", "", "two seals"},
		{"job/parts_cost", "310", "295.50"},
		{"job/labour_hours", "6", "5.5 h"},
		{"job/labour_rate", "72", "75"},
		{"job/outside_cost", "", "60"},
		{"job/rebuild_days", "3", "4"},
		{"job/new_price", "1650", "1700"},
		{"job/new_days", "24", "20"},
		{"job/downtime_cost", "420", "400"},
		{"job/symptom/hot", "", "yes"},
		{"u1/name", "Press feed pump", "Pump"},
		{"u1/maker", "Fjellvik Pumpe", "Another"},
		{"u1/model", "GX-32", "GX-33"},
		{"u1/serial", "22-0917", "22-0918"},
		{"u1/variant", "GX-32 R, shaft 20", "L"},
		{"u1/rotation", "right", "left"},
		{"u1/fluid", "mineral oil VG 68", "ester"},
		{"u1/viscosity", "46 cSt", "32 mm2/s"},
		{"u1/density", "", "0.91 g/cm3"},
		{"u1/displacement", "32 cc/rev", "1.95 in3/rev"},
		{"u1/speed", "1450 rpm", "1480 rpm"},
		{"u1/duty_pressure", "175 bar", "2500 psi"},
		{"u1/temperature", "58 °C", "140 °F"},
		{"u1/hours", "11400 h", "11500"},
		{"u1/filtration", st.Unit.Filtration, "none"},
		{"u1/changed", st.Unit.Changed, "nothing"},
		{"u1/modification", "", "restrictor in the drain"},
		{"u1/shims_fitted", "0.10 mm, 0.05 mm", "4 thou, 2 thou"},
		{"u1/shims_available", "0.05 mm x2, 0.02 mm x4", "1 thou x10"},
		{"u1/off_body", "", "0.02 mm"},
		{"u1/off_gears", "", "1 thou"},
		{at(plate, "found"), "1", "2"},
		{at(plate, "facing"), "bronze to the gears", "steel to the gears"},
		{at(plate, "fastener"), "", "two screws"},
		{at(plate, "note"), "", "stuck"},
		{at(plate, "explained"), "", "one from the shelf"},
		{at(plate, "off"), "yes", ""},
		{at(plate, "decision/choice"), "", "replace"},
		{at(plate, "decision/reason"), "", "spare at hand"},
		{at(plate, "step/facing"), "bronze to the gears", "steel to the gears"},
		{at(plate, "step/turn"), "", "uniform_drag"},
		{at(plate, "step/torque"), "", "28 lbf·ft"},
		{at(plate, "step/note"), "", "oiled"},
		{at(plate, "step/done"), "yes", ""},
		{at(plate, "rework/lap/goes"), "", "yes"},
		{at(plate, "rework/lap/taken"), "", "0.02 mm"},
		{at(plate, "rework/lap/flat_how"), "", "blued"},
		{at(plate, "rework/lap/flat_first"), "", "12 um"},
		{at(plate, "rework/lap/flat_now"), "", "4 um"},
		{at(plate, "rework/grind/price"), "", "85"},
		{at(plate, "rework/grind/sent"), "", "2031-05-13"},
		{at(plate, "rework/grind/back"), "", "2031-05-16"},
		{at(plate, "seal_material"), "", "NBR"},
		{at(plate, "seal_cure"), "", "2029-Q2"},
		{at(plate, "seal_hardness"), "", "70"},
		{at(plate, "seal_inside"), "", "25 mm"},
		{at(plate, "order_state"), "", "back_order"},
		{at(plate, "order_due"), "", "2031-05-20"},
		{at(plate, "order_supplier"), "", "Havn Seals"},
		{at(plate, "price"), "64", "70"},
		{at(st.ByCode[length.Part.Code], "coil_is"), "", "another"},
		{at(st.ByCode[length.Part.Code], "coil_rate"), "33 N/mm", "34 N/mm"},
		{at(st.ByCode[length.Part.Code], "coil_turns"), "", "6"},
		{of(gap, "lower"), "3 thou", "0.08 mm"},
		{of(gap, "upper"), "7 thou", "0.18 mm"},
		{of(gap, "standing"), "maker", "shop"},
		{of(gap, "measured"), "total", "each"},
		{of(gap, "limit_for"), "total", "each"},
		{of(gap, "instrument"), "straight-edge and leaves", "depth gauge"},
		{of(gap, "resolution"), "", "0.01 mm"},
		{of(gap, "found/leaf:6.5 thou"), "", "goes"},
		{of(length, "found/v1"), "41.72 mm", "1-5/8 in"},
		{"u1/evidence/milky_oil/state", "absent", "seen"},
		{"u1/evidence/milky_oil/origin", "found_so", "unknown"},
		{"u1/conclusion/cause", "", "not_found"},
		{"u1/cause/1/role", "first_failure", "contributing"},
		{"u1/cause/1/code", "", "contamination"},
		{"u1/cause/1/words", "plates", "plates and bushes"},
		{"u1/cause/1/lies", "", "outside"},
		{"u1/cause/1/action", "", "flush"},
		{"u1/cause/1/owner", "", "the mill"},
		{"u1/conclusion/statement", "", "ruled out: water"},
		{"u1/conclusion/action", "", "flush"},
		{"u1/conclusion/owner", "", "mill"},
		{u1("loose", loose.Number, "note"), "", "swarf"},
		{u1("loose", loose.Number, "part"), "", part},
		{u1("piece", piece.Number, "left_reason"), "", "spare"},
		{u1("piece", piece.Number, "size"), "", "AS568 -214"},
		{u1("piece", piece.Number, "fit"), "", "too_tight"},
		{u1("piece", piece.Number, "fit_gap"), "", "1 um"},
		{u1("piece", piece.Number, "place"), "", part},
		{u1("attempt", attempt.Number, "one_change"), "", "bled"},
		{u1("attempt", attempt.Number, "point/complaint/word"), "", "gone"},
		{u1("attempt", attempt.Number, "note"), "", "loud"},
		{u1("attempt", attempt.Number, "point/p100/pressure"), "", "175 bar"},
		{u1("attempt", attempt.Number, "point/p100/flow"), "", "11.6 gpm"},
		{u1("attempt", attempt.Number, "point/p100/speed"), "", "1450 rpm"},
		{u1("attempt", attempt.Number, "point/p100/temperature"), "", "46 °C"},
		{u1("attempt", attempt.Number, "point/leak_watch/word"), "", "dry"},
		{"job/parts_days", "", "9"},
		{"job/life_rebuild", "", "80 %"},
		{"job/answer_by", "", "Hanna Ode"},
		{"job/quoted_on", "", "2031-05-13"},
		{"job/warranty_hold", "", "yes"},
	}
	for _, c := range cases {
		t.Run(c.field, func(t *testing.T) {
			set(t, s, iva, "T-0417", c.field, c.is, c.was)
			// Its own new value is now what stands: writing it again is no change,
			// and a writer who still believes in the old one is told.
			set(t, s, iva, "T-0417", c.field, c.is, c.is)
			err := edit(s, ctx, odd, "T-0417", c.field, "§ other", c.was+"§")
			var conflict *job.Conflict
			require.ErrorAs(t, err, &conflict)
			assert.Equal(t, c.is, conflict.Theirs)
		})
	}
	history, err := s.Store.Record(ctx, "T-0417", 1000)
	require.NoError(t, err)
	written := map[string]string{}
	for _, e := range history {
		if e.Action == "set" {
			written[e.Field] = e.After
			assert.Equal(t, "Iva", e.Who)
		}
	}
	for _, c := range cases {
		assert.Equal(t, c.is, written[c.field], c.field)
	}
}

func TestTextsAreBounded(t *testing.T) {
	s := press(t)
	long := strings.Repeat("x", 4001)
	assert.Error(t, edit(s, context.Background(), iva, "T-0417", "job/complaint", long,
		load(t, s, "T-0417").Job.Complaint))
	assert.Error(t, edit(s, context.Background(), iva, "T-0417", "job/title", "", "Press feed pump, No. 2 line"),
		"a title cannot be emptied")
	assert.Error(t, edit(s, context.Background(), iva, "T-9999", "job/title", "x", ""))
}

func FuzzShimLists(f *testing.F) {
	f.Add("0.05 mm x2, 2 thou")
	f.Add("x,,;x3")
	f.Fuzz(func(t *testing.T, text string) {
		fitted, _ := metrology.ParseShims(text)
		stock, _ := metrology.ParseShimStock(text)
		for _, s := range stock {
			if s.Count < 1 {
				t.Fatalf("%q gave a count of %d", text, s.Count)
			}
		}
		_ = fitted
	})
}

// Kit, loose pieces and a build that goes wrong, as stops.
func TestStopsOfKitAndBuild(t *testing.T) {
	s, ctx := press(t), context.Background()
	st := load(t, s, "T-0388")
	require.Zero(t, st.Open("kit"))
	require.NoError(t, s.AddPiece(ctx, iva, "T-0388", 1, "", "odd ring", 1, ""))
	st = load(t, s, "T-0388")
	assert.Len(t, codes(st.Stops["kit"]), 1, "a piece left over stops")
	left := st.Unit.Kit[len(st.Unit.Kit)-1]
	set(t, s, iva, "T-0388", u1("piece", left.Number, "left_reason"), "spare", "")
	assert.Empty(t, codes(load(t, s, "T-0388").Stops["kit"]))

	seal := st.ByCode["seal_inner"]
	set(t, s, iva, "T-0388", at(seal, "step/facing"), "lip outward", "lip to the pump")
	assert.Equal(t, []string{"u1/build/facing/seal_inner"}, codes(load(t, s, "T-0388").Stops["build"]),
		"a seal the wrong way round stops")
	set(t, s, iva, "T-0388", at(seal, "step/facing"), "lip to the pump", "lip outward")

	bolts := st.ByCode["cover_bolts"]
	set(t, s, iva, "T-0388", at(bolts, "step/turn"), "stiff", "uniform_drag")
	stops := load(t, s, "T-0388").Stops["build"]
	require.Len(t, stops, 1)
	assert.Contains(t, stops[0].Text, "stiff since cover bolts")

	// The stand repeats what the hands felt.
	stand, err := load(t, s, "T-0388").Facts()
	require.NoError(t, err)
	assert.True(t, stand.Stiff)
	assert.False(t, stand.Ring)
	assert.False(t, stand.Air)

	// It shows a seal that went in the wrong way round, and what was never filled.
	set(t, s, iva, "T-0388", at(seal, "step/facing"), "lip outward", "lip to the pump")
	put(t, s, "T-0388", "u1/fill/primed", "")
	stand, err = load(t, s, "T-0388").Facts()
	require.NoError(t, err)
	assert.True(t, stand.Ring)
	assert.True(t, stand.Air)
}

// A dished spring turned over gives another force, and the stand pulls the brake with it.
func TestAWrongStackReachesTheStand(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "winch_brake_pack")
	jobtest.OwnSizes(t, s, tag, invented.Sizes{})
	springs := load(t, s, tag).ByCode["disc_springs"]
	put(t, s, tag, at(springs, "step/stack_fit"), springs.Stack.Def.As)
	stand, err := load(t, s, tag).Facts()
	require.NoError(t, err)
	assert.Zero(t, stand.Springs, "as it belongs there is nothing to say")
	put(t, s, tag, at(springs, "step/stack_fit"), strings.Replace(springs.Stack.Def.As, "disc<", "disc>", 1))
	st := load(t, s, tag)
	stand, err = st.Facts()
	require.NoError(t, err)
	does := st.ByCode["disc_springs"].Stack.FitDoes
	require.True(t, does.HasForce)
	assert.NotZero(t, stand.Springs)
	assert.NotEqual(t, 1.0, stand.Springs)
}

func TestDecisionAgainstTheProposalNeedsAReason(t *testing.T) {
	s := press(t)
	st := load(t, s, "T-0388")
	body := st.ByCode["body"]
	set(t, s, iva, "T-0388", at(body, "decision/choice"), "replace", "")
	assert.Equal(t, []string{"u1/decide/reason/body"}, codes(load(t, s, "T-0388").Stops["decide"]))
	set(t, s, iva, "T-0388", at(body, "decision/reason"), "customer wants it", "")
	st = load(t, s, "T-0388")
	assert.Empty(t, codes(st.Stops["decide"]))
	assert.NotEmpty(t, codes(st.Stops["kit"]), "and its place now waits for a piece")
}

// A full overhaul renews what wears, and what belongs together with it.
func TestPolicyChangesTheProposals(t *testing.T) {
	s := press(t)
	before := load(t, s, "T-0388")
	assert.Equal(t, "keep", string(before.ByCode["driven_gear"].Choice()))
	set(t, s, iva, "T-0388", "job/policy", "full_overhaul", "on_condition")
	after := load(t, s, "T-0388")
	for _, p := range after.Parts {
		if p.Def.Wearing {
			assert.Equal(t, "replace", string(p.Choice()), p.Code)
		}
	}
	assert.Equal(t, "keep", string(after.ByCode["front_cover"].Choice()))
}
