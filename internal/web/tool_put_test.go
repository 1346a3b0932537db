package web

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestFiguresArePutOnAJob(t *testing.T) {
	s := serve(t)
	b := s.as("iva")
	res, body := b.post("/toolbox/creep_leak/put", url.Values{"bore": {"80 mm"}, "creep": {"12 mm"},
		"duration": {"10 min"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, `"field":"job"`)
	form := url.Values{"bore": {"80 mm"}, "creep": {"12 mm"}, "duration": {"10 min"}, "to_job": {"T-0412"},
		"note": {"over one watch"}}
	res, body = b.post("/toolbox/creep_leak/put", form)
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	for _, path := range []string{"/jobs/T-0412/record", "/jobs/T-0412/handover", "/jobs/T-0412/report"} {
		_, page := b.get(path)
		assert.Contains(t, page, "over one watch", path)
	}
	res, _ = s.as("tove").post("/toolbox/creep_leak/put", form)
	assert.Equal(t, http.StatusForbidden, res.StatusCode)
}

// A list that is left empty beside other figures is an empty one: no leaf stopped.
func TestFeelerWithoutALeafThatStops(t *testing.T) {
	b := serve(t).as("tove")
	_, body := b.get("/toolbox/feeler?goes=5+thou&stops=&upper=7+thou")
	assert.NotContains(t, body, `class="help is-danger" role="alert"`)
	assert.Contains(t, body, "UNDECIDED")
	_, body = b.get("/toolbox/piston_ripple?pistons=10&outlets=2&speed=1480+rpm&displacement=71+cc/rev&dead=1")
	assert.Regexp(t, `<b>[0-9.]+ %</b><span>outlet 1 ripple`, body, "an outlet's own figure stands first")
}
