package job_test

import (
	"context"
	"testing"
	"time"

	"corvek/core/family"
	"corvek/core/unit"
	"corvek/internal/job"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A grave caution is open at its station until somebody has read it; the first
// reader stays, and reading it again changes nothing.
func TestCautionIsReadOnce(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "axial_piston_pump")
	var open []string
	for _, list := range load(t, s, tag).Stops {
		for _, stop := range list {
			if stop.Kind == unit.StopCaution {
				open = append(open, stop.Part)
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
		assert.Equal(t, "Iva", load(t, s, tag).Job.Acknowledged(code).By)
	}
	for station, list := range load(t, s, tag).Stops {
		for _, stop := range list {
			assert.NotEqual(t, unit.StopCaution, stop.Kind, station)
		}
	}
	assert.ErrorContains(t, s.Acknowledge(ctx, iva, tag, 1, "dragons"), "is not known")
	assert.Error(t, s.Acknowledge(ctx, tove, tag, 1, open[0]), "a viewer cannot read it for the bench")
}

// A drain or soak time is typed as it is said, kept as a moment, and cleared by
// emptying it; a slip is refused with what is accepted.
func TestTimerIsAMomentFromNow(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "external_gear_pump")
	noon := time.Date(2031, 5, 14, 12, 0, 0, 0, time.UTC)
	s.Now = func() time.Time { return noon }
	for typed, want := range map[string]time.Duration{"4 h": 4 * time.Hour, "90 min": 90 * time.Minute,
		"1/2 h": 30 * time.Minute, "12": 12 * time.Hour} {
		put(t, s, tag, "job/timer_until", typed)
		until := load(t, s, tag).Job.TimerUntil
		assert.True(t, noon.Add(want).Equal(until), "%s: %s", typed, until)
	}
	for typed, says := range map[string]string{"4 bar": "time", "-1 h": "from now", "61 min min": "not known",
		"2000 h": "60 days", "soon": "number"} {
		assert.ErrorContains(t, edit(s, ctx, iva, tag, "job/timer_until", typed, ""), says, typed)
	}
	put(t, s, tag, "job/timer_until", "0") // as the field says: 0 ends it
	assert.True(t, load(t, s, tag).Job.TimerUntil.IsZero())
}

// How a mark was found and how old it looks are kept beside it, whichever is
// said first, and only words that are offered are taken.
func TestHowAMarkWasFound(t *testing.T) {
	s, ctx := press(t), context.Background()
	field := func(name string) string { return "u1/evidence/plate_scored/" + name }
	put(t, s, "T-0417", field("found_how"), "before_wiping")
	put(t, s, "T-0417", field("state"), "seen")
	put(t, s, "T-0417", field("age"), "old")
	found := false
	for _, e := range load(t, s, "T-0417").Unit.Marks {
		if e.Code == "plate_scored" {
			found = true
			assert.Equal(t, [3]string{"seen", "before_wiping", "old"}, [3]string{e.State, e.How, e.Age})
		}
	}
	assert.True(t, found)
	assert.Error(t, edit(s, ctx, iva, "T-0417", field("found_how"), "by magic", "before_wiping"))
	assert.Error(t, edit(s, ctx, iva, "T-0417", field("age"), "ancient", "old"))
	assert.Error(t, edit(s, ctx, iva, "T-0417", "u1/evidence/no_such_mark/age", "old", ""))
}

// A part that was stuck asks how it was found before anybody frees or wipes it;
// its note answers.
func TestStuckPartAsksHowItWasFound(t *testing.T) {
	t.Parallel()
	s := emptyShop(t)
	tag := newUnit(t, s, "check_valve")
	p := load(t, s, tag).Parts[1]
	for _, how := range []string{"stuck", "seized"} {
		put(t, s, tag, at(p, "stuck"), how)
		assert.Contains(t, stops(load(t, s, tag), "strip"), "was "+how+": write how it was found")
	}
	put(t, s, tag, at(p, "note"), "dry varnish round the guide, moved after an hour of soaking")
	assert.NotContains(t, stops(load(t, s, tag), "strip"), "write how it was found")
	put(t, s, tag, at(p, "stuck"), "free")
	put(t, s, tag, at(p, "note"), "")
	assert.NotContains(t, stops(load(t, s, tag), "strip"), "write how it was found")
}

// Where a job stands follows from what was done, and looking changes nothing.
func TestStationFollowsTheWork(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "external_gear_pump")
	stands := func() string { return load(t, s, tag).Job.Station }
	assert.Equal(t, "receive", stands(), "its figures are not known yet")
	version := load(t, s, tag).Job.Version
	load(t, s, tag)
	assert.Equal(t, version, load(t, s, tag).Job.Version)
	require.NoError(t, s.TakeOffRest(ctx, iva, tag, 1))
	assert.Equal(t, "strip", stands(), "facings are still to be said")
	for _, p := range load(t, s, tag).Progress() {
		if p.Station == "handover" || p.Station == "kit" || p.Station == "build" {
			assert.False(t, p.Done, "%s: nothing open because nothing was begun", p.Station)
			assert.False(t, p.Begun, p.Station)
		}
	}
}

// What is no stop, or has no reason, cannot be passed; and only a lead passes.
func TestOnlyALeadPassesAnOpenStop(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "check_valve")
	st := load(t, s, tag)
	require.NotEmpty(t, st.Stops["strip"])
	code := st.Stops["strip"][0].String()
	assert.ErrorContains(t, s.WaiveStop(ctx, odd, tag, 1, code, " no "), "write down why")
	assert.ErrorContains(t, s.WaiveStop(ctx, odd, tag, 1, "no.such.stop", "because it is so"), "no longer open")
	assert.Error(t, s.WaiveStop(ctx, iva, tag, 1, code, "because it is so"))
	require.NoError(t, s.WaiveStop(ctx, odd, tag, 1, code, "read at the machine already"))
	passed := load(t, s, tag).Stops["strip"][0].Waived
	require.NotNil(t, passed)
	assert.Equal(t, [2]string{"Odd", "read at the machine already"}, [2]string{passed.By, passed.Reason})
	assert.ErrorContains(t, s.WaiveStop(ctx, odd, tag, 1, code, "once more"), "no longer open")
}

// Two who write the same field do not overwrite one another.
func TestConflictSaysWhatIsThereNow(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "check_valve")
	var conflict *job.Conflict
	err := edit(s, ctx, iva, tag, "job/title", "another", "not what is there")
	require.ErrorAs(t, err, &conflict)
	assert.Contains(t, conflict.Error(), "A unit", "the message says what is there now")
}

// What a later round says of a mark holds, on the board and in the paper as in
// the reasoning; the round before stays in the record.
func TestLaterRoundOverrulesAMark(t *testing.T) {
	s, ctx := press(t), context.Background()
	put(t, s, "T-0417", "u1/evidence/seal_swollen/state", "seen")
	put(t, s, "T-0417", "u1/evidence/seal_swollen/found_how", "before_wiping")
	require.NoError(t, s.OpenRound(ctx, iva, "T-0417", 1, "strip", "", "weeps at the shaft"))
	put(t, s, "T-0417", "u1/evidence/seal_swollen/state", "absent")
	again := load(t, s, "T-0417")
	said := again.Unit.LastSaid("seal_swollen")
	assert.Equal(t, [3]string{"absent", "before_wiping", "found_so"}, [3]string{said.State, said.How, said.Origin})
	rounds := map[int]string{}
	for _, e := range again.Unit.Marks {
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
	assert.Equal(t, "found_so", again.Unit.LastSaid("frothy_oil").Origin, "nobody spoke of it")
}
