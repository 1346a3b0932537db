package job_test

import (
	"context"
	"corvek/internal/store"
	"strings"
	"sync"
	"testing"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/people"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Ten hand-overs at once are one, and after it nothing is written until a lead
// opens the job again with a reason.
func TestHandOverIsFinal(t *testing.T) {
	s, ctx := press(t), context.Background()
	const tag = "T-0388"
	lines, err := s.Store.Record(ctx, tag, 1000)
	require.NoError(t, err)
	before := count(lines, "handed over")
	assert.ErrorContains(t, s.HandOver(ctx, iva, tag), "a lead has to sign the papers of")
	require.NoError(t, s.SignOff(ctx, odd, tag, 1))
	var wg sync.WaitGroup
	outcome := make(chan error, 10)
	for range 10 {
		wg.Go(func() { outcome <- s.HandOver(ctx, iva, tag) })
	}
	wg.Wait()
	close(outcome)
	done := 0
	for err := range outcome {
		if err == nil {
			done++
			continue
		}
		var fe *field.Error
		require.ErrorAs(t, err, &fe)
		assert.Contains(t, fe.Text, "was handed over on")
	}
	assert.Equal(t, 1, done)
	lines, err = s.Store.Record(ctx, tag, 1000)
	require.NoError(t, err)
	assert.Equal(t, before+1, count(lines, "handed over"), "one line of the record")

	j := load(t, s, tag).Job
	for what, err := range map[string]error{
		"a field":      edit(s, ctx, odd, tag, "job/title", "another", j.Title),
		"an account":   s.AddAccount(ctx, odd, tag, 1, "the driver", "it whined"),
		"a part":       func() error { _, err := s.AddPart(ctx, odd, tag, 1, "key", "disc", "plate", 1); return err }(),
		"a caution":    s.Acknowledge(ctx, odd, tag, 1, "hot_oil"),
		"an attempt":   s.NextAttempt(ctx, odd, tag, 1, bench.Change{Words: "seal"}),
		"a round":      s.OpenRound(ctx, odd, tag, 1, "strip", "", "came back"),
		"loose pieces": s.AddLoose(ctx, odd, tag, 1, "pin", "sump", 1),
	} {
		assert.ErrorContains(t, err, "was handed over on", what)
	}
	assert.Equal(t, j.Version, load(t, s, tag).Job.Version, "nothing was written")

	assert.ErrorIs(t, s.Reopen(ctx, iva, tag, "came back leaking", unit.TouchesUnit), people.ErrForbidden)
	assert.ErrorContains(t, s.Reopen(ctx, odd, tag, " ", unit.TouchesUnit), "write down why")
	require.NoError(t, s.Reopen(ctx, odd, tag, "came back leaking at the cover", unit.TouchesUnit))
	assert.ErrorContains(t, s.Reopen(ctx, odd, tag, "twice", unit.TouchesUnit), "is not handed over")
	j = load(t, s, tag).Job
	assert.False(t, j.HandedOver())
	require.Len(t, j.Reopenings, 2)
	assert.Equal(t, "came back leaking at the cover", j.Reopenings[1].Reason)
	assert.False(t, j.Reopenings[1].HandedOver.IsZero())
	require.NoError(t, edit(s, ctx, iva, tag, "job/title", strings.ToUpper(j.Title), j.Title))
}

func count(lines []unit.Entry, action string) (n int) {
	for _, l := range lines {
		if l.Action == action {
			n++
		}
	}
	return n
}

// A job that should not be there is kept, marked and off the board, found by its
// words, and writes nothing until a lead takes that back.
func TestWithdrawnIsKeptAndOffTheBoard(t *testing.T) {
	s, ctx := press(t), t.Context()
	require.ErrorIs(t, s.Withdraw(ctx, iva, "T-0417", "entered twice"), people.ErrForbidden)
	var fe *field.Error
	require.ErrorAs(t, s.Withdraw(ctx, odd, "T-0417", "no"), &fe)
	assert.Equal(t, "withdraw_reason", fe.Field)
	require.NoError(t, s.Withdraw(ctx, odd, "T-0417", "entered twice"))
	require.ErrorAs(t, s.Withdraw(ctx, odd, "T-0417", "entered twice"), &fe)

	tags := func() (out []string) {
		groups, err := s.Store.InHand(ctx, store.Sought{}, 50, "", 50)
		require.NoError(t, err)
		for _, g := range groups {
			for _, c := range g.Cards {
				out = append(out, c.Tag)
			}
		}
		return out
	}
	assert.NotContains(t, tags(), "T-0417")
	closed, err := s.Store.Closed(ctx, store.Sought{}, 50)
	require.NoError(t, err)
	for _, c := range closed {
		assert.NotEqual(t, "T-0417", c.Tag)
	}
	found, err := s.Store.Closed(ctx, store.Sought{Find: "t-0417"}, 50)
	require.NoError(t, err)
	require.Len(t, found, 1)
	assert.NotNil(t, found[0].WithdrawnAt)

	_, err = s.Set(ctx, odd, "T-0417", job.Edit{Field: "job/caller", Value: "x"})
	require.ErrorAs(t, err, &fe)
	assert.Contains(t, fe.Text, "was withdrawn")
	assert.Contains(t, fe.Text, "entered twice")
	require.NoError(t, s.Reopen(ctx, odd, "T-0417", "it was another pump", unit.TouchesUnit))
	assert.Contains(t, tags(), "T-0417")
	st, err := s.Load(ctx, "T-0417", 1)
	require.NoError(t, err)
	assert.False(t, st.Job.Closed())
	assert.Empty(t, st.Job.Reopenings, "no hand-over was taken back")
	lines, err := s.Store.Record(ctx, "T-0417", 2)
	require.NoError(t, err)
	assert.Equal(t, "took the withdrawal back: it was another pump", lines[0].Action)
	assert.Equal(t, "withdrawn: entered twice", lines[1].Action)
}
