package web

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A job that was handed over can be read and no more; a lead opens it again with
// a reason, which the page then shows.
func TestHandedOverJobIsClosed(t *testing.T) {
	t.Parallel()
	s := serve(t)
	iva, odd := s.as("iva"), s.as("odd")
	_, page := iva.get("/jobs/T-0388/handover")
	assert.NotContains(t, page, "Open it again")
	_, page = iva.get("/jobs/T-0388/receive")
	assert.Contains(t, page, "readonly")
	assert.NotContains(t, page, "x-data=\"form\"")
	res, body := iva.set("T-0388", "job/caller", "somebody", "")
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "a lead can open it again")
	_, page = odd.get("/jobs/T-0388/handover")
	assert.Contains(t, page, "Open it again")
	res, body = odd.post("/jobs/T-0388/reopen", url.Values{"reason": {""}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "write down why")
	res, _ = odd.post("/jobs/T-0388/reopen", url.Values{"reason": {"leaks at the cover again"}, "touches": {"unit"}})
	assert.Equal(t, http.StatusOK, res.StatusCode)
	_, page = iva.get("/jobs/T-0388/handover")
	assert.Contains(t, page, "Opened again after hand-over")
	assert.Contains(t, page, "leaks at the cover again")
	_, page = iva.get("/jobs/T-0388/receive")
	assert.Contains(t, page, "x-data=\"form\"")
}
