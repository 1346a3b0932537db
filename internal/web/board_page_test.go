package web

import (
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestTimerShowsOnTheBoard(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	res, body := b.set("T-0412", "job/timer_until", "90 min", "")
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	_, page := b.get("/jobs")
	assert.Contains(t, page, "ready in 1 h 29 min")
	res, _ = b.set("T-0412", "job/timer_until", "3 bar", "")
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	_, _ = b.set("T-0412", "job/timer_until", "0", "")
	_, page = b.get("/jobs")
	assert.NotContains(t, page, "ready in 1 h")
}

// A board waits for no plan, and knows it by the next look: next act, with whom, since when it waits, and what is
// late.
func TestTheBoardTellsWhatIsNext(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	_, page := b.get("/jobs")
	assert.Regexp(t, `since \d+ \w+, \d+ days`, page, "by the record, else since it came")
	require.Eventually(t, func() bool {
		_, page = b.get("/jobs")
		return strings.Contains(page, "late by plan")
	}, 20*time.Second, 20*time.Millisecond)
	assert.Regexp(t, `Next: \d+ parts washed</b> <span class="quiet">\w+ \w+ · (today|tomorrow)`, page)
	res, body := b.set("T-0412", "job/waiting", "parts", "outside")
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	_, page = b.get("/jobs?find=gate")
	assert.Contains(t, page, "since today")
}

// What is read off a code leads to the thing itself; what is typed finds jobs by the numbers of their pieces too.
func TestTheBoardIsAskedByCodes(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	_, page := b.get("/stock?item=" + itemNamed(t, b, "RD4-11"))
	lot := regexp.MustCompile(`lot <b>(S-\w+)</b>`).FindStringSubmatch(page)[1]
	for text, to := range map[string]string{
		lot: "/stock/lots/" + lot,
		"https://bench.example/stock/lots/" + lot:        "/stock/lots/" + lot,
		"https://bench.example/jobs/T-0412/strip?unit=1": "/jobs/T-0412",
	} {
		res, _ := b.get("/jobs?find=" + url.QueryEscape(text))
		assert.Equal(t, to, res.Header.Get("Location"), text)
	}
	for find, tag := range map[string]string{"RD4-11": "T-0409", "t-0412": "T-0412", "weir authority": "T-0412",
		"https://bench.example/jobs/T-9999": ""} {
		_, page := b.get("/jobs?find=" + url.QueryEscape(find))
		assert.Equal(t, tag != "", strings.Contains(page, `id="job-`+tag), find)
		if tag == "" {
			assert.Contains(t, page, "No job goes by that")
		}
	}
	res, body := b.set("T-0412", "u1/part/rod_seal/seal_maker_no", "GC-RS50", "")
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	_, page = b.get("/jobs?find=gc-rs50")
	assert.Contains(t, page, `id="job-T-0412"`)
}
