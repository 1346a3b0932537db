package web

import (
	"context"
	"fmt"
	"net/http"
	"strings"
	"testing"

	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The paper for a dispute says who opened the unit, what was made by the bench
// and left out, and what was not photographed; it takes no side.
func TestDisputePaper(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	st := b.state("T-0421", 1)
	_, page := b.get("/jobs/T-0421/dispute")
	assert.Contains(t, page, "not opened in this record")
	ev := func(name, code string) string { return "u1/evidence/" + code + "/" + name }
	for _, set := range [][3]string{{ev("state", "ball_stuck"), "seen", ""},
		{ev("state", "plunger_scored"), "seen", ""}, {ev("origin", "plunger_scored"), "made_by_us", "found_so"},
		{ev("state", "moisture"), "absent", ""}, {ev("state", "seat_marked"), "seen", ""},
		{ev("origin", "seat_marked"), "unknown", "found_so"}} {
		res, body := b.set("T-0421", set[0], set[1], set[2])
		require.Equal(t, http.StatusOK, res.StatusCode, body)
	}
	if st.Job.WarrantyHold {
		res, body := b.set("T-0421", "job/warranty_hold", "", "yes")
		require.Equal(t, http.StatusOK, res.StatusCode, body)
	}
	res, body := b.set("T-0421", fmt.Sprintf("u1/part/%s/off", st.Parts[0].Code), "yes", "")
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	_, page = b.get("/jobs/T-0421/dispute")
	text := plain(page)
	assert.Regexp(t, `Opened by Iva Brask, \d+`, text)
	assert.Contains(t, text, "Made at this bench, and left out of the reasoning: Plunger scored")
	assert.Contains(t, text, "Of unknown origin, and counted for less: Check seat marked or wide")
	assert.Contains(t, text, "Looked for and not found: Water or rust in the air part")
	assert.Contains(t, page, "opened: a part taken off")
	for _, word := range []string{"blame", "fault of", "guilty", "lie"} {
		assert.NotContains(t, strings.ToLower(page), word+" ")
	}
}

// The fingerprint of the record stands on its page and on the papers; a line that
// is bent by hand is told of there.
func TestRecordCarriesItsFingerprint(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("odd")
	holds, err := s.server.Store.VerifyJob(context.Background(), "T-0417")
	require.NoError(t, err)
	require.Len(t, holds.Head, 64)
	for _, path := range []string{"record", "report", "dispute"} {
		_, page := b.get("/jobs/T-0417/" + path)
		assert.Contains(t, page, holds.Head, path)
	}
	_, err = storetest.Owner(t, s.server.Store).Exec(context.Background(), `
		ALTER TABLE record_entries DISABLE TRIGGER record_append_only;
		UPDATE record_entries SET after = after || '!' WHERE place = (SELECT min(r.place) FROM record_entries r
		JOIN jobs j ON j.id = r.job_id WHERE j.tag = 'T-0417')`)
	require.NoError(t, err)
	for _, path := range []string{"record", "report", "dispute"} {
		_, page := b.get("/jobs/T-0417/" + path)
		assert.Contains(t, page, "The record does not hold", path)
		assert.NotContains(t, page, holds.Head, path)
	}
}
