package web

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestFiguresArePutOnAJob(t *testing.T) {
	t.Parallel()
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
// A calculator opened from a job stands filled in, says whence each figure is, and puts its answer back on the part.
func TestACalculatorIsFilledInFromAJob(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	_, page := b.get("/toolbox/pump?for=T-0412&unit=1")
	assert.Contains(t, page, "T-0412: duty pressure")
	_, page = b.get("/toolbox/cylinder?for=T-0412&unit=1")
	assert.Contains(t, page, "T-0412: duty pressure")
	_, page = b.get("/jobs/T-0412/measure?part=rod&feature=diameter")
	require.Contains(t, page, "Work something out with its figures")
	const about = "/toolbox/judge?about=rod.diameter&back=%2Fjobs%2FT-0412%2Fmeasure&for=T-0412&unit=1"
	_, page = b.get(about)
	assert.Contains(t, page, "of Rod, as found")
	assert.Contains(t, page, `href="/jobs/T-0412/measure">Back to the job`)
	res, body := b.post("/toolbox/runout/put", url.Values{"tir": {"0.20 mm"}, "for": {"T-0412"}, "to_job": {"T-0412"},
		"unit": {"1"}, "about": {"rod.diameter"}, "back": {"/jobs/T-0412/measure?part=rod&feature=diameter"}})
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	assert.Contains(t, body, "/jobs/T-0412/measure?part=rod")
	_, page = b.get("/jobs/T-0412/measure?part=rod&feature=diameter")
	assert.Contains(t, page, "Worked out for this job")
	assert.Contains(t, page, "typed")
	// A stranger's page is no way back.
	_, page = b.get("/toolbox/pump?for=T-0412&unit=1&back=https://example.org/")
	assert.NotContains(t, page, "example.org/\">Back")
}

func TestFeelerWithoutALeafThatStops(t *testing.T) {
	t.Parallel()
	b := serve(t).as("tove")
	_, body := b.get("/toolbox/feeler?goes=5+thou&stops=&upper=7+thou")
	assert.NotContains(t, body, `class="help is-danger" role="alert"`)
	assert.Contains(t, body, "UNDECIDED")
	_, body = b.get("/toolbox/piston_ripple?pistons=10&outlets=2&speed=1480+rpm&displacement=71+cc/rev&dead=1")
	assert.Regexp(t, `<b>[0-9.]+ %</b><span>outlet 1 ripple`, body, "an outlet's own figure stands first")
}
