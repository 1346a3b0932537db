package web

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestPartsAreFoundByTyping(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	for asked, want := range map[string]string{"11": "Front needles", "rear_plate": "Rear side plate",
		"rear side": "Rear side plate", "spring relief": "Relief spring", "DOWEL": "Dowel pins"} {
		_, page := b.get("/jobs/T-0417/strip?find=" + url.QueryEscape(asked))
		assert.Regexp(t, `<h2><span>\d+</span> `+want, page, asked)
	}
	_, page := b.get("/jobs/T-0417/strip?find=flux+capacitor")
	assert.Contains(t, page, "no part of this unit is called “flux capacitor”")
	res, body := b.post("/jobs/T-0417/strip/part", url.Values{"name": {"Odd ring"}, "kind": {"spacer"},
		"count": {"two"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, `"field":"count"`)
}
