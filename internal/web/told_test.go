package web

import (
	"net/http"
	"net/url"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var toldDay = regexp.MustCompile(`name="day" value="([0-9-]+)"`)

// Whoever runs the machine is told the day, and told anew when it moves; the offer names it.
func TestTheOperatorIsToldTheDay(t *testing.T) {
	t.Parallel()
	s := serve(t)
	iva := s.as("iva")
	res, body := iva.set("T-0417", "job/stands", "yes", "")
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	_, board := iva.get("/jobs")
	assert.Contains(t, board, "the machine stands: tell its operator")

	_, page := iva.get("/plan?why=T-0417")
	day := toldDay.FindStringSubmatch(page)
	require.NotNil(t, day, "the plan has what he is told")
	res, body = iva.post("/plan/told", url.Values{"tag": {"T-0417"}, "day": {"2020-01-01"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "promised for another day meanwhile")
	res, body = iva.post("/plan/told", url.Values{"tag": {"T-0417"}, "day": {day[1]}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode, body)
	_, board = iva.get("/jobs")
	assert.NotContains(t, board, "tell its operator")

	st := iva.state("T-0417", 1)
	moved := st.Job.PromisedOn.Add(3)
	res, body = iva.set("T-0417", "job/promised_on", string(moved), string(st.Job.PromisedOn))
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	_, board = iva.get("/jobs")
	assert.Contains(t, board, "was told "+st.Job.PromisedOn.Time().Format("Mon 2 Jan")+", now "+
		moved.Time().Format("Mon 2 Jan"))
	_, offer := iva.get("/jobs/T-0417/quote")
	assert.Contains(t, offer, "Ready by ")
}
