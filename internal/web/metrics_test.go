package web

import (
	"net/http/httptest"
	"net/url"
	"path/filepath"
	"testing"
	"time"

	"corvek/internal/store"
	"corvek/internal/web/api"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What was looked at and saved, what waits in browsers and how the store stands can
// be read by a watcher; no job and nobody is named.
func TestMetricsCountWhatHappens(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	b.get("/jobs/T-0417/measure")
	b.post("/jobs/T-0417/set", url.Values{"field": {"job/caller"}, "value": {"x"}, "base": {callerNow(t, s)}})
	b.post("/jobs/T-0417/set", url.Values{"field": {"u1/speed"}, "value": {"12 bar"}, "base": {"1450 rpm"}})
	b.post("/jobs/T-0417/set", url.Values{"field": {"job/caller"}, "value": {"y"}, "base": {"nobody"}})
	b.get("/no/such/page")
	read := func() string {
		w := httptest.NewRecorder()
		s.server.Metrics().ServeHTTP(w, httptest.NewRequest("GET", "/metrics", nil))
		require.Equal(t, 200, w.Code)
		return w.Body.String()
	}
	text := read()
	for _, line := range []string{
		`corvek_requests_total{method="GET",route="/jobs/:tag/:station",status="200"} 1`,
		`corvek_saves_total{outcome="saved"} 1`, `corvek_saves_total{outcome="refused"} 1`,
		`corvek_saves_total{outcome="conflict"} 1`, "corvek_store_up 1", "corvek_last_good_copy_seconds 0",
		"corvek_drafts_waiting 0", `corvek_request_seconds_count{kind="write"}`,
	} {
		assert.Contains(t, text, line)
	}
	assert.NotContains(t, text, "T-0417")
	assert.NotContains(t, text, "Brask")

	s.server.Store.Close()
	assert.Contains(t, read(), "corvek_store_up 0")
}

// Health tells of a store that is away, of copies that are late, and of a full disk
// through the room that is left.
func TestHealthTellsTheTruth(t *testing.T) {
	t.Parallel()
	s := serve(t)
	assert.Equal(t, api.Health{Status: "ok", Store: "ok"}, s.health(t))
	s.server.Copies = &store.Keeper{Store: s.server.Store, Folder: filepath.Join(t.TempDir(), "copies"),
		Every: time.Hour, Keep: 2}
	h := s.health(t)
	assert.Equal(t, "warning", h.Status)
	assert.Equal(t, "late", h.Copies)
	_, err := s.server.Copies.Now(t.Context())
	require.NoError(t, err)
	assert.Equal(t, api.Health{Status: "ok", Store: "ok", Disk: "ok", Copies: "ok"}, s.health(t))
	s.server.Store.Close()
	h = s.health(t)
	assert.Equal(t, api.Health{Status: "down", Store: "does not answer"}, h)
}

// health is what the program says of itself.
func (s *served) health(t *testing.T) api.Health {
	return (&api.Pages{Site: s.server.Site}).HealthNow(t.Context())
}
