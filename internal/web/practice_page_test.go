package web

import (
	"html"
	"net/http"
	"net/url"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"corvek/core/practice"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// An instrument is drawn, read, judged and helped with; what is no figure is told at its field, and nothing typed is
// lost. Nothing of it is written but whether an answer was right.
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

// A lead sees what was tried and nobody in the shop does for sure, without a name; once somebody does it is gone.
func TestALeadSeesWhatNobodyReads(t *testing.T) {
	t.Parallel()
	s := serve(t)
	iva, tove, odd := s.as("iva"), s.as("tove"), s.as("odd")
	kind, known := practice.KindByCode("bore_gauge")
	require.True(t, known)
	want := practice.New(kind, false, 5).Asks[0].Want
	answer := func(b *browser, v float64) {
		res, _ := b.post("/practice/reading/bore_gauge", url.Values{"seed": {"5"},
			"answer0": {strconv.FormatFloat(v, 'f', 6, 64)}})
		require.Equal(t, http.StatusOK, res.StatusCode)
	}
	told := func(b *browser) bool {
		_, page := b.get("/practice")
		return strings.Contains(page, "nobody in the shop does it for sure")
	}
	assert.False(t, told(odd), "nobody tried")
	answer(iva, want+0.5)
	answer(iva, want)
	assert.True(t, told(odd), "twice is not for sure")
	assert.False(t, told(iva), "for a lead alone")
	for range 3 {
		answer(tove, want)
	}
	assert.False(t, told(odd))
}

// Each lesson is read, has its caution, something to try and the way on; all of them are one paper.
func TestTheCourseIsRead(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("tove")
	_, index := b.get("/practice")
	_, paper := b.get("/practice/course")
	assert.Contains(t, paper, `class="instrument"`, "what is read is drawn")
	for _, l := range practice.Course() {
		assert.Contains(t, index, "/practice/lesson/"+l.Code)
		res, page := b.get("/practice/lesson/" + l.Code)
		require.Equal(t, http.StatusOK, res.StatusCode)
		page, paper := html.UnescapeString(page), html.UnescapeString(paper)
		for _, words := range append(l.Says, l.Caution) {
			assert.Contains(t, page, words)
			assert.Contains(t, paper, words)
		}
		try := regexp.MustCompile(`href="(/practice/(?:drill|reading)/[a-z_]+)"`).FindStringSubmatch(page)
		require.NotNil(t, try, l.Code)
		res, _ = b.get(try[1])
		assert.Equal(t, http.StatusOK, res.StatusCode)
	}
	res, pdf := b.get("/practice/course.pdf")
	assert.Equal(t, http.StatusOK, res.StatusCode)
	assert.True(t, strings.HasPrefix(pdf, "%PDF"))
	res, _ = b.get("/practice/lesson/eleven")
	assert.Equal(t, http.StatusNotFound, res.StatusCode)
}
