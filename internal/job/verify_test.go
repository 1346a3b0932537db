package job_test

import (
	"corvek/core/handover"
	"testing"
	"time"

	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A figure that somebody changes in the tables with the program's own rights is named, with what
// it was and who wrote it.
func TestAnEditedFigureIsNamed(t *testing.T) {
	s, ctx := press(t), t.Context()
	put(t, s, "T-0417", "u1/attempt/0/point/p100/flow", "38.1 L/min")
	v, err := s.Verify(ctx)
	require.NoError(t, err)
	require.Empty(t, v.Faults)
	storetest.Bend(s.Store)
	done, err := s.Store.Pool.Exec(ctx, `UPDATE points SET figures = figures || '{"flow": "44.2 L/min"}'
		WHERE code = 'p100' AND attempt = 0 AND job_id = (SELECT id FROM jobs WHERE tag = 'T-0417')`)
	require.NoError(t, err)
	require.Equal(t, int64(1), done.RowsAffected())
	v, err = s.Verify(ctx)
	require.NoError(t, err)
	require.Len(t, v.Faults, 1)
	assert.Contains(t, v.Fault(), "at u1/attempt/0/point/p100")
	assert.Contains(t, v.Fault(), "is 44.2 L/min, and Iva wrote 38.1 L/min on")
}

// No act that somebody names as he likes signs papers off, or hides a change from who signed them.
func TestWordsSignNothingOff(t *testing.T) {
	s, ctx := press(t), t.Context()
	signed := func() handover.SignOff {
		j, err := s.Store.Job(ctx, "T-0417")
		require.NoError(t, err)
		sign, err := handover.SignedOff(j, 1, s.Store.Lines(ctx, "T-0417"))
		require.NoError(t, err)
		return sign
	}
	holds, err := s.Store.VerifyJob(ctx, "T-0417")
	require.NoError(t, err)
	forged := "signed off the papers of unit 1: record of 3 lines, fingerprint " + holds.Head
	acts := map[string]func(name string) error{
		"a kit piece": func(name string) error { return s.AddPiece(ctx, iva, "T-0417", 1, "", name, 1, "") },
		"a part": func(name string) error {
			_, err := s.AddPart(ctx, iva, "T-0417", 1, "key", name, "plate", 1)
			return err
		},
		"a loose piece": func(name string) error { return s.AddLoose(ctx, iva, "T-0417", 1, name, "sump", 1) },
		"an account":    func(name string) error { return s.AddAccount(ctx, iva, "T-0417", 1, name, "noisy") },
		"a field": func(name string) error {
			_, err := s.Set(ctx, iva, "T-0417", job.Edit{Field: "job/lesson", Value: name,
				Base: load(t, s, "T-0417").Job.Lesson})
			return err
		},
	}
	for what, act := range acts {
		require.NoError(t, act(forged), what)
		assert.Zero(t, signed().Version, what)
	}
	require.ErrorIs(t, s.SignOff(ctx, iva, "T-0417", 1), people.ErrForbidden)
	require.NoError(t, s.SignOff(ctx, odd, "T-0417", 1))
	require.True(t, signed().Holds())
	put(t, s, "T-0417", "job/collected_by", "the driver")
	assert.True(t, signed().Holds(), "written while it is closed")
	for _, what := range []string{"a kit piece", "a part", "a loose piece", "an account"} {
		require.NoError(t, s.SignOff(ctx, odd, "T-0417", 1))
		require.NoError(t, acts[what]("handed over"), what)
		assert.False(t, signed().Holds(), what)
	}
}

// A fingerprint of a paper tells what stood when it was printed.
func TestAFingerprintTellsWhatStood(t *testing.T) {
	s, ctx := press(t), t.Context()
	put(t, s, "T-0417", "u1/speed", "1440 rpm")
	printed, err := s.Store.VerifyJob(ctx, "T-0417")
	require.NoError(t, err)
	put(t, s, "T-0417", "u1/speed", "1460 rpm")
	put(t, s, "T-0417", "u1/serial", "22-0918")

	stood, err := s.Stood(ctx, printed.Head[:12])
	require.NoError(t, err)
	assert.Equal(t, "T-0417", stood.Tag)
	assert.Equal(t, printed.Lines, stood.Number)
	assert.Equal(t, "u1/speed", stood.Field)
	assert.True(t, stood.Holds.Holds())
	require.Len(t, stood.Since, 1, "of the serial nothing was written by then")
	assert.Equal(t, [2]string{"1440 rpm", "1460 rpm"}, [2]string{stood.Since[0].After, stood.Since[0].Now})
	_, err = s.Stood(ctx, "0123456789abcdef")
	require.Error(t, err)
	_, err = s.Stood(ctx, "%%%%%%%%")
	require.ErrorContains(t, err, "fingerprint")
}

// What an earlier version left is fingerprinted by itself.
func TestWhatAnEarlierVersionLeftIsTakenOver(t *testing.T) {
	t.Parallel()
	s, ctx := press(t), t.Context()
	_, err := storetest.Owner(t, s.Store).Exec(ctx, "UPDATE record_tails SET state = ''")
	require.NoError(t, err)
	s.TakeOverEarlier(ctx)
	left, err := s.Store.JobsOfEarlier(ctx, 9)
	require.NoError(t, err)
	assert.Empty(t, left)
	told, err := s.Store.Events(ctx, "T-0417")
	require.NoError(t, err)
	last := told[len(told)-1]
	assert.True(t, last.Is(unit.EventTakenOver))
	assert.WithinDuration(t, time.Now(), last.At, time.Hour)
}
