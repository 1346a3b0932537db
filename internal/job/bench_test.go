package job_test

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"

	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/measure"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// bench is an empty shop.
func bench(t *testing.T) *job.Service {
	t.Helper()
	s, err := job.New(storetest.New(t))
	require.NoError(t, err)
	return s
}

func newUnit(t *testing.T, s *job.Service, code string) string {
	t.Helper()
	tag, err := s.Create(context.Background(), iva, job.NewJob{Customer: "Somebody", Title: "A unit",
		Complaint: "It is weak", Family: code})
	require.NoError(t, err)
	return tag
}

// stops are the texts of a station's open stops.
func stops(st *job.State, station string) string {
	var out []string
	for _, s := range st.Stops[station] {
		if s.Passed == nil {
			out = append(out, s.Text)
		}
	}
	return strings.Join(out, "\n")
}

// put sets a field whatever it held before.
func put(t *testing.T, s *job.Service, tag, name, value string) {
	t.Helper()
	err := edit(s, context.Background(), iva, tag, name, value, "")
	if c, is := err.(*job.Conflict); is {
		err = edit(s, context.Background(), iva, tag, name, value, c.Theirs)
	}
	require.NoError(t, err, "%s = %s", name, value)
}

// fill gives every place of every sheet a figure that is in its limits.
func fill(t *testing.T, s *job.Service, tag string) {
	t.Helper()
	st := load(t, s, tag)
	for _, p := range st.Parts {
		for _, f := range p.Features {
			for _, slot := range f.Spec.Slots() {
				v := good(f, slot)
				require.Nil(t, measure.CheckEntry(f.Spec, slot, v), "%s %s = %s", f.Path(), slot, v)
				require.NoError(t, edit(s, context.Background(), iva, tag, of(f, "found/"+slot), v, ""))
			}
		}
	}
}

func lengthOf(text string) (float64, bool) {
	q, err := quantity.Parse(text, quantity.Length)
	return q.SI, err == nil
}

// good is an entry within a feature's limits.
func good(f *job.FeatureState, slot string) string {
	mm := func(v float64) string { return fmt.Sprintf("%.4f mm", v*1e3) }
	nominal, hasNominal := lengthOf(f.Spec.Nominal.Typed)
	lower, hasLower := lengthOf(f.Spec.Lower.Typed)
	upper, hasUpper := lengthOf(f.Spec.Upper.Typed)
	middle := nominal
	switch {
	case hasLower && hasUpper:
		middle = (lower + upper) / 2
	case hasUpper && hasNominal:
		middle = (nominal + upper) / 2
	case hasLower && hasNominal:
		middle = (nominal + lower) / 2
	case hasUpper:
		middle = upper / 2
	case hasLower:
		middle = lower * 1.05
	}
	switch {
	case f.Def.Method == family.MethodGrade:
		return "0"
	case f.Def.Method == family.MethodFeeler:
		leaf, _ := lengthOf(strings.TrimPrefix(slot, "leaf:"))
		if leaf <= middle {
			return "goes"
		}
		return "stops"
	case strings.HasPrefix(slot, "h"):
		return mm(20e-3 + middle)
	case strings.HasPrefix(slot, "s"):
		return mm(20e-3)
	}
	return mm(middle)
}

// Each family goes from a new job to a full Measure sheet: taken off as
// expected, every place filled, nothing left open but what only hands can say.
func TestEveryFamilyReachesAFullMeasureSheet(t *testing.T) {
	s := bench(t)
	for _, f := range s.Families().List() {
		tag := newUnit(t, s, f.Code)
		require.NoError(t, s.TakeOffRest(context.Background(), iva, tag, 1))
		fill(t, s, tag)
		st := load(t, s, tag)
		for _, p := range st.Parts {
			for _, ft := range p.Features {
				assert.True(t, ft.Found.Complete, "%s %s.%s is not full", f.Code, p.Code, ft.Code)
				assert.Empty(t, ft.Found.Faults, "%s %s.%s", f.Code, p.Code, ft.Code)
				assert.NotEqual(t, "out", string(ft.Found.Verdict), "%s %s.%s", f.Code, p.Code, ft.Code)
			}
		}
		assert.Empty(t, stops(st, "measure"), f.Code)
	}
}

func partOf(t *testing.T, st *job.State, code string) *job.PartState {
	t.Helper()
	p := st.ByCode[code]
	require.NotNil(t, p, code)
	return p
}

// What gets lost at the bench is caught by the record.
func TestTheRecordCatchesWhatHandsLose(t *testing.T) {
	s := bench(t)
	take := func(code string) (string, *job.State) {
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
		put(t, s, tag, at(p, "stack_fit"), "shim shim shim")
		put(t, s, tag, at(p, "step/done"), "yes")
		assert.Contains(t, stops(load(t, s, tag), "build"), "one shim too many")
	})
	t.Run("a flipped dished spring", func(t *testing.T) {
		tag, st := take("winch_brake_pack")
		p := partOf(t, st, "disc_springs")
		put(t, s, tag, at(p, "stack_found"), p.Stack.Def.As)
		put(t, s, tag, at(p, "stack_fit"), strings.Replace(p.Stack.Def.As, "disc<", "disc>", 1))
		put(t, s, tag, at(p, "step/done"), "yes")
		assert.Contains(t, stops(load(t, s, tag), "build"), "dished spring at place 3 is turned over")
		put(t, s, tag, at(p, "stack_fit"), p.Stack.Def.As)
		assert.NotContains(t, stops(load(t, s, tag), "build"), "turned over")
	})
	t.Run("what a plate pack holds", func(t *testing.T) {
		tag, st := take("winch_brake_pack")
		springs, plates := partOf(t, st, "disc_springs"), partOf(t, st, "plates")
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
		put(t, s, tag, at(partOf(t, st, "bleed_ball"), "found"), "0")
		assert.Contains(t, stops(load(t, s, tag), "strip"), "Bleed ball: 0 of 1, one not found")
	})
	t.Run("a stack whose order nobody wrote down", func(t *testing.T) {
		tag, _ := take("cam_piston_pump")
		assert.Contains(t, stops(load(t, s, tag), "strip"), "Disc-valve stack: order and facing as removed not noted")
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

func TestGaugeAnswersAndVariantOnAJob(t *testing.T) {
	s := bench(t)
	tag := newUnit(t, s, "cam_piston_pump")
	put(t, s, tag, "u1/gauge/new_unit", "same")
	put(t, s, tag, "u1/gauge/inlet", "good")
	st := load(t, s, tag)
	assert.Equal(t, family.Acquits, st.Gauge.Verdict)
	assert.Contains(t, stops(st, "strip"), "The unit is cleared")
	put(t, s, tag, "u1/gauge/new_unit", "")
	assert.NotContains(t, stops(load(t, s, tag), "strip"), "cleared")
	var fe *field.Error
	require.ErrorAs(t, edit(s, context.Background(), iva, tag, "u1/gauge/inlet", "maybe", "good"), &fe)

	put(t, s, tag, "u1/serial", "C-20400")
	put(t, s, tag, "u1/identity/bleed_top", "yes")
	st = load(t, s, tag)
	require.NotNil(t, st.Variant.Chosen)
	assert.Equal(t, "late", st.Variant.Chosen.Variant.Code)
}

func TestFluidBalanceOnAJob(t *testing.T) {
	s := bench(t)
	tag := newUnit(t, s, "axial_piston_pump")
	for field, v := range map[string]string{"capacity": "120 L", "drained": "96 L", "vessel": "20 L"} {
		put(t, s, tag, "u1/"+field, v)
	}
	out := load(t, s, tag).Balance
	require.NotNil(t, out)
	assert.Equal(t, "undecided", out.Get("verdict"), "without the level before nothing is known to be missing")
	put(t, s, tag, "u1/level_before", "110 L")
	assert.Equal(t, "short", load(t, s, tag).Balance.Get("verdict"))
	put(t, s, tag, "u1/gained_elsewhere", "12 L")
	assert.Equal(t, "balanced", load(t, s, tag).Balance.Get("verdict"))
}

func TestUnitsAccountsAndUnknownParts(t *testing.T) {
	s, ctx := bench(t), context.Background()
	tag := newUnit(t, s, "axial_piston_pump")
	n, err := s.AddUnit(ctx, iva, tag, "internal_gear_pump", "Feed pump")
	require.NoError(t, err)
	assert.Equal(t, 2, n)
	require.NoError(t, s.AddAccount(ctx, iva, tag, 2, "Mate", "It whined for a week"))
	require.NoError(t, s.AddAccount(ctx, iva, tag, 2, "Skipper", "The mate says it whined"))
	second, err := s.Load(ctx, tag, 2)
	require.NoError(t, err)
	assert.Equal(t, "Feed pump", second.Unit.Name)
	assert.Len(t, second.Unit.Accounts, 2)
	assert.Empty(t, load(t, s, tag).Unit.Accounts, "an account belongs to its unit")

	behind := second.Parts[2]
	id, err := s.AddPart(ctx, iva, tag, 2, behind.Code, "Home-made ring", "spacer", 2)
	require.NoError(t, err)
	second, err = s.Load(ctx, tag, 2)
	require.NoError(t, err)
	at := slices.IndexFunc(second.Parts, func(p *job.PartState) bool { return p.Code == id })
	assert.Equal(t, 3, at)
	assert.Equal(t, "spacer", second.Parts[at].Def.Kind)
	var fe *field.Error
	_, err = s.AddPart(ctx, iva, tag, 2, behind.Code, "Thing", "dragon", 1)
	require.ErrorAs(t, err, &fe)
	assert.Equal(t, "kind", fe.Field)

	// Every unit must be settled before the job goes out.
	err = s.HandOver(ctx, iva, tag)
	require.ErrorAs(t, err, &fe)
}

// The shop changes a family without touching code; what cannot be read is
// refused with its line, and nothing changes.
func TestShopChangesAFamily(t *testing.T) {
	s, ctx := bench(t), context.Background()
	text, err := s.FamilyText(ctx, "check_valve")
	require.NoError(t, err)
	var fe *field.Error
	require.ErrorAs(t, s.SaveFamily(ctx, odd, "check_valve", strings.Replace(text, "kind: ball", "kind: dragon", 1),
		"try"), &fe)
	assert.Regexp(t, `^check_valve\.yaml:\d+: part ball: kind "dragon"`, fe.Text)
	assert.ErrorIs(t, s.SaveFamily(ctx, iva, "check_valve", text, "try"), job.ErrForbidden)
	require.ErrorAs(t, s.SaveFamily(ctx, odd, "Check Valve", text, "try"), &fe)
	assert.False(t, s.OwnFamily("check_valve"))

	require.NoError(t, s.SaveFamily(ctx, odd, "check_valve",
		strings.Replace(text, "name: Check valve", "name: Check valve, ours", 1), "our own name"))
	other, err := job.New(s.Store)
	require.NoError(t, err)
	require.NoError(t, other.Refresh(ctx))
	assert.Equal(t, "Check valve, ours", other.Families()["check_valve"].Name, "a second instance sees it")
	own := strings.Replace(text, "code: check_valve", "code: ball_check", 1)
	require.NoError(t, s.SaveFamily(ctx, odd, "ball_check", own, "a new kind"))
	assert.Equal(t, "ball_check", load(t, s, newUnit(t, s, "ball_check")).Family.Code)
	history, err := s.Store.FamilyHistory(ctx, "check_valve")
	require.NoError(t, err)
	assert.Len(t, history, 1)
}

func TestToolOutOfCalibrationIsTold(t *testing.T) {
	s := bench(t)
	due := s.Now().AddDate(0, 0, -3)
	require.NoError(t, s.Store.SaveInstrument(context.Background(),
		&store.Instrument{Name: "micrometer", Kind: "outside", Resolution: "0.001 mm", DueOn: &due}))
	tag := newUnit(t, s, "master_cylinder")
	f := partOf(t, load(t, s, tag), "piston").Features[0]
	put(t, s, tag, of(f, "found/h1"), "22.04 mm")
	assert.Contains(t, stops(load(t, s, tag), "measure"), "micrometer was due for calibration")
	require.NoError(t, s.Store.SaveInstrument(context.Background(),
		&store.Instrument{Name: "Vernier 2", Kind: "calipers", Resolution: "0.02 mm"}))
	put(t, s, tag, of(f, "instrument"), "vernier 2")
	assert.Equal(t, "0.02 mm", partOf(t, load(t, s, tag), "piston").Features[0].Resolution.Typed,
		"a tool brings its resolution")
	put(t, s, tag, of(f, "instrument"), "micrometer")
	later := s.Now().AddDate(1, 0, 0)
	require.NoError(t, s.Store.SaveInstrument(context.Background(),
		&store.Instrument{Name: "micrometer", Kind: "outside", Resolution: "0.001 mm", DueOn: &later}))
	assert.NotContains(t, stops(load(t, s, tag), "measure"), "calibration")
}

func TestMarksOnPictures(t *testing.T) {
	s, ctx := press(t), context.Background()
	st := load(t, s, "T-0417")
	id := st.Job.Pictures[1].Number
	part := st.Parts[0].Code
	require.NoError(t, s.AddMark(ctx, iva, "T-0417", 1, id,
		unit.PictureMark{X: .5, Y: .25, Note: "bright", Part: part, Evidence: st.Knowledge.Evidence[0].Code}))
	require.NoError(t, s.AddMark(ctx, iva, "T-0417", 1, id, unit.PictureMark{X: 1, Y: 0, Note: "edge"}))
	st = load(t, s, "T-0417")
	require.Len(t, st.Job.Pictures[1].Marks, 2)
	assert.Equal(t, 2, st.Job.Pictures[1].Marks[1].Number)
	assert.Equal(t, st.Parts[0].Name+": "+st.Knowledge.Evidence[0].Text+": bright",
		st.MarkWords(st.Job.Pictures[1].Marks[0]))
	var fe *field.Error
	for _, bad := range []unit.PictureMark{{X: -1, Y: 0, Note: "off"}, {X: .5, Y: 1.2, Note: "off"}, {X: .5, Y: .5},
		{X: .5, Y: .5, Evidence: "no_such"}} {
		require.ErrorAs(t, s.AddMark(ctx, iva, "T-0417", 1, id, bad), &fe)
	}
	require.NoError(t, s.DropMark(ctx, iva, "T-0417", 1, id, 1))
	assert.Len(t, load(t, s, "T-0417").Job.Pictures[1].Marks, 1)
}

// A part that the conclusion blames and that nobody measured is a stop.
func TestBlamedPartIsMeasured(t *testing.T) {
	s := bench(t)
	tag := newUnit(t, s, "double_acting_cylinder")
	require.NoError(t, s.TakeOffRest(context.Background(), iva, tag, 1))
	st := load(t, s, tag)
	put(t, s, tag, "u1/evidence/drifts/state", "seen")
	put(t, s, tag, "u1/conclusion/cause", "bent_rod")
	assert.Contains(t, stops(load(t, s, tag), "measure"), "Rod: blamed by “rod bent by overload” and never measured")
	for _, x := range st.ByCode["rod"].Features {
		if x.Code == "runout" {
			put(t, s, tag, of(x, "found/v1"), "0.60 mm")
		}
	}
	assert.NotContains(t, stops(load(t, s, tag), "measure"), "blamed")
}

// What the shop's own closed jobs ended with moves the ranking of the next one;
// so does what Build and Prove show of this one.
func TestClosedJobsAndWorkAreEvidence(t *testing.T) {
	s, ctx := bench(t), context.Background()
	share := func(tag, cause string) float64 {
		for _, r := range load(t, s, tag).Explained().Ranking {
			if r.Cause.Code == cause {
				return r.Posterior
			}
		}
		return 0
	}
	tag := newUnit(t, s, "double_acting_cylinder")
	put(t, s, tag, "u1/evidence/drifts/state", "seen")
	before := share(tag, "pressure_spike")
	for range 6 {
		old := newUnit(t, s, "double_acting_cylinder")
		put(t, s, old, "u1/conclusion/cause", "pressure_spike")
		require.NoError(t, s.Store.Update(ctx, old, func(j *unit.Job, _ store.History) (*store.Change, error) {
			j.HandedOverAt = s.Now()
			return &store.Change{Job: j}, nil
		}))
	}
	assert.Greater(t, share(tag, "pressure_spike"), before)

	valve := newUnit(t, s, "directional_spool_valve")
	st := load(t, s, valve)
	put(t, s, valve, "u1/evidence/recent_work/state", "seen")
	calm := share(valve, "misassembly")
	put(t, s, valve, at(st.Parts[0], "step/done"), "yes")
	put(t, s, valve, at(st.Parts[0], "step/turn"), "stiff")
	assert.Greater(t, share(valve, "misassembly"), calm)
	assert.Contains(t, load(t, s, valve).Sources["stiff_built"], "at Build: stiff")
}

// The order on the bench need not be the family's, and Build runs it backwards.
func TestOrderAsItCameApart(t *testing.T) {
	s, ctx := bench(t), context.Background()
	tag := newUnit(t, s, "check_valve")
	st := load(t, s, tag)
	first, second := st.Parts[0], st.Parts[1]
	require.NoError(t, s.MovePart(ctx, iva, tag, 1, second.Code, -1))
	st = load(t, s, tag)
	assert.Equal(t, second.Code, st.Parts[0].Code)
	assert.Equal(t, first.Code, st.Parts[1].Code)
	steps := st.Steps()
	assert.Equal(t, strings.ToLower(second.Name), steps[len(steps)-1].Name, "the first off goes on last")
	var fe *field.Error
	require.ErrorAs(t, s.MovePart(ctx, iva, tag, 1, second.Code, -1), &fe)
	require.ErrorAs(t, s.MovePart(ctx, iva, tag, 1, "no_such_part", 1), &fe)
}

// What does not fit the concluded cause is answered in words.
func TestMisfitIsAnswered(t *testing.T) {
	s := bench(t)
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
	s := bench(t)
	tag := newUnit(t, s, "relief_valve")
	assert.NotContains(t, stops(load(t, s, tag), "build"), "Modified")
	put(t, s, tag, "u1/modification", "restrictor in the pilot line")
	assert.Contains(t, stops(load(t, s, tag), "build"), "restrictor in the pilot line")
	put(t, s, tag, "u1/modification_kept", "carried over")
	assert.NotContains(t, stops(load(t, s, tag), "build"), "Modified")
}
