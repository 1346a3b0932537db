package web

import (
	"fmt"
	"html"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"sync"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// atOnce does something for many benches at the same time.
func atOnce(n int, do func(i int)) {
	var wg sync.WaitGroup
	for i := range n {
		wg.Go(func() { do(i) })
	}
	wg.Wait()
}

// Twenty benches write on one job at once: each into fields of its own loses
// nothing, all into one field are told of each other, and the record holds.
func TestTwentyWritersLoseNothing(t *testing.T) {
	s := serve(t)
	b := s.as("iva")
	j, err := s.server.Store.Job(t.Context(), "T-0417")
	require.NoError(t, err)
	before, err := s.server.Store.Verify(t.Context())
	require.NoError(t, err)
	parts := j.Units[0].Parts[:20]
	const edits = 4
	var refused atomic.Int64
	atOnce(len(parts), func(i int) {
		was := parts[i].Note
		for k := range edits {
			is := fmt.Sprintf("note %d of bench %d", k, i)
			form := url.Values{"field": {"u1/part/" + parts[i].Code + "/note"}, "value": {is}, "base": {was}}
			res, body := b.quiet("/jobs/T-0417/set", form)
			for range 5 { // told that the store is away, the page sends again
				if res == http.StatusServiceUnavailable {
					res, body = b.quiet("/jobs/T-0417/set", form)
				}
			}
			if res != http.StatusOK {
				t.Errorf("%d %s", res, body)
			}
			was = is
		}
		if res, _ := b.quiet("/jobs/T-0417/set", url.Values{"field": {"job/lesson"}, "base": {j.Lesson},
			"value": {fmt.Sprintf("lesson of bench %d", i)}}); res == http.StatusConflict {
			refused.Add(1)
		}
	})
	after, err := s.server.Store.Job(t.Context(), "T-0417")
	require.NoError(t, err)
	for i, p := range parts {
		assert.Equal(t, fmt.Sprintf("note %d of bench %d", edits-1, i), after.Units[0].Part(p.Code).Note)
	}
	assert.Equal(t, int64(len(parts)-1), refused.Load(), "one of those who wrote into one field came first")
	holds, err := s.server.Store.Verify(t.Context())
	require.NoError(t, err)
	assert.Empty(t, holds.Fault())
	assert.Equal(t, before.Lines+len(parts)*edits+1, holds.Lines)
}

// Jobs for a customer whom nobody knew, and tools of one name, opened by many at
// once: one customer, one tool, every job.
func TestNewCustomersAndToolsAtOnce(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	const benches = 20
	tags := sync.Map{}
	atOnce(benches, func(i int) {
		form := url.Values{"customer": {"Skerry Quarry"}, "title": {fmt.Sprintf("Drill motor %d", i)},
			"family": {"gerotor_pump"}, "csrf": {b.csrf}}
		res, err := b.PostForm(s.URL+"/jobs", form)
		if err != nil {
			t.Error(err)
			return
		}
		_ = res.Body.Close()
		if assert.Equal(t, http.StatusSeeOther, res.StatusCode) {
			tags.Store(res.Header.Get("Location"), true)
		}
		res, err = b.PostForm(s.URL+"/instruments", url.Values{"name": {"plug gauge"}, "kind": {"gauge"},
			"resolution": {"0.001 mm"}, "csrf": {b.csrf}})
		if err != nil {
			t.Error(err)
			return
		}
		_ = res.Body.Close()
		assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	})
	n := 0
	tags.Range(func(any, any) bool { n++; return true })
	assert.Equal(t, benches, n, "each job has a tag of its own")
	customers, err := s.server.Store.Customers(t.Context(), "skerry")
	require.NoError(t, err)
	assert.Len(t, customers, 1)
	tools, err := s.server.Store.Instruments(t.Context())
	require.NoError(t, err)
	found := 0
	for _, tool := range tools {
		if tool.Name == "plug gauge" {
			found++
		}
	}
	assert.Equal(t, 1, found)
}

// A method that a route does not know is refused in words, for everybody.
func TestOtherMethodsAreRefused(t *testing.T) {
	t.Parallel()
	s := serve(t)
	browsers := []*browser{s.as(""), s.as("odd")}
	for _, method := range []string{http.MethodPut, http.MethodPatch, http.MethodDelete, http.MethodOptions,
		http.MethodTrace, "PROPFIND", "X"} {
		for _, r := range s.server.routes() {
			path := strings.NewReplacer(":tag", "T-0417", ":station", "strip", ":name", "cylinder", ":id", "1",
				":code", "check_valve", ":number", "1").Replace(r.Path)
			for _, b := range browsers {
				req, err := http.NewRequest(method, s.URL+path, strings.NewReader("csrf="+b.csrf))
				require.NoError(t, err)
				req.Header.Set("X-CSRF-Token", b.csrf)
				res, _ := b.send(req)
				assert.Contains(t, []int{http.StatusUnauthorized, http.StatusForbidden, http.StatusNotFound,
					http.StatusMethodNotAllowed, http.StatusNoContent}, res.StatusCode, "%s %s", method, path)
			}
		}
	}
}

// quiet posts as a script does and gives the status, 0 where nobody answered.
func (b *browser) quiet(path string, form url.Values) (int, string) {
	sent := url.Values{"csrf": {b.csrf}}
	for k, v := range form {
		sent[k] = v
	}
	req, err := http.NewRequest(http.MethodPost, b.site.URL+path, strings.NewReader(sent.Encode()))
	if err != nil {
		return 0, err.Error()
	}
	req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	req.Header.Set("X-Requested-With", "corvek")
	res, err := b.Do(req)
	if err != nil {
		return 0, err.Error()
	}
	defer res.Body.Close()
	body := make([]byte, 200)
	n, _ := res.Body.Read(body)
	return res.StatusCode, string(body[:n])
}

// An address of one job that is sent to another never reaches the first: it is
// refused there, or means the other's own.
func TestAnotherJobsAddressesReachNothing(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("odd")
	field := regexp.MustCompile(`data-(?:field|set)="([^"]+)"`)
	mine, other := "T-0417", "T-0412"
	before, err := s.server.Store.Job(t.Context(), mine)
	require.NoError(t, err)
	sent := map[string]bool{}
	for _, station := range []string{"receive", "strip", "measure", "explain", "decide", "build", "prove"} {
		_, page := b.get("/jobs/" + mine + "/" + station)
		for _, m := range field.FindAllStringSubmatch(page, -1) {
			sent[html.UnescapeString(m[1])] = true
		}
	}
	require.Greater(t, len(sent), 60)
	refused := 0
	for address := range sent {
		status, body := b.quiet("/jobs/"+other+"/set", url.Values{"field": {address}, "value": {"7"}, "base": {"§"}})
		assert.Contains(t, []int{http.StatusOK, http.StatusNotFound, http.StatusConflict,
			http.StatusUnprocessableEntity}, status, "%s: %s", address, body)
		if status != http.StatusOK {
			refused++
		}
	}
	assert.Greater(t, refused, len(sent)/2)
	for _, path := range []string{"/pictures/77/file", "/pictures/77", "/papers/1/report.pdf", "/papers/0/job.json",
		"/papers/x/job.json", "/papers/1/..%2f..%2fsecret"} {
		res, _ := b.get("/jobs/" + other + path)
		assert.Equal(t, http.StatusNotFound, res.StatusCode, path)
	}
	after, err := s.server.Store.Job(t.Context(), mine)
	require.NoError(t, err)
	assert.Equal(t, before.Version, after.Version)
}
