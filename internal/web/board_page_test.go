package web

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestTimerShowsOnTheBoard(t *testing.T) {
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
