package web

import (
	"net/http"
	"net/url"
	"testing"

	"github.com/stretchr/testify/assert"
)

// Each question of a row is asked, not the first alone; what is missing is said at its field, and nothing is kept.
func TestEachQuestionOfARowIsAsked(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	row := func(more url.Values) (int, string) {
		form := url.Values{"station": {"build"}, "part": {"front_cover"}}
		for name, v := range more {
			form[name] = v
		}
		res, body := b.post("/jobs/T-0417/row", form)
		return res.StatusCode, body
	}
	code, body := row(url.Values{"asks": {"cycled", "turn"}, "cycled": {"yes"}})
	assert.Equal(t, http.StatusUnprocessableEntity, code)
	assert.Contains(t, body, `"turn"`)
	assert.Contains(t, body, "say how it goes by hand")
	st, err := s.jobs().Load(t.Context(), "T-0417", 1)
	assert.NoError(t, err)
	assert.False(t, st.ByCode["front_cover"].Step.Done)
	code, body = row(url.Values{"asks": {"turn"}, "turn": {"stiff"}, "turn_rounds": {"yes"}})
	assert.Equal(t, http.StatusUnprocessableEntity, code)
	assert.Contains(t, body, "say at which round")
	code, body = row(url.Values{"asks": {"turn"}, "turn": {"free"}, "turn_rounds": {"yes"}})
	assert.Equal(t, http.StatusOK, code, body)
}
