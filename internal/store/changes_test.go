package store_test

import (
	"context"
	"testing"
	"time"

	"corvek/core/unit"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What one instance writes another hears, with the version it came to.
func TestOtherInstancesHear(t *testing.T) {
	a := storetest.New(t)
	b, err := store.Open(t.Context(), storetest.URLOf(a))
	require.NoError(t, err)
	t.Cleanup(b.Close)
	create(t, a, sheet("T-7001"))
	ctx, stop := context.WithCancel(t.Context())
	heard, ended := make(chan store.Heard, 100), make(chan struct{})
	go func() {
		b.Listen(ctx, func(h store.Heard) { heard <- h })
		close(ended)
	}()
	// It is not known when b begins to hear: a writes until it does.
	var first store.Heard
	for first.Tag == "" {
		rename(t, a)
		select {
		case first = <-heard:
		case <-time.After(20 * time.Millisecond):
		}
	}
	assert.Equal(t, "T-7001", first.Tag)
	at := rename(t, a)
	for h := first; h.Version != at; h = <-heard {
		assert.Less(t, h.Version, at, "in the order in which they were written")
	}
	stop()
	<-ended
}

func rename(t *testing.T, s *store.Store) (version int64) {
	t.Helper()
	require.NoError(t, s.Update(t.Context(), "T-7001", func(j *unit.Job, _ store.History) (*store.Change, error) {
		j.Title += "!"
		version = j.Version
		return &store.Change{Job: j, Entries: []unit.Entry{{Who: "x", At: time.Now(), Action: "set"}}}, nil
	}))
	return version
}

// What one instance works with no other gets, until it lets go or ends.
func TestInstancesClaimAThing(t *testing.T) {
	a := storetest.New(t)
	b, err := store.Open(t.Context(), storetest.URLOf(a))
	require.NoError(t, err)
	t.Cleanup(b.Close)
	release, err := a.Claim(t.Context(), "stand North")
	require.NoError(t, err)
	_, err = b.Claim(t.Context(), "stand North")
	require.ErrorIs(t, err, store.ErrClaimed)
	other, err := b.Claim(t.Context(), "stand South")
	require.NoError(t, err)
	other()
	release()
	release()
	again, err := b.Claim(t.Context(), "stand North")
	require.NoError(t, err)
	again()
}
