package web

import (
	"fmt"
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What is asked back shows on the board when it is due, and is answered on the page of a job
// that was handed over.
func TestWhatIsAskedBackIsAnswered(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	res, body := b.post("/jobs/T-0388/ask-back", url.Values{"kind": {"refit"}, "due_on": {"some day"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, body)
	res, body = b.post("/jobs/T-0388/ask-back", url.Values{"kind": {"refit"}, "due_on": {"2020-01-01"}})
	require.Less(t, res.StatusCode, 400, body)
	_, page := b.get("/jobs")
	assert.Contains(t, page, "1 to ask back")
	assert.Contains(t, page, "how it runs since it was refitted")
	_, page = b.get("/jobs/T-0388/handover")
	assert.Contains(t, page, "overdue")
	list := b.state("T-0388", 1).Job.FollowUps
	path := fmt.Sprintf("/jobs/T-0388/ask-back/%d", list[len(list)-1].Number)
	res, _ = s.as("tove").post(path, url.Values{"result": {"good"}})
	assert.Equal(t, http.StatusForbidden, res.StatusCode)
	res, body = b.post(path, url.Values{"result": {"good"}, "note": {"pulls again as it did when new"}})
	require.Less(t, res.StatusCode, 400, body)
	_, page = b.get("/jobs/T-0388/handover")
	assert.Contains(t, page, "good: pulls again as it did when new (Iva Brask")
	_, page = b.get("/jobs")
	assert.NotContains(t, page, "to ask back")
	_, page = b.get("/jobs/T-0388/report")
	assert.Contains(t, page, "Collected by Hanna Ode; given back: the old parts, the start-up card")
	res, _ = b.post("/jobs/T-0388/ask-back/x", url.Values{"result": {"good"}})
	assert.Equal(t, http.StatusNotFound, res.StatusCode)
}
