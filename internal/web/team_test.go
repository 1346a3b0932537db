package web

import (
	"bufio"
	"encoding/json"
	"net/http"
	"net/url"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// hearing is what a page hears.
type hearing struct {
	t   *testing.T
	res *http.Response
	in  *bufio.Scanner
}

func (b *browser) listens(t *testing.T, path string) *hearing {
	t.Helper()
	res, err := b.Get(b.site.URL + path)
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, res.StatusCode)
	return &hearing{t, res, bufio.NewScanner(res.Body)}
}

// others waits until the line says of others what is wanted.
func (l *hearing) others(want string) {
	l.t.Helper()
	isOthers := false
	for l.in.Scan() {
		if isOthers {
			var words string
			require.NoError(l.t, json.Unmarshal([]byte(strings.TrimPrefix(l.in.Text(), "data: ")), &words))
			if words == want {
				return
			}
		}
		isOthers = l.in.Text() == "event: others"
	}
	l.t.Fatalf("%q was never said: %v", want, l.in.Err())
}

// Who has a page of a job open at another bench is told to the others of the job and to the board, until he
// goes; nobody is told of himself.
func TestWhoIsAtAnotherBenchIsTold(t *testing.T) {
	t.Parallel()
	s := serve(t)
	iva, mirre := s.as("iva"), s.as("mirre")
	here := iva.listens(t, "/jobs/T-0412/changes?at=measure&unit=1")
	defer here.res.Body.Close()
	here.others("")
	there := mirre.listens(t, "/jobs/T-0412/changes?at=build&unit=1")
	there.others("+ " + name(s, "iva") + " at Measure")
	here.others("+ " + name(s, "mirre") + " at Build")
	_, page := iva.get("/jobs")
	assert.Contains(t, page, "open: "+name(s, "iva")+", "+name(s, "mirre"))
	require.NoError(t, there.res.Body.Close())
	here.others("")
}

func name(s *served, signIn string) string {
	p, err := s.server.Store.PersonBySignIn(s.t.Context(), signIn)
	require.NoError(s.t, err)
	return p.Name
}

// A job goes from one to the next with what is half done: the board and the job say so to him who gets it, until
// he says that he read it. The record keeps the words, and who was quicker is told.
func TestAJobIsHandedOn(t *testing.T) {
	t.Parallel()
	s := serve(t)
	iva, mirre := s.as("iva"), s.as("mirre")
	_, page := iva.get("/jobs/T-0417/with")
	assert.Contains(t, page, "Nobody has it")
	assert.Contains(t, page, "Half done, by what is written")
	assert.Contains(t, page, "parts are off", "what is begun is counted")
	give := func(b *browser, form url.Values) (*http.Response, string) {
		return b.post("/jobs/T-0417/with", form)
	}
	res, body := give(iva, url.Values{"to": {"Nobody Known"}, "half_done": {"cover bolts at stage 1"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "Say who goes on with it")
	assert.Contains(t, body, "cover bolts at stage 1", "what was typed stays")
	res, body = give(iva, url.Values{"to": {name(s, "mirre")}, "half_done": {"cover bolts at stage 1"}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode, body)
	_, page = mirre.get("/jobs?site=all")
	assert.Contains(t, page, "handed to you: cover bolts at stage 1")
	_, page = iva.get("/jobs")
	assert.Contains(t, page, "with "+name(s, "mirre"))
	assert.NotContains(t, page, "handed to you")
	_, page = mirre.get("/jobs/T-0417/measure")
	assert.Contains(t, page, "Handed to you")
	res, body = give(iva, url.Values{"act": {"take"}, "held_base": {""}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "Meanwhile "+name(s, "mirre")+" has it")
	res, body = give(mirre, url.Values{"act": {"take"}, "held_base": {name(s, "mirre")}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode, body)
	_, page = mirre.get("/jobs/T-0417/measure")
	assert.NotContains(t, page, "Handed to you")
	assert.Contains(t, page, "With "+strings.Fields(name(s, "mirre"))[0])
	_, page = iva.get("/jobs/T-0417/record")
	assert.Contains(t, page, "cover bolts at stage 1")
}

// Several shops of one owner: a new job is done where its receiver works, the board shows one shop or all, hands and
// places of another shop do nothing for a job, and a shop with jobs in hand is not taken out.
func TestShopsOfOneOwner(t *testing.T) {
	t.Parallel()
	s := serve(t)
	lead, iva := s.as("odd"), s.as("iva")
	_, page := iva.get("/jobs")
	assert.NotContains(t, page, "All shops", "one shop asks nothing")
	post := func(path string, form url.Values) string {
		t.Helper()
		res, body := lead.post(path, form)
		require.Equal(t, http.StatusSeeOther, res.StatusCode, body)
		return body
	}
	post("/plan/site", url.Values{"called_shop": {"Quay"}})
	post("/plan/site", url.Values{"called_shop": {"Slip"}})
	p, err := s.server.Store.PersonBySignIn(t.Context(), "iva")
	require.NoError(t, err)
	post(
		"/plan/hands",
		url.Values{"person": {strconv.Itoa(int(p.ID))}, "skill": {"bench"}, "hours": {"Mon-Fri 7:00-15:30"},
			"site": {"Slip"}},
	)
	res, body := lead.post("/plan/hands", url.Values{"person": {strconv.Itoa(int(p.ID))}, "site": {"Moon"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "is none of the shops")

	res, body = iva.post("/jobs", url.Values{"customer": {"Skarv Boatyard"}, "title": {"Slip winch pump"},
		"family": {"external_gear_pump"}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode, body)
	tag := strings.Split(res.Header.Get("Location"), "/")[2]
	require.NotEmpty(t, tag)
	j, err := s.server.Store.Job(t.Context(), tag)
	require.NoError(t, err)
	assert.Equal(t, "Slip", j.Site)
	shows := func(b *browser, path string, want bool) {
		t.Helper()
		_, page := b.get(path)
		assert.Equal(t, want, strings.Contains(page, "job-"+tag), path)
	}
	shows(iva, "/jobs", true)
	shows(lead, "/jobs?site=Quay", false)
	shows(lead, "/jobs", false)                // which shop was looked at is kept
	shows(lead, "/jobs?find=slip+winch", true) // what is looked for is found wherever it is
	shows(lead, "/jobs?site=all", true)
	shows(lead, "/jobs?site=Slip", true)
	res, body = iva.set(tag, "job/site", "Moon", "Slip")
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, body)
	res, body = lead.post("/plan/site/drop", url.Values{"site": {"Slip"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "has jobs in hand")
	post("/plan/site/drop", url.Values{"site": {"Quay"}})
	_, page = lead.get("/plan?site=Slip")
	assert.Contains(t, page, ">Iva")
}
