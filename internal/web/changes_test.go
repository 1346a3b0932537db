package web

import (
	"bufio"
	"fmt"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Who listens is told the version at once, so that nothing is missed while a line was
// broken, and then each that is written.
func TestWhoListensHearsEachVersion(t *testing.T) {
	s := serve(t)
	b := s.as("iva")
	job := b.state("T-0417", 1).Job
	res, err := b.Get(s.URL + "/jobs/T-0417/changes")
	require.NoError(t, err)
	defer res.Body.Close()
	assert.Equal(t, "text/event-stream", res.Header.Get("Content-Type"))
	lines := bufio.NewScanner(res.Body)
	hears := func(version int64) {
		t.Helper()
		for lines.Scan() {
			if lines.Text() == fmt.Sprintf("data: %d", version) {
				return
			}
		}
		t.Fatalf("version %d was not told: %v", version, lines.Err())
	}
	hears(job.Version)
	answer, body := b.set("T-0417", "u1/serial", "22-0918", job.Units[0].Serial)
	require.Equal(t, http.StatusOK, answer.StatusCode, body)
	hears(job.Version + 1)
	none, err := b.Get(s.URL + "/jobs/T-9999/changes")
	require.NoError(t, err)
	defer none.Body.Close()
	assert.Equal(t, http.StatusNotFound, none.StatusCode)
}
