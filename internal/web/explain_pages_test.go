package web

import (
	"cmp"
	"context"
	"fmt"
	"html"
	"net/http"
	"net/url"
	"regexp"
	"slices"
	"strings"
	"testing"

	"corvek/core/explain"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// plain is what a page says, without its marks.
// The line that offers to take the last act back says nothing of the unit.
func plain(page string) string {
	page = regexp.MustCompile(`(?s)<form [^>]*id="undo".*?</form>`).ReplaceAllString(page, " ")
	text := regexp.MustCompile(`<[^>]+>`).ReplaceAllString(page, " ")
	return strings.Join(strings.Fields(html.UnescapeString(text)), " ")
}

// The page says what the engine found, in its order, and the reader's own theory
// stands among the causes however little bears it.
func TestExplainShowsTheRankingAndTheTheory(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	st := b.state("T-0405", 1)
	ranking := st.Explained().Ranking
	require.Greater(t, len(ranking), 6)
	_, page := b.get("/jobs/T-0405/explain")
	text, at := plain(page), -1
	shown := slices.Clone(ranking)
	slices.SortStableFunc(shown, func(a, b explain.Ranked) int { return cmp.Compare(b.Alone, a.Alone) })
	for _, r := range shown[:4] {
		i := strings.Index(text, fmt.Sprintf("%.0f %% %s", 100*r.Alone, r.Cause.Name))
		require.NotEqual(t, -1, i, "%s is not on the page", r.Cause.Name)
		assert.Greater(t, i, at, "%s out of order", r.Cause.Name)
		at = i
	}

	_, page = b.get("/jobs/T-0405/explain?face=matrix")
	for _, r := range ranking[:5] {
		assert.Contains(t, page, html.EscapeString(r.Cause.Name))
	}
	least := ranking[len(ranking)-1]
	_, page = b.get("/jobs/T-0405/explain?face=matrix&theory=" + least.Cause.Code)
	assert.Contains(t, plain(page), "the marks do not support it")
	res, page := b.get("/jobs/T-0405/explain?theory=no_such_cause")
	assert.Equal(t, http.StatusOK, res.StatusCode)
	assert.NotContains(t, plain(page), "the marks do not support it")
}

// Both stories stand side by side with the fact that decides between them.
func TestStoriesSideBySide(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	st := b.state("T-0405", 1)
	stories, decider := st.Stories()
	require.Len(t, stories, 2)
	_, page := b.get("/jobs/T-0405/explain?face=story")
	text := plain(page)
	for _, story := range stories {
		for _, c := range story.Causes {
			assert.Contains(t, text, c.Name)
		}
	}
	require.NotNil(t, decider)
	assert.Contains(t, text, decider.Text)
}

// A mark that is seen moves the page as it moves the engine, and taking it back
// brings everything back.
func TestMarkMovesThePageAndBack(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	first := func() string {
		r := slices.MaxFunc(b.state("T-0417", 1).Explained().Ranking, func(a, b explain.Ranked) int {
			return cmp.Compare(a.Alone, b.Alone)
		})
		return fmt.Sprintf("%.0f %% %s", 100*r.Alone, r.Cause.Name)
	}
	before := first()
	field := "u1/evidence/seal_swollen/state"
	res, body := b.set("T-0417", field, "seen", "")
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	after := first()
	assert.NotEqual(t, before, after)
	_, page := b.get("/jobs/T-0417/explain")
	assert.Contains(t, plain(page), after)
	res, body = b.set("T-0417", field, "", "seen")
	require.Equal(t, http.StatusOK, res.StatusCode, body)
	assert.Equal(t, before, first())
}

// The paper for a dispute says what was seen, by whom and when, takes no side,
// and holds the pictures taken before cleaning.
func TestDisputePaperOfDemoJobs(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("odd")
	for _, tag := range []string{"T-0405", "T-0417", "T-0421"} {
		res, page := b.get("/jobs/" + tag + "/dispute")
		require.Equal(t, http.StatusOK, res.StatusCode)
		text := plain(page)
		st, err := s.server.Jobs.Load(context.Background(), tag, 1)
		require.NoError(t, err)
		assert.Contains(t, text, st.Job.Title)
		assert.Contains(t, text, st.Job.Customer.Name)
		for _, word := range []string{"fault of", "blame", "negligen", "abuse", "liable"} {
			assert.NotContains(t, strings.ToLower(text), word, "%s takes a side", tag)
		}
		if st.Cause != nil {
			assert.Contains(t, text, st.Cause.Name)
		}
	}
}

// A shop without a finding is offered no cause, on the page as in the engine.
func TestNothingFoundNothingOffered(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	res, _ := b.post("/jobs", url.Values{"customer": {"Ostrey Fish Meal Works"}, "title": {"a pump on a shelf"},
		"family": {"external_gear_pump"}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode)
	tag := strings.Split(res.Header.Get("Location"), "/")[2]
	assert.Empty(t, b.state(tag, 1).Explained().Ranking)
	_, page := b.get("/jobs/" + tag + "/explain")
	assert.NotContains(t, page, "set as root cause")
}

// A cause that lies in how the unit was handled is not put into the unit, on the
// page or on the paper.
func TestCauseInHandlingIsToldSo(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	for _, tag := range []string{"T-0417", "T-0405", "T-0412", "T-0421", "T-0426"} {
		st := b.state(tag, 1)
		for _, c := range st.Knowledge.Causes {
			if c.Where != "handling" {
				continue
			}
			res, body := b.set(tag, "u1/conclusion/cause", c.Code, st.Conclude.Cause)
			require.Equal(t, http.StatusOK, res.StatusCode, body)
			for _, path := range []string{"/explain", "/report"} {
				_, page := b.get("/jobs/" + tag + path)
				page = strings.ReplaceAll(plain(page), " ,", ",")
				assert.Contains(t, page, c.Name+", in handling or operation", path)
			}
			return
		}
	}
	t.Fatal("no demo job has a cause in handling to try")
}
