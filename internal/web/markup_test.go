package web

import (
	"context"
	"net/http"
	"strings"
	"testing"

	"corvek/core/entry"
	"corvek/core/unit"
	"corvek/demo"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/net/html"
)

// element is a tag of a page with its attributes.
type element struct {
	tag  string
	attr map[string]string
}

func (e element) has(name string) bool { _, ok := e.attr[name]; return ok }

// elements lists the tags of a page as they come.
func elements(t *testing.T, page string) []element {
	t.Helper()
	var out []element
	for z := html.NewTokenizer(strings.NewReader(page)); ; {
		switch z.Next() {
		case html.ErrorToken:
			return out
		case html.StartTagToken, html.SelfClosingTagToken:
			token := z.Token()
			e := element{token.Data, map[string]string{}}
			for _, a := range token.Attr {
				_, twice := e.attr[a.Key]
				assert.False(t, twice, "<%s> has %s twice", e.tag, a.Key)
				e.attr[a.Key] = a.Val
			}
			out = append(out, e)
		}
	}
}

// pagesOf gives every station of every unit of every job of the demo, and some
// of its parts.
func pagesOf(t *testing.T, b *browser) (tags []string, pages map[string][]string) {
	t.Helper()
	docs, err := demo.Documents()
	require.NoError(t, err)
	pages = map[string][]string{}
	for _, d := range docs {
		tag := d.Tag()
		tags = append(tags, tag)
		st := b.state(tag, 1)
		for _, station := range unit.Stations {
			path := "/jobs/" + tag + "/" + station
			pages[tag] = append(pages[tag], path)
			if station == "strip" || station == "measure" || station == "build" {
				for i := 0; i < len(st.Parts); i += 4 {
					pages[tag] = append(pages[tag], path+"?part="+st.Parts[i].Code)
				}
			}
		}
		if len(st.Job.Units) > 1 {
			pages[tag] = append(pages[tag], "/jobs/"+tag+"/receive?unit=2")
		}
	}
	return tags, pages
}

// What a page lets be written is an address of the table of fields, and says
// what stands there now: a save over it would else be refused as stale.
func TestEveryFieldOnEveryPageSaysWhatStandsThere(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("odd")
	shop, err := s.server.Jobs.Shop(context.Background(), "Odd")
	require.NoError(t, err)
	seen := map[unit.Scope]int{}
	tags, pages := pagesOf(t, b)
	for _, tag := range tags {
		j := b.state(tag, 1).Job
		for _, path := range pages[tag] {
			res, page := b.get(path)
			require.Equal(t, http.StatusOK, res.StatusCode, path)
			for _, e := range elements(t, page) {
				address := e.attr["data-field"] + e.attr["data-set"]
				if address == "" {
					continue
				}
				ref, err := unit.ParseRef(address)
				if !assert.NoError(t, err, "%s: %s", path, address) {
					continue
				}
				place, f, err := entry.Resolve(j, ref, shop)
				if !assert.NoError(t, err, "%s: %s", path, address) {
					continue
				}
				seen[ref.Scope]++
				// A timer asks how long from now, whatever stands there.
				if e.has("data-base") && f.Kind != entry.Timer {
					assert.Equal(t, f.Get(place), e.attr["data-base"], "%s: %s", path, address)
				}
			}
		}
	}
	for _, scope := range []unit.Scope{unit.ScopeJob, unit.ScopeUnit, unit.ScopePart, unit.ScopeFeature,
		unit.ScopeReading, unit.ScopeEvidence, unit.ScopeConclusion, unit.ScopeDecision, unit.ScopePiece,
		unit.ScopeStep, unit.ScopePoint} {
		assert.NotZero(t, seen[scope], "no page writes anything of %s", scope)
	}
}

// A page's parts are tied: ids stand once, labels and descriptions lead to
// something, every picture says what it shows, and every form carries its token.
func TestEveryPageIsTied(t *testing.T) {
	t.Parallel()
	b := serve(t).as("odd")
	tags, pages := pagesOf(t, b)
	paths := []string{"/jobs", "/jobs/new", "/toolbox", "/toolbox/shims", "/library", "/library/vane_pump",
		"/library/sheets", "/library/sheets/1", "/jobs/T-0412/sheet", "/jobs/T-0388/sheet",
		"/instruments", "/stands", "/shop", "/shop/store", "/shop/people/1", "/me", "/change"}
	for _, tag := range tags {
		paths = append(paths, pages[tag]...)
	}
	for _, path := range paths {
		res, page := b.get(path)
		require.Equal(t, http.StatusOK, res.StatusCode, path)
		ids, headings, forms, tokens := map[string]int{}, 0, 0, 0
		all := elements(t, page)
		for _, e := range all {
			if id := e.attr["id"]; id != "" {
				ids[id]++
				assert.Equal(t, 1, ids[id], "%s: id %q stands twice", path, id)
			}
			switch {
			case e.tag == "h1":
				headings++
			case e.tag == "form" && e.attr["method"] == "post":
				forms++
			case e.tag == "input" && e.attr["name"] == "csrf":
				tokens++
				assert.NotEmpty(t, e.attr["value"], path)
			case e.tag == "img":
				assert.True(t, e.has("alt"), "%s: a picture says nothing", path)
			}
		}
		assert.Equal(t, 1, headings, "%s: headings of the first order", path)
		assert.Equal(t, forms, tokens, "%s: a form has no token", path)
		for _, e := range all {
			for _, tie := range []string{"for", "aria-describedby", "aria-labelledby", "aria-controls", "list"} {
				for _, id := range strings.Fields(e.attr[tie]) {
					assert.NotZero(t, ids[id], "%s: <%s %s=%q> leads nowhere", path, e.tag, tie, id)
				}
			}
		}
	}
}
