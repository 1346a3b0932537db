package web

import (
	"context"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A family that cannot be read is refused with its line, and what was typed is
// still in the page; a good one holds at once.
func TestLibraryRefusesWithTheLine(t *testing.T) {
	t.Parallel()
	s := serve(t)
	lead := s.as("odd")
	_, page := lead.get("/library/check_valve")
	require.Contains(t, page, "code: check_valve")
	text, err := s.server.Jobs.FamilyText(context.Background(), "check_valve")
	require.NoError(t, err)
	broken := strings.Replace(text, "parts:", "partz:", 1)
	res, body := lead.post("/library/check_valve", url.Values{"text": {broken}, "reason": {"a try"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "check_valve.yaml")
	assert.Contains(t, body, "line")
	assert.Contains(t, body, "partz:", "nothing typed is lost")
	assert.Contains(t, body, `value="a try"`)
	res, _ = lead.post("/library/check_valve", url.Values{"text": {strings.Replace(text, "name: Check valve",
		"name: Check valve of ours", 1)}, "reason": {"ours"}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page = lead.get("/library")
	assert.Contains(t, page, "Check valve of ours")
	res, _ = lead.post("/library/new_thing", url.Values{"text": {text}, "reason": {"x"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode,
		"the code in the text must be the code it is kept under")
	res, _ = lead.get("/library/no_such_family")
	assert.Equal(t, http.StatusNotFound, res.StatusCode)
}
