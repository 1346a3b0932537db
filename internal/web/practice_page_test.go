package web

import (
	"net/http"
	"net/url"
	"strconv"
	"testing"

	"corvek/core/practice"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// An instrument is drawn, read, judged and helped with; what is no figure is told at its field, and nothing typed is
// lost. Nothing of it is written anywhere.
func TestInstrumentsAreReadForPractice(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("tove") // who may only look practises too
	_, page := b.get("/practice")
	for _, k := range practice.Kinds() {
		assert.Contains(t, page, "/practice/reading/"+k.Code)
		path := "/practice/reading/" + k.Code
		e := practice.New(k, true, 77)
		_, page := b.get(path + "?seed=77&inch=yes")
		assert.Contains(t, page, "PRACTICE")
		assert.Contains(t, page, `class="instrument"`)
		assert.NotContains(t, page, "With help")
		for _, words := range e.Aloud() {
			assert.NotContains(t, page, words, "only where it is asked for")
		}
		_, page = b.get(path + "?seed=77&inch=yes&help=1")
		assert.Contains(t, page, "With help")
		form := url.Values{"seed": {"77"}, "inch": {"yes"}}
		for i, ask := range e.Asks {
			form.Set("answer"+strconv.Itoa(i), strconv.FormatFloat(ask.Want, 'f', 6, 64))
		}
		res, page := b.post(path, form)
		require.Equal(t, http.StatusOK, res.StatusCode)
		assert.Contains(t, page, "Right.")
		assert.NotContains(t, page, "No.")
		form.Set("answer0", "about so")
		res, page = b.post(path, form)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
		assert.Contains(t, page, `value="about so"`)
	}
	form := url.Values{"seed": {"77"}, "answer0": {"2.5 mm"}}
	_, page = b.post("/practice/reading/vernier_caliper", form)
	assert.Contains(t, page, "No.")
	assert.Contains(t, page, "Next one")
	res, _ := b.get("/practice/reading/crystal_ball")
	assert.Equal(t, http.StatusNotFound, res.StatusCode)
}

// A drill is asked, judged, and told why; where nothing is chosen that is said at the question.
func TestDrillsAreAnswered(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	_, page := b.get("/practice")
	for _, d := range practice.Drills() {
		assert.Contains(t, page, "/practice/drill/"+d.Code)
		path := "/practice/drill/" + d.Code
		task := practice.NewTask(d, false, 5, s.server.Jobs.Families())
		_, page := b.get(path + "?seed=5&inch=")
		assert.Contains(t, page, "PRACTICE")
		form := url.Values{"seed": {"5"}}
		res, page := b.post(path, form)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
		assert.Contains(t, page, `role="alert"`)
		for i, ask := range task.Asks {
			value := strconv.FormatFloat(ask.Want, 'f', 6, 64)
			for k, o := range ask.Options {
				if o.Right {
					value = strconv.Itoa(k)
				}
			}
			form.Set("answer"+strconv.Itoa(i), value)
		}
		_, page = b.post(path, form)
		assert.Contains(t, page, "Right.")
		assert.NotContains(t, page, "No.")
		assert.Contains(t, page, "Next one")
	}
	res, _ := b.get("/practice/drill/guess")
	assert.Equal(t, http.StatusNotFound, res.StatusCode)
}
