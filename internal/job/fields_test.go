package job_test

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"corvek/internal/job"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every field of the address book takes a fitting value, keeps it as typed,
// writes it to the record, and can be cleared again where that makes sense.
func TestEveryFieldKeepsWhatWasTyped(t *testing.T) {
	s, ctx := press(t), context.Background()
	require.NoError(t, s.AddLoose(ctx, iva, "T-0417", 1, "chip", "sump", 2))
	require.NoError(t, s.AddPiece(ctx, iva, "T-0417", 1, "K-1", "ring", 1, 0))
	require.NoError(t, s.NextAttempt(ctx, iva, "T-0417", 1, ""))
	st := load(t, s, "T-0417")
	unit, plate, spring := st.Unit.ID, st.ByCode["front_plate"], st.ByCode["relief_spring"]
	gap, length := st.ByCode["rear_plate"].Features[0].ID, spring.Features[0].ID
	loose, piece, attempt := st.Unit.LooseItems[0].ID, st.Unit.KitPieces[0].ID, st.Attempts[0].ID
	part := fmt.Sprint(plate.ID)

	cases := []struct{ field, was, is string }{
		{"job.0.title", "Press feed pump, No. 2 line", "Press pump"},
		{"job.0.complaint", st.Job.Complaint, "It is weak.\nVery."},
		{"job.0.caller", st.Job.Caller, "Hanna"},
		{"job.0.waiting", "hands", "parts"},
		{"job.0.waiting_note", "", "Seals on Friday"},
		{"job.0.policy", "on_condition", "full_overhaul"},
		{"job.0.lesson", "", "Look at the spring"},
		{"job.0.warranty_note", "", "two seals"},
		{"job.0.parts_cost", "310", "295.50"},
		{"job.0.labour_hours", "6", "5.5 h"},
		{"job.0.labour_rate", "72", "75"},
		{"job.0.outside_cost", "", "60"},
		{"job.0.rebuild_days", "3", "4"},
		{"job.0.new_price", "1650", "1700"},
		{"job.0.new_days", "24", "20"},
		{"job.0.downtime_cost", "420", "400"},
		{"job.0.symptom/hot", "", "yes"},
		{name("unit", unit, "name"), "Press feed pump", "Pump"},
		{name("unit", unit, "maker"), "Fjellvik Pumpe", "Another"},
		{name("unit", unit, "model"), "GX-32", "GX-33"},
		{name("unit", unit, "serial"), "22-0917", "22-0918"},
		{name("unit", unit, "variant"), "GX-32 R, shaft 20", "L"},
		{name("unit", unit, "rotation"), "right", "left"},
		{name("unit", unit, "fluid"), "mineral oil VG 68", "ester"},
		{name("unit", unit, "viscosity"), "46 cSt", "32 mm2/s"},
		{name("unit", unit, "density"), "", "0.91 g/cm3"},
		{name("unit", unit, "displacement"), "32 cc/rev", "1.95 in3/rev"},
		{name("unit", unit, "speed"), "1450 rpm", "1480 rpm"},
		{name("unit", unit, "duty_pressure"), "175 bar", "2500 psi"},
		{name("unit", unit, "temperature"), "58 °C", "140 °F"},
		{name("unit", unit, "hours"), "11400 h", "11500"},
		{name("unit", unit, "filtration"), st.Unit.Filtration, "none"},
		{name("unit", unit, "changed"), st.Unit.Changed, "nothing"},
		{name("unit", unit, "modification"), "", "restrictor in the drain"},
		{name("unit", unit, "shims_fitted"), "0.10 mm, 0.05 mm", "4 thou, 2 thou"},
		{name("unit", unit, "shims_available"), "0.05 mm x2, 0.02 mm x4", "1 thou x10"},
		{name("unit", unit, "off_body"), "", "0.02 mm"},
		{name("unit", unit, "off_gears"), "", "1 thou"},
		{name("part", plate.ID, "found"), "1", "2"},
		{name("part", plate.ID, "facing"), "bronze to the gears", "steel to the gears"},
		{name("part", plate.ID, "fastener"), "", "two screws"},
		{name("part", plate.ID, "note"), "", "stuck"},
		{name("part", plate.ID, "explained"), "", "one from the shelf"},
		{name("part", plate.ID, "off"), "yes", ""},
		{name("decision", plate.ID, "choice"), "", "replace"},
		{name("decision", plate.ID, "reason"), "", "spare at hand"},
		{name("step", plate.ID, "facing"), "", "bronze to the gears"},
		{name("step", plate.ID, "turn"), "", "drags evenly"},
		{name("step", plate.ID, "torque"), "", "28 lbf·ft"},
		{name("step", plate.ID, "note"), "", "oiled"},
		{name("step", plate.ID, "done"), "", "yes"},
		{name("feature", gap, "lower"), "3 thou", "0.08 mm"},
		{name("feature", gap, "upper"), "7 thou", "0.18 mm"},
		{name("feature", gap, "standing"), "maker", "guidance"},
		{name("feature", gap, "measured"), "total", "each"},
		{name("feature", gap, "limit_for"), "total", "each"},
		{name("feature", gap, "instrument"), "straight-edge and leaves", "depth gauge"},
		{name("feature", gap, "resolution"), "", "0.01 mm"},
		{name("reading", gap, "found/leaf:6.5 thou"), "", "goes"},
		{name("reading", length, "found/v1"), "41.72 mm", "1-5/8 in"},
		{name("evidence", unit, "milky_oil"), "absent", "seen"},
		{name("origin", unit, "milky_oil"), "found_so", "unknown"},
		{name("conclusion", unit, "cause"), "", "not_found"},
		{name("conclusion", unit, "proximate"), "", "plates"},
		{name("conclusion", unit, "contributing"), "", "heat"},
		{name("conclusion", unit, "statement"), "", "ruled out: water"},
		{name("conclusion", unit, "action"), "", "flush"},
		{name("conclusion", unit, "owner"), "", "mill"},
		{name("loose", loose, "note"), "", "swarf"},
		{name("loose", loose, "part"), "", part},
		{name("piece", piece, "left_reason"), "", "spare"},
		{name("piece", piece, "place"), "", part},
		{name("attempt", attempt, "one_change"), "", "bled"},
		{name("attempt", attempt, "condition_repeated"), "", "yes"},
		{name("attempt", attempt, "note"), "", "loud"},
		{name("point", attempt, "p100/pressure"), "", "175 bar"},
		{name("point", attempt, "p100/flow"), "", "11.6 gpm"},
		{name("point", attempt, "p100/speed"), "", "1450 rpm"},
		{name("point", attempt, "p100/temperature"), "", "46 °C"},
		{name("point", attempt, "leak_watch/word"), "", "dry"},
		{"job.0.warranty_hold", "", "yes"},
	}
	for _, c := range cases {
		t.Run(c.field, func(t *testing.T) {
			set(t, s, iva, "T-0417", c.field, c.is, c.was)
			// Its own new value is now what stands: writing it again is no change,
			// and a writer who still believes in the old one is told.
			set(t, s, iva, "T-0417", c.field, c.is, c.is)
			err := s.Set(ctx, odd, "T-0417", c.field, "§ other", c.was+"§")
			var conflict *job.Conflict
			require.ErrorAs(t, err, &conflict)
			assert.Equal(t, c.is, conflict.Theirs)
		})
	}
	history, err := s.Store.History(ctx, st.Job.ID, 1000)
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
	assert.Error(t, s.Set(context.Background(), iva, "T-0417", "job.0.complaint", long, load(t, s, "T-0417").Job.Complaint))
	assert.Error(t, s.Set(context.Background(), iva, "T-0417", "job.0.title", "", "Press feed pump, No. 2 line"), "a title cannot be emptied")
	assert.Error(t, s.Set(context.Background(), iva, "T-9999", "job.0.title", "x", ""))
}

func FuzzShimLists(f *testing.F) {
	f.Add("0.05 mm x2, 2 thou")
	f.Add("x,,;x3")
	f.Fuzz(func(t *testing.T, text string) {
		fitted, _ := job.ParseShims(text)
		stock, _ := job.ParseShimStock(text)
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
	require.NoError(t, s.AddPiece(ctx, iva, "T-0388", 1, "", "odd ring", 1, 0))
	st = load(t, s, "T-0388")
	assert.Len(t, codes(st.Stops["kit"]), 1, "a piece left over stops")
	left := st.Unit.KitPieces[len(st.Unit.KitPieces)-1]
	set(t, s, iva, "T-0388", name("piece", left.ID, "left_reason"), "spare", "")
	assert.Empty(t, codes(load(t, s, "T-0388").Stops["kit"]))

	seal := st.ByCode["seal_inner"]
	set(t, s, iva, "T-0388", name("step", seal.ID, "facing"), "lip outward", "lip to the pump")
	assert.Equal(t, []string{"u1.build.facing.seal_inner"}, codes(load(t, s, "T-0388").Stops["build"]), "a seal the wrong way round stops")
	set(t, s, iva, "T-0388", name("step", seal.ID, "facing"), "lip to the pump", "lip outward")

	bolts := st.ByCode["cover_bolts"]
	set(t, s, iva, "T-0388", name("step", bolts.ID, "turn"), "stiff", "drags evenly")
	stops := load(t, s, "T-0388").Stops["build"]
	require.Len(t, stops, 1)
	assert.Contains(t, stops[0].Text, "stiff since cover bolts")

	// The stand repeats what the hands felt.
	stand, err := load(t, s, "T-0388").Stand(9)
	require.NoError(t, err)
	assert.Equal(t, "stiff", stand.Turn)
}

func TestDecisionAgainstTheProposalNeedsAReason(t *testing.T) {
	s := press(t)
	st := load(t, s, "T-0388")
	body := st.ByCode["body"].ID
	set(t, s, iva, "T-0388", name("decision", body, "choice"), "replace", "")
	assert.Equal(t, []string{"u1.decide.reason.body"}, codes(load(t, s, "T-0388").Stops["decide"]))
	set(t, s, iva, "T-0388", name("decision", body, "reason"), "customer wants it", "")
	st = load(t, s, "T-0388")
	assert.Empty(t, codes(st.Stops["decide"]))
	assert.NotEmpty(t, codes(st.Stops["kit"]), "and its place now waits for a piece")
}

// A full overhaul renews what wears, and what belongs together with it.
func TestPolicyChangesTheProposals(t *testing.T) {
	s := press(t)
	before := load(t, s, "T-0388")
	assert.Equal(t, "keep", string(before.ByCode["driven_gear"].Choice()))
	set(t, s, iva, "T-0388", "job.0.policy", "full_overhaul", "on_condition")
	after := load(t, s, "T-0388")
	for _, p := range after.Parts {
		if p.Def.Wearing {
			assert.Equal(t, "replace", string(p.Choice()), p.Code)
		}
	}
	assert.Equal(t, "keep", string(after.ByCode["front_cover"].Choice()))
}
