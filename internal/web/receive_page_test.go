package web

import (
	"net/http"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestReceiveFacesAndToteTag(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	_, page := b.get("/jobs/T-0426/receive?face=gauges")
	assert.Contains(t, page, "AT THE UNIT")
	_, page = b.get("/jobs/T-0426/receive?face=variant")
	assert.Contains(t, page, "Five friction plates")
	assert.Contains(t, page, "model number ends 5")
	_, page = b.get("/jobs/T-0426/receive?face=fluid")
	assert.Contains(t, page, "BALANCED")
	_, page = b.get("/jobs/T-0426/tag")
	assert.Contains(t, page, "data:image/png;base64,")
	assert.Contains(t, page, "/jobs/T-0426", "the address the code opens")

	// Another unit and a second account.
	res, body := b.post("/jobs/T-0426/receive/unit", url.Values{"family": {"check_valve"}, "name": {"Holding valve"}})
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	assert.Contains(t, body, "unit=3")
	_, page = b.get("/jobs/T-0426/receive?unit=3")
	assert.Contains(t, page, "Holding valve")
	assert.Equal(t, 3, strings.Count(page, `aria-label="units of this job"`)+strings.Count(page,
		`title="Brake and clutch pack"`)+strings.Count(page, `title="Winch motor"`))
	res, body = b.post("/jobs/T-0426/receive/unit", url.Values{"family": {"dragon"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, `"field":"family"`)
	res, body = b.post("/jobs/T-0426/receive/account", url.Values{"teller": {"Deckhand"}, "words": {""}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, `"field":"words"`)
}
