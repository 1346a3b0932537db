package web

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"corvek/core/hidden"
	"corvek/internal/job"
	"corvek/internal/people"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// names works a unit of practice until somebody named it: what is truly wrong with it, or something else.
func (s *served) names(bench *job.Service, signIn string, rightly bool) {
	s.t.Helper()
	ctx, book := context.Background(), s.server.bench.book
	p, err := s.server.Store.PersonBySignIn(ctx, signIn)
	require.NoError(s.t, err)
	who := people.Actor{ID: p.ID, Name: p.Name, Role: p.Role}
	tag, err := book.Begin(ctx, who, "check_valve", hidden.Own, 7)
	require.NoError(s.t, err)
	row, err := book.Case(ctx, who, tag)
	require.NoError(s.t, err)
	cause := row.Causes[0]
	if !rightly {
		cause = "not_found"
	}
	_, err = bench.Set(ctx, who, tag, job.Edit{Field: "u1/conclusion/cause", Value: cause})
	require.NoError(s.t, err)
	require.NoError(s.t, book.Name(ctx, who, tag))
}

// Where a lead asks it of somebody he has no job of his own before he named so many units of practice rightly: he opens
// none, takes none, and is given none. What was named wrongly does not count, and a lead can let him off.
func TestFirstCasesComeBeforeAnOwnJob(t *testing.T) {
	t.Parallel()
	s, bench := serveBench(t)
	iva, odd := s.as("iva"), s.as("odd")
	person := fmt.Sprintf("/shop/people/%d", personOf(t, s, "iva"))
	asks := func(b *browser, n string) (*http.Response, string) {
		return b.plainPost(person, url.Values{"name": {name(s, "iva")}, "role": {"technician"}, "first_cases": {n}})
	}
	res, _ := asks(iva, "0")
	assert.Equal(t, http.StatusForbidden, res.StatusCode, "nobody asks it of himself")
	for _, bad := range []string{"ten", "-1", "51", "2.5"} {
		res, page := asks(odd, bad)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, bad)
		assert.Contains(t, page, "is a whole number up to 50")
		assert.Contains(t, page, `value="`+bad+`"`, "what was typed stays")
	}
	res, page := asks(odd, "2")
	require.Equal(t, http.StatusSeeOther, res.StatusCode, page)

	creates := func() (int, string) {
		res, page := iva.plainPost("/jobs", url.Values{"customer": {"Ostrey"}, "title": {"Spare"},
			"family": {"external_gear_pump"}})
		return res.StatusCode, page
	}
	gives := func(b *browser, form url.Values) (int, string) {
		res, page := b.post("/jobs/T-0417/with", form)
		return res.StatusCode, page
	}
	says := func(n int) {
		t.Helper()
		said := fmt.Sprintf("%d of the 2 units of practice before a first own job", n)
		for path, b := range map[string]*browser{"/jobs/new": iva, "/practice": iva, person: odd} {
			_, page := b.get(path)
			assert.Contains(t, page, said, path)
		}
		status, page := creates()
		assert.Equal(t, http.StatusUnprocessableEntity, status)
		assert.Contains(t, page, said)
		for _, to := range []struct {
			by   *browser
			form url.Values
		}{{odd, url.Values{"to": {name(s, "iva")}}}, {iva, url.Values{"act": {"take"}}}} {
			status, page = gives(to.by, to.form)
			assert.Equal(t, http.StatusUnprocessableEntity, status)
			assert.Contains(t, page, said)
		}
		for _, typed := range []string{name(s, "iva"), " " + name(s, "iva") + " "} {
			res, page := iva.set("T-0417", "job/held_by", typed, "")
			assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, page)
		}
	}
	says(0)
	s.names(bench, "iva", false)
	says(0)
	s.names(bench, "iva", true)
	says(1)
	res, page = iva.set("T-0417", "u1/part/key/note", "clean", "")
	assert.Equal(t, http.StatusOK, res.StatusCode, "she works on what others have: %s", page)
	s.names(bench, "iva", true)
	status, page := creates()
	assert.Equal(t, http.StatusSeeOther, status, page)
	status, page = gives(iva, url.Values{"act": {"take"}})
	assert.Equal(t, http.StatusSeeOther, status, page)

	res, page = asks(odd, "9")
	require.Equal(t, http.StatusSeeOther, res.StatusCode, page)
	status, _ = creates()
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	res, page = asks(odd, "")
	require.Equal(t, http.StatusSeeOther, res.StatusCode, page)
	status, page = creates()
	assert.Equal(t, http.StatusSeeOther, status, page)
	_, page = odd.get("/shop")
	assert.Contains(t, page, "let "+name(s, "iva")+" off what was left")
}

// What somebody tends to is his own: a lead sees it while he shows it, and no other technician ever.
func TestTheOwnRecordIsShownByItsOwner(t *testing.T) {
	t.Parallel()
	s, bench := serveBench(t)
	iva, mirre, odd := s.as("iva"), s.as("mirre"), s.as("odd")
	s.names(bench, "iva", true)
	s.names(bench, "iva", true)
	s.names(bench, "iva", false)
	said := name(s, "iva") + " shows what practice came to"
	sees := func(b *browser) bool {
		_, page := b.get("/practice")
		shown := strings.Contains(page, said)
		assert.Equal(t, shown, strings.Contains(page, "<b>2 of 3</b> named rightly"))
		return shown
	}
	_, page := iva.get("/practice")
	assert.Contains(t, page, "<b>2 of 3</b> named rightly")
	assert.Contains(t, page, "Nobody but you sees")
	assert.False(t, sees(odd))
	for _, show := range []string{"yes", "no", "yes"} {
		res, page := iva.post("/practice/share", url.Values{"show": {show}})
		require.Equal(t, http.StatusSeeOther, res.StatusCode, page)
		assert.Equal(t, show == "yes", sees(odd), show)
		assert.False(t, sees(mirre))
	}
}
