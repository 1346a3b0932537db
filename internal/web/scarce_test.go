package web

import (
	"fmt"
	"net/http"
	"net/http/httptest"
	"net/url"
	"sync/atomic"
	"testing"
	"time"

	"corvek/demo/demotest"
	"corvek/internal/job"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"
)

// With two connections to the database, as its address says, sixteen benches wait
// for each other and all are answered.
func TestFewConnectionsAreShared(t *testing.T) {
	kept := demotest.Jobs(t).Store
	st, err := store.Open(t.Context(), storetest.URLOf(kept)+"&pool_max_conns=2")
	require.NoError(t, err)
	defer st.Close()
	assert.Equal(t, int32(2), st.Pool.Config().MaxConns)
	jobs, err := job.New(st)
	require.NoError(t, err)
	app, server, err := New(Config{Jobs: jobs, Demo: true, HashCost: bcrypt.MinCost})
	require.NoError(t, err)
	s := &served{httptest.NewServer(app), server, t}
	defer s.Close()
	b := s.as("iva")
	j, err := st.Job(t.Context(), "T-0417")
	require.NoError(t, err)
	parts := j.Units[0].Parts
	var answered atomic.Int64
	atOnce(16, func(i int) {
		res, err := b.Get(s.URL + "/jobs/T-0417/measure")
		if err == nil {
			_ = res.Body.Close()
		}
		status, body := b.quiet("/jobs/T-0417/set", url.Values{"field": {"u1/part/" + parts[i].Code + "/note"},
			"value": {fmt.Sprint("bench ", i)}, "base": {parts[i].Note}})
		if err == nil && res.StatusCode == http.StatusOK && assert.Equal(t, http.StatusOK, status, body) {
			answered.Add(1)
		}
	})
	assert.Equal(t, int64(16), answered.Load())
}

// A clock that is set back moves no line of the record: it stands in the order in
// which it was written, and holds.
func TestAClockSetBackDoesNotMoveTheRecord(t *testing.T) {
	s, now := shopAt(t)
	b := s.as("iva")
	was := callerNow(t, s)
	for i, step := range []time.Duration{0, -3 * 24 * time.Hour, time.Hour} {
		*now = now.Add(step)
		is := fmt.Sprintf("caller %d", i)
		res, body := b.post("/jobs/T-0417/set", url.Values{"field": {"job/caller"}, "value": {is}, "base": {was}})
		require.Equal(t, http.StatusOK, res.StatusCode, body)
		was = is
	}
	lines, err := s.server.Store.Record(t.Context(), "T-0417", 3)
	require.NoError(t, err)
	for i, want := range []string{"caller 2", "caller 1", "caller 0"} {
		assert.Equal(t, want, lines[i].After)
	}
	holds, err := s.server.Store.Verify(t.Context())
	require.NoError(t, err)
	assert.Empty(t, holds.Fault())
	// Who came last is told by the order too.
	res, body := b.post("/jobs/T-0417/set", url.Values{"field": {"job/caller"}, "value": {"x"}, "base": {"old"}})
	assert.Equal(t, http.StatusConflict, res.StatusCode)
	assert.Contains(t, body, "caller 2")
}
