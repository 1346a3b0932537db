package job_test

import (
	"strings"
	"testing"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"
	"corvek/internal/line"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A row of a running list is one act: all of it is kept or nothing, what was answered tells in the record that it was
// done, and it is taken back as one.
func TestARowIsOneAct(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), t.Context()
	tag := newUnit(t, s, "external_gear_pump")
	row := func(part string, answers ...job.Answer) error {
		return s.DoRow(ctx, iva, tag, 1, job.Row{Station: "strip", Part: part, Answers: answers})
	}
	lines := func() (out []unit.Entry) {
		for e, err := range s.Store.Lines(ctx, tag) {
			require.NoError(t, err)
			out = append(out, e)
		}
		return out
	}
	require.NoError(t, s.Acknowledge(ctx, iva, tag, 1, "stored_pressure"))
	before := len(lines())

	var fe *field.Error
	require.ErrorAs(t, row("front_needles", job.Answer{Name: "found", Value: "many"}), &fe)
	assert.Equal(t, "found", fe.Field, "at the field of the row")
	assert.False(t, load(t, s, tag).ByCode["front_needles"].Off, "nothing of it is kept")
	assert.Len(t, lines(), before)

	require.NoError(t, row("front_needles", job.Answer{Name: "found", Value: "33"}))
	p := load(t, s, tag).ByCode["front_needles"]
	assert.True(t, p.Off)
	assert.Equal(t, "33", p.Found)
	require.Len(t, lines(), before+1, "the count tells that they are off")
	require.NoError(t, undo(t, s, iva, tag))
	p = load(t, s, tag).ByCode["front_needles"]
	assert.False(t, p.Off, "taken back as one")
	assert.Empty(t, p.Found)
	require.NoError(t, row("front_needles", job.Answer{Name: "found", Value: "33"}))
	before = len(lines()) - 1
	require.NoError(t, row("key"))
	require.Len(t, lines(), before+2)
	require.ErrorAs(t, row("nothing"), &fe)
	require.ErrorAs(t, s.DoRow(ctx, iva, tag, 1, job.Row{Station: "prove", Part: "key"}), &fe)
	require.Error(t, s.DoRow(ctx, iva, tag, 2, job.Row{Station: "strip", Part: "key"}))

	require.NoError(t, row("seal_outer", job.Answer{Name: "facing", Value: "lip outward"}, job.Answer{Name: "price",
		Value: "7"}))
	p = load(t, s, tag).ByCode["seal_outer"]
	assert.Equal(t, "lip outward", p.Facing)
	assert.True(t, p.Price.IsZero(), "a row takes its own answers alone")
}

// A bolt is fitted and tightened in one act, and what it closes is asked for at once.
func TestARowOfBoltsIsTightened(t *testing.T) {
	s, ctx := press(t), t.Context()
	const tag = "T-0417"
	jobtest.ToTheStand(t, s, tag)
	require.NoError(t, s.OpenRound(ctx, iva, tag, 1, "build", "front_gasket", "weeps"))
	st := load(t, s, tag)
	assert.False(t, st.ByCode["front_gasket"].Step.Done)
	assert.True(t, st.ByCode["drive_gear"].Step.Done, "what nobody touched stays built")
	out := 0
	for _, x := range st.Parts {
		if !x.Step.Done {
			out++
		}
	}
	row := job.Row{
		Station: "build",
		Part:    "cover_bolts",
		Answers: []job.Answer{{Name: "torque", Value: "38", Bare: "N·m"},
			{Name: "turn", Value: "free"}},
	}
	require.NoError(t, s.DoRow(ctx, iva, tag, 1, row))
	st = load(t, s, tag)
	bolts := st.ByCode["cover_bolts"].Step
	assert.Equal(t, "38 N·m", bolts.Torque.Typed)
	assert.Contains(t, bolts.Over, "front gasket")
	assert.Contains(t, kindsAt(st, "cover_bolts"), unit.StopOrder)
	assert.Less(t, out, len(st.Parts)/2)
	assert.Error(t, s.NextAttempt(ctx, iva, tag, 1, bench.Change{}))
}

// What is undecided of a part that is scrapped holds nothing.
func TestAScrappedPartHoldsNothing(t *testing.T) {
	s := press(t)
	const tag = "T-0417"
	put(t, s, tag, "u1/part/drive_gear/feature/journal/found/r1c1", "")
	has := func() bool {
		for _, stop := range load(t, s, tag).Stops["measure"] {
			if stop.Part == "drive_gear" && stop.Kind != unit.StopSuspect {
				return true
			}
		}
		return false
	}
	put(t, s, tag, "u1/part/drive_gear/feature/journal/new_low", "")
	require.True(t, has())
	put(t, s, tag, "u1/part/drive_gear/decision/choice", "replace")
	assert.False(t, has())
}

// A piece that was tried and does not go in as it should is not built in, and what is done about it is said.
func TestATriedPieceSaysWhatToDo(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	require.NoError(t, s.TakeOffRest(t.Context(), iva, tag, 1))
	require.NoError(t, s.AddPiece(t.Context(), iva, tag, 1, "", "outer seal", 1, "seal_outer"))
	kit := func() string { return stops(load(t, s, tag), "kit") }
	for says, act := range map[string]string{"too_tight": "not forced", "lip_turned": "over a sleeve",
		"nicked": "take another"} {
		put(t, s, tag, load(t, s, tag).Unit.PieceRef(1, "fit").String(), says)
		assert.Contains(t, kit(), act, says)
	}
	put(t, s, tag, load(t, s, tag).Unit.PieceRef(1, "fit").String(), "fits")
	assert.False(t, strings.Contains(kit(), "outer seal"), kit())
}

// A piece that is called something else than its place is is asked about, until it was tried there.
func TestAPieceOfAnotherKindIsAskedAbout(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "external_gear_pump")
	require.NoError(t, s.TakeOffRest(t.Context(), iva, tag, 1))
	require.NoError(t, s.AddPiece(t.Context(), iva, tag, 1, "", "lip seal 20 x 40", 1, "seal_ring"))
	require.NoError(t, s.AddPiece(t.Context(), iva, tag, 1, "", "seal 20 x 40", 1, "seal_outer"))
	kit := stops(load(t, s, tag), "kit")
	assert.Contains(t, kit, "lip seal 20 x 40: its place is a retaining ring")
	assert.NotContains(t, kit, "\nseal 20 x 40")
	put(t, s, tag, load(t, s, tag).Unit.PieceRef(1, "fit").String(), "fits")
	assert.NotContains(t, stops(load(t, s, tag), "kit"), "its place is a retaining ring")
}

// A sub-assembly goes in as one: one line of the record names its parts in their order, one act takes it back; an
// order that cannot be is a stop as ever.
func TestASubAssemblyGoesAsOne(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), t.Context()
	tag := newUnit(t, s, "external_gear_pump")
	require.NoError(t, s.Acknowledge(ctx, iva, tag, 1, "stored_pressure"))
	before := 0
	for _, err := range s.Store.Lines(ctx, tag) {
		require.NoError(t, err)
		before++
	}
	one := job.Row{Station: "strip", Part: "check_plug", With: []string{"check_spring", "check_ball"}}
	require.NoError(t, s.DoRow(ctx, iva, tag, 1, one))
	st := load(t, s, tag)
	for _, code := range []string{"check_plug", "check_spring", "check_ball"} {
		assert.True(t, st.ByCode[code].Off, code)
		assert.NotContains(t, stopsOf(st, code), unit.StopOrder)
	}
	var last unit.Entry
	lines := 0
	for e, err := range s.Store.Lines(ctx, tag) {
		require.NoError(t, err)
		last = e
		lines++
	}
	assert.Equal(t, before+1, lines)
	assert.Contains(t, last.Action, "check plug, check spring, check ball")
	require.NoError(t, undo(t, s, iva, tag))
	assert.False(t, load(t, s, tag).ByCode["check_ball"].Off)

	built := job.Row{Station: "build", Part: "check_spring", With: []string{"check_plug"}}
	require.NoError(t, s.DoRow(ctx, iva, tag, 1, built))
	assert.Contains(t, stopsOf(load(t, s, tag), "check_spring"), unit.StopOrder, "the ball is not in")
	strange := job.Row{Station: "build", Part: "check_ball", With: []string{"no_part"}}
	assert.Error(t, s.DoRow(ctx, iva, tag, 1, strange))
	strange.With = []string{"drive_gear"}
	assert.ErrorContains(t, s.DoRow(ctx, iva, tag, 1, strange), "does not go as one")
}

// The list, followed from its first row to its last with all that a row answers, never makes a stop of order, in any
// family: a joint is tightened only once what it closes is in.
func TestTheListMakesNoStopOfOrder(t *testing.T) {
	t.Parallel() // hundreds of writes, in a store of its own
	s, ctx := emptyShop(t), t.Context()
	for _, f := range whole.Of(t, s.Families().List()) {
		tag := newUnit(t, s, f.Code)
		put(t, s, tag, "u1/not_asked", "came in without its machine")
		for _, c := range family.Cautions() {
			require.NoError(t, s.Acknowledge(ctx, iva, tag, 1, c.Code))
		}
		for st := load(t, s, tag); len(st.OffNext()) > 0; st = load(t, s, tag) {
			require.NoError(t, s.DoRow(ctx, iva, tag, 1, job.Row{Station: "strip", Part: st.OffNext()[0].Code}))
		}
		for st := load(t, s, tag); line.Next(st) != nil; st = load(t, s, tag) {
			p := line.Next(st)
			row := job.Row{Station: "build", Part: p.Code}
			if _, bolted := build.JointOf(p.Def, p.Part.Joint); bolted {
				row.Answers = append(row.Answers, job.Answer{Name: "torque", Value: "30 N·m"})
			}
			require.NoError(t, s.DoRow(ctx, iva, tag, 1, row), "%s: %s", f.Code, p.Code)
		}
		for _, station := range []string{"strip", "build"} {
			for _, stop := range load(t, s, tag).Stops[station] {
				assert.NotEqual(t, unit.StopOrder, stop.Kind, "%s: %s", f.Code, stop.Text)
			}
		}
	}
}
