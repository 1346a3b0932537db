package job_test

import (
	"context"
	"fmt"
	"strings"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/proof"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/job/jobtest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// runTest takes an attempt whole, each step held its time; typed figures are those
// of the finished sister, which pass.
func runTest(t *testing.T, s *job.Service, tag string, now *time.Time) {
	t.Helper()
	ctx := context.Background()
	jobtest.RunsOn(t, s, tag)
	for _, pt := range load(t, s, tag).Attempt().Points {
		if pt.Skipped != "" {
			continue
		}
		if pt.Test.Hold != "" {
			require.NoError(t, s.StartHold(ctx, iva, tag, 1, pt.Test.Code))
			*now = now.Add(15 * time.Minute)
			require.NoError(t, s.EndHold(ctx, iva, tag, 1, pt.Test.Code))
		}
		st := load(t, s, tag)
		ref := func(name string) string { return st.Unit.PointRef(st.Attempt().Number, pt.Test.Code, name).String() }
		shown := jobtest.Shown(t, st, pt.Test.Code)
		for range 2 { // the second time for what is read at the end of a hold
			if len(pt.Test.Reads) > 0 {
				require.NoError(t, s.TakePoint(ctx, iva, tag, 1,
					job.Reading{Step: pt.Test.Code, Source: unit.SourceStand, Shown: shown}))
			}
		}
		if len(pt.Test.Good) > 0 {
			put(t, s, tag, ref("word"), pt.Test.Good[0])
		}
	}
	require.NoError(t, s.CloseAttempt(ctx, iva, tag, 1))
}

// The simulated stand is an exercise whatever it shows: it proves nothing and does
// not let the job go.
func TestTheSimulatedStandProvesNothing(t *testing.T) {
	s, ctx := press(t), context.Background()
	claim, _ := load(t, s, "T-0417").Claim()
	assert.Equal(t, proof.NotTested, claim)
	jobtest.ToTheStand(t, s, "T-0417")
	require.NoError(t, s.NextAttempt(ctx, iva, "T-0417", 1, bench.Change{}))
	jobtest.Exercise(t, s, "T-0417", true)
	require.NoError(t, s.CloseAttempt(ctx, iva, "T-0417", 1))
	st := load(t, s, "T-0417")
	claim, missing := st.Claim()
	assert.Equal(t, proof.Exercise, claim)
	assert.NotEmpty(t, missing)
	assert.NotEmpty(t, st.Unsettled())
	assert.Contains(t, codes(st.Stops["prove"]), "u1/prove/proved")
}

// A passed test proves only what nothing speaks against: an open or a waived stop
// of Strip or Build, a hold that was cut short, all are named.
func TestProvedIsDeserved(t *testing.T) {
	s, ctx := press(t), context.Background()
	st := load(t, s, "T-0388")
	claim, missing := st.Claim()
	require.Equal(t, proof.Proved, claim, missing)

	put(t, s, "T-0388", "u1/part/front_needles/found", "33")
	claim, missing = load(t, s, "T-0388").Claim()
	assert.Equal(t, proof.Tested, claim)
	require.Len(t, missing, 2)
	assert.Contains(t, missing[0], "33 of 34")
	assert.Contains(t, missing[1], "Front needles cannot be fitted new")
	code := load(t, s, "T-0388").Stops["strip"][0].String()
	require.NoError(t, s.WaiveStop(ctx, odd, "T-0388", 1, code, "agreed with the customer"))
	claim, missing = load(t, s, "T-0388").Claim()
	assert.Equal(t, proof.Tested, claim, "what is merely waived is not proved")
	assert.Contains(t, missing[0], "agreed with the customer")
}

func TestAHoldCutShortIsNamed(t *testing.T) {
	s, ctx := press(t), context.Background()
	now := time.Date(2031, 5, 20, 9, 0, 0, 0, time.UTC)
	s.Now = func() time.Time { return now }
	jobtest.ToTheStand(t, s, "T-0417")
	require.NoError(t, s.NextAttempt(ctx, iva, "T-0417", 1, bench.Change{}))
	assert.Error(t, s.StartHold(ctx, iva, "T-0417", 1, "hand_turn"), "it has no hold")
	runTest(t, s, "T-0417", &now)
	holds := func() (out []string) {
		_, missing := load(t, s, "T-0417").Claim()
		for _, m := range missing {
			if len(m) > 8 && m[len(m)-3:] == "end" {
				out = append(out, m)
			}
		}
		return out
	}
	assert.Empty(t, holds())
	require.NoError(t, s.NextAttempt(ctx, iva, "T-0417", 1, bench.Change{Words: "run again"}))
	require.NoError(t, s.StartHold(ctx, iva, "T-0417", 1, "run_in"))
	assert.ErrorContains(t, s.StartHold(ctx, iva, "T-0417", 1, "p100"), "run in at no load is held just now")
	now = now.Add(9 * time.Minute)
	put(t, s, "T-0417", "u1/attempt/2/point/run_in/word", "quiet")
	held := func() time.Duration { return load(t, s, "T-0417").Attempt().Point("run_in").Held() }
	assert.Zero(t, held(), "it still runs, whatever was read")
	require.NoError(t, s.EndHold(ctx, iva, "T-0417", 1, "run_in"))
	assert.Equal(t, 9*time.Minute, held())
	now = now.Add(2 * time.Hour)
	put(t, s, "T-0417", "u1/attempt/2/point/run_in/word", "noisy")
	assert.Equal(t, 9*time.Minute, held(), "what is read later makes it no longer")
	assert.Error(t, s.EndHold(ctx, iva, "T-0417", 1, "run_in"), "it ended already")
	// What may be held at once is said by the plan.
	require.NoError(t, s.StartHold(ctx, iva, "T-0417", 1, "p100"))
	require.NoError(t, s.StartHold(ctx, iva, "T-0417", 1, "leak_watch"))
}

// What is not possible on the stand is said with its reason: the test can be closed, and the unit can
// go; but what was not shown is not proved, whoever says why.
func TestWhatIsNotPossibleHereIsNotShown(t *testing.T) {
	s, ctx := press(t), context.Background()
	now := time.Date(2031, 5, 20, 9, 0, 0, 0, time.UTC)
	s.Now = func() time.Time { return now }
	put(t, s, "T-0417", "u1/part/relief_spring/found", "")
	jobtest.ToTheStand(t, s, "T-0417")
	require.NoError(t, s.NextAttempt(ctx, iva, "T-0417", 1, bench.Change{}))
	put(t, s, "T-0417", "u1/attempt/1/point/p25/not_applicable", "the drive is too small")
	runTest(t, s, "T-0417", &now)
	st := load(t, s, "T-0417")
	assert.Empty(t, st.Unsettled())
	assert.NotContains(t, codes(st.Stops["prove"]), "u1/prove/proved")
	claim, missing := st.Claim()
	assert.Equal(t, proof.Tested, claim)
	assert.Contains(t, strings.Join(missing, "; "),
		"delivers at duty (quarter pressure: not possible on this stand: the drive is too small)")
}

// A job opened only for what it shows, or whose unit is replaced, condemned or
// sent back, owes no kit, build or test; each says what it must.
func TestEndings(t *testing.T) {
	s, ctx := press(t), context.Background()
	for _, c := range []struct {
		ending, note, asks string
	}{
		{unit.EndFindings, "", ""}, {unit.EndReplaced, "new unit, serial 88-1", "by which"},
		{unit.EndCondemned, "scrapped, the mill agreed", "where it went"},
	} {
		put(t, s, "T-0417", "u1/ending", c.ending)
		st := load(t, s, "T-0417")
		for _, station := range []string{"decide", "kit", "build", "prove"} {
			assert.Empty(t, st.Stops[station], "%s %s", c.ending, station)
		}
		assert.NotEmpty(t, st.Stops["strip"], "what was opened is recorded whole")
		if c.asks != "" {
			var all []string
			for _, stop := range st.Stops["handover"] {
				all = append(all, stop.Text)
			}
			assert.Contains(t, strings.Join(all, "; "), c.asks)
		}
		put(t, s, "T-0417", "u1/ending_note", c.note)
		assert.NotContains(t, codes(load(t, s, "T-0417").Stops["handover"]), "u1/handover/ending")
		put(t, s, "T-0417", "u1/ending_note", "")
	}

	tag := newUnit(t, s, "intensifier_ram")
	put(t, s, tag, "job/complaint", "does not lift")
	put(t, s, tag, "u1/ending", unit.EndReturned)
	put(t, s, tag, "u1/ending_note", "to its maker, seals whole")
	for station, stops := range load(t, s, tag).Stops {
		for _, stop := range stops {
			if stop.Kind == unit.StopCaution {
				require.NoError(t, s.Acknowledge(ctx, iva, tag, 1, stop.Part), station)
			}
		}
	}
	jobtest.HandOver(t, s, tag)
}

// An autopsy goes out as findings alone: taken apart, counted, measured, concluded,
// and neither decided nor built nor tested.
func TestAnAutopsyIsHandedOver(t *testing.T) {
	t.Parallel()
	s, ctx := emptyShop(t), context.Background()
	tag := newUnit(t, s, "check_valve")
	put(t, s, tag, "u1/ending", unit.EndFindings)
	for _, stops := range load(t, s, tag).Stops {
		for _, stop := range stops {
			if stop.Kind == unit.StopCaution {
				require.NoError(t, s.Acknowledge(ctx, iva, tag, 1, stop.Part))
			}
		}
	}
	assert.Error(t, s.HandOver(ctx, iva, tag), "nothing was looked at yet")
	require.NoError(t, s.TakeOffRest(ctx, iva, tag, 1))
	for _, p := range load(t, s, tag).Parts {
		put(t, s, tag, "u1/part/"+p.Code+"/found", fmt.Sprint(p.Expected))
		if len(p.Def.Facings) > 0 {
			put(t, s, tag, "u1/part/"+p.Code+"/facing", p.Def.Facings[0])
		}
	}
	fill(t, s, tag)
	put(t, s, tag, "u1/conclusion/cause", "not_found")
	put(t, s, tag, "u1/conclusion/statement", "The seat is whole and the ball is round.")
	jobtest.HandOver(t, s, tag)
	st := load(t, s, tag)
	assert.Empty(t, st.Job.Waivers)
	claim, _ := st.Claim()
	assert.Equal(t, proof.NotTested, claim)
}
