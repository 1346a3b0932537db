package job_test

import (
	"context"
	"strings"
	"testing"
	"time"

	"corvek/core/family"
	"corvek/internal/job"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A grave caution is open at its station until somebody has read it; the first
// reader stays, and reading it again changes nothing.
func TestCautionIsReadOnce(t *testing.T) {
	s, ctx := bench(t), context.Background()
	tag := newUnit(t, s, "axial_piston_pump")
	var open []string
	for _, list := range load(t, s, tag).Stops {
		for _, stop := range list {
			if _, code, is := strings.Cut(stop.Code, ".caution."); is {
				open = append(open, code)
			}
		}
	}
	require.NotEmpty(t, open)
	for _, code := range open {
		c, known := family.CautionByCode(code)
		require.True(t, known, code)
		assert.NotEmpty(t, c.Do, "a caution says what to do")
		require.NoError(t, s.Acknowledge(ctx, iva, tag, 1, code))
		require.NoError(t, s.Acknowledge(ctx, odd, tag, 1, code))
		assert.Equal(t, "Iva", load(t, s, tag).Acknowledged(code).ByName)
	}
	for station, list := range load(t, s, tag).Stops {
		for _, stop := range list {
			assert.NotContains(t, stop.Code, ".caution.", station)
		}
	}
	assert.ErrorContains(t, s.Acknowledge(ctx, iva, tag, 1, "dragons"), "is not known")
	assert.Error(t, s.Acknowledge(ctx, tove, tag, 1, open[0]), "a viewer cannot read it for the bench")
}

// A drain or soak time is typed as it is said, kept as a moment, and cleared by
// emptying it; a slip is refused with what is accepted.
func TestTimerIsAMomentFromNow(t *testing.T) {
	s, ctx := bench(t), context.Background()
	tag := newUnit(t, s, "external_gear_pump")
	noon := time.Date(2031, 5, 14, 12, 0, 0, 0, time.UTC)
	s.Now = func() time.Time { return noon }
	for typed, want := range map[string]time.Duration{"4 h": 4 * time.Hour, "90 min": 90 * time.Minute, "1/2 h": 30 * time.Minute, "12": 12 * time.Hour} {
		put(t, s, tag, "job.0.timer_until", typed)
		until := load(t, s, tag).Job.TimerUntil
		require.NotNil(t, until, typed)
		assert.True(t, noon.Add(want).Equal(*until), "%s: %s", typed, until)
	}
	for typed, says := range map[string]string{"4 bar": "time", "-1 h": "from now", "61 min min": "not known", "2000 h": "60 days", "soon": "number"} {
		assert.ErrorContains(t, s.Set(ctx, iva, tag, "job.0.timer_until", typed, ""), says, typed)
	}
	put(t, s, tag, "job.0.timer_until", "0") // as the field says: 0 ends it
	assert.Nil(t, load(t, s, tag).Job.TimerUntil)
}

// How a mark was found and how old it looks are kept beside it, whichever is
// said first, and only words that are offered are taken.
func TestHowAMarkWasFound(t *testing.T) {
	s, ctx := press(t), context.Background()
	st := load(t, s, "T-0417")
	field := func(kind string) string { return name(kind, st.Unit.ID, "plate_scored") }
	put(t, s, "T-0417", field("foundhow"), "before wiping")
	put(t, s, "T-0417", field("evidence"), "seen")
	put(t, s, "T-0417", field("age"), "old")
	found := false
	for _, e := range load(t, s, "T-0417").Unit.Evidence {
		if e.Code == "plate_scored" {
			found = true
			assert.Equal(t, [3]string{"seen", "before wiping", "old"}, [3]string{e.State, e.FoundHow, e.Age})
		}
	}
	assert.True(t, found)
	assert.Error(t, s.Set(ctx, iva, "T-0417", field("foundhow"), "by magic", "before wiping"))
	assert.Error(t, s.Set(ctx, iva, "T-0417", field("age"), "ancient", "old"))
	assert.Error(t, s.Set(ctx, iva, "T-0417", name("age", st.Unit.ID, "no_such_mark"), "old", ""))
}

// A part that was stuck asks how it was found before anybody frees or wipes it;
// its note answers.
func TestStuckPartAsksHowItWasFound(t *testing.T) {
	s := bench(t)
	tag := newUnit(t, s, "check_valve")
	p := load(t, s, tag).Parts[1]
	for _, how := range []string{"stuck", "seized"} {
		put(t, s, tag, name("part", p.ID, "stuck"), how)
		assert.Contains(t, stops(load(t, s, tag), "strip"), "was "+how+": write how it was found")
	}
	put(t, s, tag, name("part", p.ID, "note"), "dry varnish round the guide, moved after an hour of soaking")
	assert.NotContains(t, stops(load(t, s, tag), "strip"), "write how it was found")
	put(t, s, tag, name("part", p.ID, "stuck"), "free")
	put(t, s, tag, name("part", p.ID, "note"), "")
	assert.NotContains(t, stops(load(t, s, tag), "strip"), "write how it was found")
}

// Where a job stands follows those who work on it, not those who look.
func TestVisitFollowsTheBench(t *testing.T) {
	s, ctx := bench(t), context.Background()
	tag := newUnit(t, s, "check_valve")
	require.NoError(t, s.Visit(ctx, iva, tag, "measure"))
	require.NoError(t, s.Visit(ctx, tove, tag, "prove"))
	st := load(t, s, tag)
	assert.Equal(t, "measure", st.Job.Station)
}

// What is no stop, or has no reason, cannot be passed; and only a lead passes.
func TestOnlyALeadPassesAnOpenStop(t *testing.T) {
	s, ctx := bench(t), context.Background()
	tag := newUnit(t, s, "check_valve")
	st := load(t, s, tag)
	require.NotEmpty(t, st.Stops["strip"])
	code := st.Stops["strip"][0].Code
	assert.ErrorContains(t, s.PassStop(ctx, odd, tag, 1, code, " no "), "write down why")
	assert.ErrorContains(t, s.PassStop(ctx, odd, tag, 1, "no.such.stop", "because it is so"), "no longer open")
	assert.Error(t, s.PassStop(ctx, iva, tag, 1, code, "because it is so"))
	require.NoError(t, s.PassStop(ctx, odd, tag, 1, code, "read at the machine already"))
	passed := load(t, s, tag).Stops["strip"][0].Passed
	require.NotNil(t, passed)
	assert.Equal(t, [2]string{"Odd", "read at the machine already"}, [2]string{passed.ByName, passed.Reason})
	assert.ErrorContains(t, s.PassStop(ctx, odd, tag, 1, code, "once more"), "no longer open")
}

// Two who write the same field do not overwrite one another.
func TestConflictSaysWhatIsThereNow(t *testing.T) {
	s, ctx := bench(t), context.Background()
	tag := newUnit(t, s, "check_valve")
	var conflict *job.Conflict
	err := s.Set(ctx, iva, tag, "job.0.title", "another", "not what is there")
	require.ErrorAs(t, err, &conflict)
	assert.Contains(t, conflict.Error(), "A unit", "the message says what is there now")
}

// What a later round says of a mark holds, on the board and in the paper as in
// the reasoning; the round before stays in the record.
func TestLaterRoundOverrulesAMark(t *testing.T) {
	s, ctx := press(t), context.Background()
	st := load(t, s, "T-0417")
	put(t, s, "T-0417", name("evidence", st.Unit.ID, "seal_swollen"), "seen")
	put(t, s, "T-0417", name("foundhow", st.Unit.ID, "seal_swollen"), "before wiping")
	require.NoError(t, s.OpenRound(ctx, iva, "T-0417", 1, "strip", "weeps at the shaft"))
	put(t, s, "T-0417", name("evidence", st.Unit.ID, "seal_swollen"), "absent")
	again := load(t, s, "T-0417")
	said := again.LastSaid("seal_swollen")
	assert.Equal(t, [3]string{"absent", "before wiping", "found_so"}, [3]string{said.State, said.FoundHow, said.Origin})
	rounds := map[int]string{}
	for _, e := range again.Unit.Evidence {
		if e.Code == "seal_swollen" {
			rounds[e.Round] = e.State
		}
	}
	assert.Equal(t, map[int]string{1: "seen", 2: "absent"}, rounds)
	for _, f := range again.Findings {
		if f.Code == "seal_swollen" {
			assert.False(t, f.Likely())
		}
	}
	assert.Equal(t, "found_so", again.LastSaid("frothy_oil").Origin, "nobody spoke of it")
}
