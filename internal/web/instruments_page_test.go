package web

import (
	"net/http"
	"net/url"
	"regexp"
	"testing"

	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestInstrumentsTellWhatIsWrong(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	for _, c := range []struct{ name, kind, res, due, says string }{
		{"", "calipers", "0.02 mm", "", "say which one"},
		{"calipers 9", "", "0.02 mm", "", "say what it is"},
		{"calipers 9", "calipers", "0.02 kg", "", "mm"},
		{"calipers 9", "calipers", "0.02 mm", "next week", "date like"},
	} {
		res, body := b.post("/instruments", url.Values{"name": {c.name}, "kind": {c.kind}, "resolution": {c.res},
			"due_on": {c.due}})
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, c.says)
		assert.Contains(t, body, c.says)
		assert.Contains(t, body, `value="`+c.res+`"`, "nothing typed is lost")
	}
	gauge := url.Values{"name": {"gauge 7"}, "kind": {"gauge"}, "resolution": {"1 bar"}}
	for _, c := range []struct{ class, full, says string }{
		{"1.6", "", "go together"}, {"", "400 bar", "go together"}, {"coarse", "400 bar", "percent of full scale"},
		{"1.6", "400 mm", "bar"}, {"1.6", "0.5 bar", "less than its resolution"},
	} {
		gauge["class"], gauge["full_scale"] = []string{c.class}, []string{c.full}
		res, body := b.post("/instruments", gauge)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, c.says)
		assert.Contains(t, body, c.says)
	}
	gauge["class"], gauge["full_scale"] = []string{"1.6"}, []string{"400 bar"}
	res, _ := b.post("/instruments", gauge)
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	res, _ = b.post("/instruments", url.Values{"name": {"calipers 9"}, "kind": {"calipers"},
		"resolution": {"0.01 mm"}, "due_on": {"2020-01-01"}})
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page := b.get("/instruments")
	assert.Contains(t, page, "calipers 9")
	assert.Contains(t, page, "class 1.6 of 400 bar")
	assert.Contains(t, page, "overdue")
}

// A calibration that finds a tool out names what was read with it since it held; one that is lost is offered nowhere.
func TestAToolThatIsOutOrLost(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	_, page := b.get("/instruments")
	id := regexp.MustCompile(`/instruments/(\d+)">bore gauge<`).FindStringSubmatch(page)
	require.NotNil(t, id)
	at := "/instruments/" + id[1]
	today := unit.DateOf(s.server.Jobs.Now())
	for _, c := range []struct{ on, due, result, says string }{
		{"", "", "held", "is a day like"}, {string(today.Add(1)), "", "held", "not after today"},
		{string(today), string(today), "held", "after the calibration"},
		{string(today), "", "", "say how it was found"},
	} {
		res, page := b.post(
			at+"/calibrated",
			url.Values{"on": {c.on}, "due_on": {c.due}, "result": {c.result}, "note": {"K 7"}},
		)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, c.says)
		assert.Contains(t, page, c.says)
		assert.Contains(t, page, `value="K 7"`)
	}
	form := url.Values{"on": {string(today.Add(-400))}, "result": {"held"}, "note": {"K 7"}}
	b.post(at+"/calibrated", form)
	j := b.state("T-0412", 1).Job
	res, body := b.set(
		"T-0412",
		"u1/part/tube/feature/bore/instrument",
		"Bore gauge",
		j.Units[0].Part("tube").Features[0].Instrument,
	)
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	form = url.Values{"on": {string(today)}, "due_on": {string(today.Add(365))}, "result": {"out"}}
	b.post(at+"/calibrated", form)
	_, page = b.get(at)
	assert.Contains(t, page, "since it held on "+string(today.Add(-400)))
	assert.Contains(t, page, `href="/jobs/T-0412"`)
	assert.NotContains(t, page, `href="/jobs/T-0421"`)

	_, page = b.get("/jobs/T-0412/measure?part=tube&feature=bore")
	require.Contains(t, page, `data-value="bore gauge"`)
	b.post(at+"/lost", url.Values{})
	_, page = b.get("/instruments")
	assert.Contains(t, page, "lost since")
	_, page = b.get("/jobs/T-0412/measure?part=tube&feature=bore")
	assert.NotContains(t, page, `data-value="bore gauge"`, "it is offered nowhere")
	b.post(at+"/found", url.Values{})
	_, page = b.get(at)
	assert.NotContains(t, page, "LOST")
}
