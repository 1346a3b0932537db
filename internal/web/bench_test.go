package web

import (
	"archive/zip"
	"context"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"net/url"
	"regexp"
	"slices"
	"strings"
	"testing"

	"corvek/core/hidden"
	"corvek/core/unit"
	"corvek/demo/demotest"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"
)

// serveBench is the demo with a bench of practice beside it.
func serveBench(t testing.TB) (*served, *job.Service) {
	t.Helper()
	jobs := demotest.Jobs(t)
	bench, err := job.Practice(storetest.New(t), jobs)
	require.NoError(t, err)
	app, server, err := New(Config{Jobs: jobs, Bench: bench, Demo: true, HashCost: bcrypt.MinCost})
	require.NoError(t, err)
	s := &served{httptest.NewServer(app), server, t}
	t.Cleanup(s.Close)
	return s, bench
}

// begin puts a case on somebody's bench and gives its tag.
func (b *browser) begin(family, kind string) string {
	b.site.t.Helper()
	res, body := b.post("/practice/cases", url.Values{"family": {family}, "kind": {kind},
		"once": {"one form"}})
	require.Equal(b.site.t, http.StatusSeeOther, res.StatusCode, body)
	tag := strings.Split(res.Header.Get("Location"), "/")[2]
	require.True(b.site.t, strings.HasPrefix(tag, "P-"), tag)
	return tag
}

// A made-up unit is worked on with the pages of any other, says that it is practice on each of them, and is nobody
// else's. What is looked at is answered and costs its time; what is to be done is done.
func TestAUnitOfPracticeIsWorkedOnLikeAnyOther(t *testing.T) {
	t.Parallel()
	s, _ := serveBench(t)
	iva, bo := s.as("iva"), s.as("odd")
	tag := iva.begin("external_gear_pump", hidden.Own)
	for _, station := range unit.Stations {
		res, body := iva.get("/jobs/" + tag + "/" + station)
		require.Equal(t, http.StatusOK, res.StatusCode, station)
		assert.Contains(t, body, `class="prac-stamp">PRACTICE`, station)
		res, _ = bo.get("/jobs/" + tag + "/" + station)
		assert.Equal(t, http.StatusNotFound, res.StatusCode, "another's: %s", station)
	}
	look := func(field string) string {
		res, body := iva.post("/jobs/"+tag+"/look", url.Values{"field": {field}})
		require.Equal(t, http.StatusOK, res.StatusCode, body)
		return body
	}
	assert.Contains(t, look("u1/gauge/inlet"), "card")
	assert.Contains(t, look("u1/part/rear_plate/off"), `"act":true`)
	res, body := iva.post("/jobs/"+tag+"/look", url.Values{"field": {"u1/part/rear_plate/facing"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "take it off first")
	res, body = bo.post("/jobs/"+tag+"/look", url.Values{"field": {"u1/gauge/inlet"}})
	assert.Equal(t, http.StatusNotFound, res.StatusCode, body)
	for _, paper := range []string{"report", "certificate", "quote", "build-sheet", "parts-list", "dispute"} {
		_, body = iva.get("/jobs/" + tag + "/" + paper)
		assert.Contains(t, body, ">PRACTICE<", "%s: at its head", paper)
		assert.Contains(t, body, "PRACTICE: a made-up unit", "%s: at the foot of each sheet", paper)
	}
	_, body = iva.get("/practice")
	assert.Contains(t, body, tag)
	_, body = bo.get("/practice")
	assert.NotContains(t, body, tag)
}

// own are the words of a page that are of its tag or its request alone: what is worked out of the tag too, the code
// that opens it and the fingerprint of the record.
var own = regexp.MustCompile(`P-\d{4}|name="once" value="[^"]*"|data-sum="[^"]*"|class="code-d" d="[^"]*"|` +
	`[0-9a-f]{64}|"at": "[^"]*"|datetime="[^"]*"`)

// unpacked is the text of a job's document, where that was sent in an archive; else what was sent.
func unpacked(t *testing.T, sent string) string {
	t.Helper()
	z, err := zip.NewReader(strings.NewReader(sent), int64(len(sent)))
	if err != nil {
		return sent
	}
	f, err := z.Open("job.json")
	require.NoError(t, err)
	text, err := io.ReadAll(f)
	require.NoError(t, err)
	return string(text)
}

// Two cases that were complained of alike and differ in nothing but what is truly wrong cannot be told apart by
// anything that is sent before somebody looks.
func TestNothingGivesTheTruthAway(t *testing.T) {
	t.Parallel()
	s, bench := serveBench(t)
	ctx := context.Background()
	b := s.as("iva")
	iva, err := s.server.Store.PersonBySignIn(ctx, "iva")
	require.NoError(t, err)
	who := people.Actor{ID: iva.ID, Name: iva.Name, Role: iva.Role}
	known, err := bench.Known(ctx, "Practice")
	require.NoError(t, err)
	shop := &hidden.Shop{Catalog: known.Catalog, Knowledge: bench.Knowledge, Entry: known.Entry,
		Day: unit.DateOf(bench.Now())}
	seeds := map[string]*hidden.Case{}
	var pair []*hidden.Case
	for seed := uint64(1); len(pair) == 0 && seed < 200; seed++ {
		c, err := hidden.Draw(shop, "external_gear_pump", hidden.Own, seed)
		require.NoError(t, err)
		if other := seeds[c.Complaint()]; other != nil && !slices.Equal(other.Causes, c.Causes) {
			pair = []*hidden.Case{other, c}
		}
		seeds[c.Complaint()] = c
	}
	require.Len(t, pair, 2)
	var tags []string
	for _, c := range pair {
		tag, err := s.server.bench.book.Begin(ctx, who, "external_gear_pump", hidden.Own, c.Seed)
		require.NoError(t, err)
		tags = append(tags, tag)
	}
	addresses := slices.Clone(unit.Stations)
	for _, r := range s.server.bench.routes {
		path, of := strings.CutPrefix(r.Path, "/jobs/:tag/")
		live := strings.HasSuffix(path, "/live") || path == "changes" || strings.HasSuffix(path, ".pdf")
		if of && r.Method == http.MethodGet && !strings.Contains(path, ":") && !live {
			addresses = append(addresses, path)
		}
	}
	require.Greater(t, len(addresses), 30)
	for _, path := range addresses {
		var sent []string
		for _, tag := range tags {
			res, body := b.get("/jobs/" + tag + "/" + path)
			require.Less(t, res.StatusCode, 500, path)
			body = unpacked(t, body)
			sent = append(sent, fmt.Sprint(res.StatusCode)+own.ReplaceAllString(body, ""))
		}
		assert.Equal(t, sent[0], sent[1], path)
	}
	_, body := b.get("/jobs/" + strings.Replace(tags[0], "P-", "H-", 1) + "/receive")
	assert.NotContains(t, body, "as it is")
}

// A lead sets a case for everybody: each gets it on his own bench, once; what is wrong with the form is told at it, and
// nobody else sets one.
func TestALeadSetsACaseForEverybody(t *testing.T) {
	t.Parallel()
	s, _ := serveBench(t)
	iva, odd := s.as("iva"), s.as("odd")
	form := url.Values{"family": {"check_valve"}, "kind": {hidden.Own}, "words": {"it will not hold"}}
	res, _ := iva.post("/practice/set", form)
	assert.Equal(t, http.StatusForbidden, res.StatusCode)
	res, page := odd.post("/practice/set", url.Values{"tag": {"T-9999"}, "words": {"it will not hold"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, page, "no job has this tag")
	assert.Contains(t, page, `value="it will not hold"`)
	res, page = odd.post("/practice/set", form)
	require.Equal(t, http.StatusSeeOther, res.StatusCode, page)
	_, page = iva.get("/practice")
	assert.Contains(t, page, "For everybody: it will not hold")
	var at []string
	for _, b := range []*browser{iva, iva, odd} {
		res, _ := b.post("/practice/week", url.Values{})
		require.Equal(t, http.StatusSeeOther, res.StatusCode)
		at = append(at, res.Header.Get("Location"))
	}
	assert.Equal(t, at[0], at[1], "it lies there already")
	assert.NotEqual(t, at[0], at[2])
}

// A unit of practice that is exported does not come into the shop as a job.
func TestAUnitOfPracticeStaysThere(t *testing.T) {
	t.Parallel()
	s, _ := serveBench(t)
	odd := s.as("odd")
	tag := odd.begin("check_valve", hidden.Own)
	res, sent := odd.get("/jobs/" + tag + "/export")
	require.Equal(t, http.StatusOK, res.StatusCode)
	res, body := odd.sendForm("/import", map[string]string{"csrf": odd.csrf},
		&file{"file", "job.zip", []byte(sent)})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, body)
	assert.Contains(t, body, "it stays there")
}
