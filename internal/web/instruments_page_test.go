package web

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestInstrumentsTellWhatIsWrong(t *testing.T) {
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
