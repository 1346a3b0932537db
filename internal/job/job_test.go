package job_test

import (
	"context"
	"fmt"
	"testing"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/field"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/unit"
	"corvek/demo"
	"corvek/internal/exchange"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"
	"corvek/internal/people"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

var (
	iva  = people.Actor{ID: 1, Name: "Iva", Role: people.RoleTechnician}
	odd  = people.Actor{ID: 2, Name: "Odd", Role: people.RoleLead}
	tove = people.Actor{ID: 3, Name: "Tove", Role: people.RoleViewer}
)

// press is a service with the demo's press pump in it.
func press(t *testing.T) *job.Service {
	t.Helper()
	kept := storetest.Filled(t, "press", func(ctx context.Context, st *store.Store) error {
		s, err := job.New(st)
		if err != nil {
			return err
		}
		docs, err := demo.Documents()
		if err != nil {
			return err
		}
		for _, d := range docs {
			if d.Tag() == "T-0417" || d.Tag() == "T-0388" {
				if err := exchange.Import(ctx, s, d, demo.Files, "test"); err != nil {
					return err
				}
			}
		}
		// The finished pump is opened again, so that tests can write on it.
		return s.Reopen(ctx, odd, "T-0388", "opened for a test", unit.TouchesPapers)
	})
	s, err := job.New(kept)
	require.NoError(t, err)
	return s
}

func load(t testing.TB, s *job.Service, tag string) *bench.State {
	t.Helper()
	st, err := s.Load(context.Background(), tag, 1)
	require.NoError(t, err)
	return st
}

func set(t *testing.T, s *job.Service, who people.Actor, tag, field, value, base string) {
	t.Helper()
	require.NoError(t, edit(s, context.Background(), who, tag, field, value, base), "%s = %s", field, value)
}

// edit writes one field and gives only what went wrong.
func edit(s *job.Service, ctx context.Context, who people.Actor, tag, field, value, base string) error {
	_, err := s.Set(ctx, who, tag, job.Edit{Field: field, Value: value, Base: base})
	return err
}

// at is the address of a value of a part of the first unit.
func at(p *bench.Part, rest string) string { return "u1/part/" + p.Code + "/" + rest }

// of is the address of a value of something measured on the first unit.
func of(f *bench.Feature, rest string) string {
	return "u1/part/" + f.Part.Code + "/feature/" + f.Code + "/" + rest
}

// u1 is the address of a value of a numbered thing of the first unit.
func u1(kind string, number int, rest string) string {
	return fmt.Sprintf("u1/%s/%d/%s", kind, number, rest)
}

func TestSecondWriterSeesWhatChanged(t *testing.T) {
	s := press(t)
	f := "u1/speed"
	set(t, s, iva, "T-0417", f, "1480 rpm", "1450 rpm")
	err := edit(s, context.Background(), odd, "T-0417", f, "1500 rpm", "1450 rpm")
	var c *job.Conflict
	require.ErrorAs(t, err, &c)
	assert.Equal(t, "1480 rpm", c.Theirs)
	assert.Equal(t, "Iva", c.By)
	assert.Equal(t, "1480 rpm", load(t, s, "T-0417").Unit.Speed.Typed, "nothing was overwritten")
	set(t, s, odd, "T-0417", f, "1500 rpm", "1480 rpm")
	// Two people may write different fields of one job without meeting.
	set(t, s, iva, "T-0417", "u1/fluid", "ester", "mineral oil VG 68")
}

func TestBadInputIsRefusedAtItsField(t *testing.T) {
	s := press(t)
	st := load(t, s, "T-0417")
	gap := st.ByCode["rear_plate"].Features[0]
	cases := []struct{ field, value, base string }{
		{"u1/speed", "1450 bar", "1450 rpm"},
		{"u1/duty_pressure", "3000 lb", "175 bar"},
		{"u1/rotation", "sideways", "right"},
		{at(st.ByCode["front_needles"], "found"), "many", "33"},
		{of(gap, "found/leaf:4 thou"), "wobbles", ""},
		{of(gap, "found/r1c1"), "4 thou", ""},
		{of(gap, "later/leaf:4 thou"), "goes", ""},
		{"u1/conclusion/cause", "gremlins", ""},
		{"u1/id", "5", ""},
		{"job/promised_on", "soon", "2031-05-16"},
	}
	for _, c := range cases {
		err := edit(s, context.Background(), iva, "T-0417", c.field, c.value, c.base)
		var fe *field.Error
		require.ErrorAs(t, err, &fe, c.field)
		assert.Equal(t, c.field, fe.Field)
	}
	assert.ErrorIs(
		t,
		edit(s, context.Background(), tove, "T-0417", "u1/speed", "1 rpm", "1450 rpm"),
		people.ErrForbidden,
	)
}

// One leaf moved must move the leak, the ranking, the proposal, the stand and
// the stops, with nothing else touched.
func TestAChangedClearanceChangesEverythingThatRestsOnIt(t *testing.T) {
	s := press(t)
	before := load(t, s, "T-0417")
	// By hand: sides 7.00 L/min at 8.5 thou, tips 1.79 at 4.5 thou.
	assert.InDelta(t, 8.79, before.Leak.Flow*6e4, 0.01)
	assert.Equal(t, decide.Rework, before.ByCode["rear_plate"].Choice())
	assert.True(t, before.Shims.Choice.Possible)
	onStand := func(st *bench.State) float64 {
		facts, err := st.Facts()
		require.NoError(t, err)
		test, _ := st.Family.TestByCode("p100")
		m := facts.Mount(test)
		return m.Model.Deliver(m.Duty.Pressure)
	}
	flow := onStand(before)

	gap := before.ByCode["rear_plate"].Features[0]
	for _, leaf := range []struct{ slot, was, is string }{{"9 thou", "stops", "goes"}, {"8 thou", "drags", "goes"},
		{"10 thou", "", "stops"}} {
		set(t, s, iva, "T-0417", of(gap, "found/leaf:"+leaf.slot), leaf.is, leaf.was)
	}
	after := load(t, s, "T-0417")
	assert.Greater(t, after.Leak.Flow, before.Leak.Flow*1.2)
	assert.NotEqual(t, posterior(before, "fair_wear"), posterior(after, "fair_wear"))
	assert.NotEqual(t, before.Shims.Choice.ChangeNeeded, after.Shims.Choice.ChangeNeeded)

	for _, leaf := range []struct{ slot, was, is string }{{"9 thou", "goes", ""}, {"10 thou", "stops", ""},
		{"8 thou", "goes", ""}, {"7 thou", "goes", "stops"}} {
		set(t, s, iva, "T-0417", of(gap, "found/leaf:"+leaf.slot), leaf.is, leaf.was)
	}
	good := load(t, s, "T-0417")
	assert.Equal(t, metrology.In, good.ByCode["rear_plate"].Features[0].Found.Verdict)
	assert.Less(t, good.Leak.Flow, before.Leak.Flow/2)
	assert.NotEqual(t, flow, onStand(good))
}

func posterior(st *bench.State, cause string) float64 {
	for _, r := range st.Explained().Ranking {
		if r.Cause.Code == cause {
			return r.Posterior
		}
	}
	return 0
}

func codes(stops []bench.Stop) []string {
	var out []string
	for _, s := range stops {
		if s.Waived == nil {
			out = append(out, s.String())
		}
	}
	return out
}

func TestStopsOfThePressPump(t *testing.T) {
	s := press(t)
	st := load(t, s, "T-0417")
	assert.Equal(t, []string{"u1/strip/short/front_needles"}, codes(st.Stops["strip"]))
	assert.Equal(t, []string{"u1/measure/not_measured/front_plate/face"}, codes(st.Stops["measure"]))
	require.Len(t, st.Stops["explain"], 1)
	assert.Equal(t, "explain", st.First("explain").Station)

	// A needle found in the sump and tied to its track lets the count tie.
	ctx := context.Background()
	require.NoError(t, s.AddLoose(ctx, iva, "T-0417", 1, "needle", "sump", 1))
	st = load(t, s, "T-0417")
	needles := st.ByCode["front_needles"].Code
	set(t, s, iva, "T-0417", u1("loose", st.Unit.Loose[0].Number, "part"), needles, "")
	assert.Empty(t, codes(load(t, s, "T-0417").Stops["strip"]))

	// A technician cannot pass a stop, a lead only with a reason.
	code := "u1/measure/not_measured/front_plate/face"
	assert.ErrorIs(t, s.WaiveStop(ctx, iva, "T-0417", 1, code, "we looked"), people.ErrForbidden)
	assert.Error(t, s.WaiveStop(ctx, odd, "T-0417", 1, code, " "))
	require.NoError(t, s.WaiveStop(ctx, odd, "T-0417", 1, code, "looked over with the customer"))
	assert.Empty(t, codes(load(t, s, "T-0417").Stops["measure"]))
}

func TestAnOutsideCauseAsksForAnActionAndAnOwner(t *testing.T) {
	s := press(t)
	set(t, s, iva, "T-0417", "u1/conclusion/cause", "contamination", "")
	assert.Equal(t, []string{"u1/explain/outside", "u1/explain/misfit"},
		codes(load(t, s, "T-0417").Stops["explain"]), "the missing needle does not fit hard dirt")
	set(t, s, iva, "T-0417", "u1/conclusion/action", "Flush", "")
	set(t, s, iva, "T-0417", "u1/conclusion/owner", "The mill", "")
	assert.Equal(t, []string{"u1/explain/misfit"}, codes(load(t, s, "T-0417").Stops["explain"]))
	set(t, s, iva, "T-0417", "u1/conclusion/statement",
		"The needle was lost at an earlier opening; its track shows no mark.", "")
	assert.Empty(t, codes(load(t, s, "T-0417").Stops["explain"]))
}

func TestAMarkMadeByUsSaysNothing(t *testing.T) {
	s := press(t)
	st := load(t, s, "T-0417")
	with := posterior(st, "contamination")
	set(t, s, iva, "T-0417", "u1/evidence/fine_lines/origin", "made_by_us", "found_so")
	assert.Less(t, posterior(load(t, s, "T-0417"), "contamination"), with)
}

func TestFailedAttemptStaysAndAsksForOneChange(t *testing.T) {
	s, ctx := press(t), context.Background()
	assert.ErrorContains(t, s.NextAttempt(ctx, iva, "T-0417", 1, bench.Change{}), "26 of 26 parts not fitted")
	jobtest.ToTheStand(t, s, "T-0417")
	require.NoError(t, s.NextAttempt(ctx, iva, "T-0417", 1, bench.Change{}))
	assert.Error(t, s.NextAttempt(ctx, iva, "T-0417", 1, bench.Change{Words: "x"}), "one at a time")
	assert.Error(t, s.CloseAttempt(ctx, iva, "T-0417", 1), "nothing was read yet")
	jobtest.Exercise(t, s, "T-0417", true)
	st := load(t, s, "T-0417")
	assert.Equal(t, "simulated", st.Attempt().Source)
	a := st.Attempt()
	leak := a.Attempt.Point("leak_watch")
	set(t, s, iva, "T-0417", u1("attempt", a.Number, "point/leak_watch/word"), "drips", leak.Word)
	require.NoError(t, s.CloseAttempt(ctx, iva, "T-0417", 1))
	assert.Error(t, edit(s, ctx, iva, "T-0417", u1("attempt", a.Number, "point/leak_watch/word"), "dry", "drips"),
		"a closed attempt stays as it was")
	assert.Error(t, s.NextAttempt(ctx, iva, "T-0417", 1, bench.Change{Words: " "}), "the one change must be said")
	require.NoError(t, s.OpenRound(ctx, iva, "T-0417", 1, "build", "", "drips at the shaft"))
	st = load(t, s, "T-0417")
	assert.Equal(t, 2, st.Round)
	assert.Len(t, st.Attempts, 1, "the failed attempt is still in the ledger")
	assert.Nil(t, st.Attempt(), "a new round has no attempt yet")
	assert.Equal(t, metrology.Out, st.ByCode["rear_plate"].Features[0].Found.Verdict, "readings are carried over")
}

func TestTheFinishedSisterHasNothingOpen(t *testing.T) {
	s := press(t)
	st := load(t, s, "T-0388")
	for _, station := range unit.Stations {
		assert.Empty(t, codes(st.Stops[station]), station)
	}
	claim, missing := st.Claim()
	require.Equal(t, proof.Proved, claim, missing)
	assert.Equal(t, 2, st.Counts().Number)
	assert.Equal(t, metrology.Out, st.Attempts[0].Sum, "the first try failed at its relief")
}

func TestHandOverNeedsEverythingSettled(t *testing.T) {
	s := press(t)
	var fe *field.Error
	require.ErrorAs(t, s.HandOver(context.Background(), iva, "T-0417"), &fe)
	assert.Contains(t, fe.Text, "Strip")
	jobtest.HandOver(t, s, "T-0388")
}

func TestWarrantyHoldKeepsTheUnitShut(t *testing.T) {
	s, ctx := press(t), context.Background()
	tag, err := s.Create(ctx, iva, job.NewJob{Customer: "Silverhaven", Title: "Clamp", Family: "intensifier_ram"})
	require.NoError(t, err)
	set(t, s, iva, tag, "job/warranty_hold", "yes", "")
	st := load(t, s, tag)
	assert.Error(t, edit(s, ctx, iva, tag, at(st.Parts[0], "off"), "yes", ""))
	assert.Error(t, s.TakeOffRest(ctx, iva, tag, 1))
}

func TestNewJobWithoutMarksOffersNoCause(t *testing.T) {
	s, ctx := press(t), context.Background()
	tag, err := s.Create(ctx, iva, job.NewJob{Customer: "Ostrey", Title: "Spare", Family: "external_gear_pump"})
	require.NoError(t, err)
	assert.Empty(t, load(t, s, tag).Explained().Ranking)
	_, err = s.Create(ctx, iva, job.NewJob{Customer: "Ostrey", Title: "Spare", Family: "time_machine"})
	var fe *field.Error
	require.ErrorAs(t, err, &fe)
	assert.Equal(t, "family", fe.Field)
}

func BenchmarkCompute(b *testing.B) {
	s, err := job.New(storetest.New(b))
	require.NoError(b, err)
	docs, _ := demo.Documents()
	for _, d := range docs {
		if d.Tag() == "T-0417" {
			require.NoError(b, exchange.Import(context.Background(), s, d, demo.Files, "bench"))
		}
	}
	ctx := context.Background()
	b.Run("load", func(b *testing.B) {
		for b.Loop() {
			if _, err := s.Load(ctx, "T-0417", 1); err != nil {
				b.Fatal(err)
			}
		}
	})
	b.Run("save one reading and load", func(b *testing.B) {
		field, was := "u1/part/relief_spring/feature/free_length/found/v1",
			load(b, s, "T-0417").ByCode["relief_spring"].Features[0].Entry("found", "v1")
		for i := 0; b.Loop(); i++ {
			is := fmt.Sprintf("41.%03d mm", i%1000)
			if err := edit(s, ctx, iva, "T-0417", field, is, was); err != nil {
				b.Fatal(err)
			}
			was = is
			load(b, s, "T-0417")
		}
	})
}
