package web

import (
	"corvek/internal/store"
	"net/http"
	"net/url"
	"regexp"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// together sends one form ten times at once and gives what was answered.
func together(b *browser, path string, form url.Values) []*http.Response {
	form.Set("csrf", b.csrf)
	var mu sync.Mutex
	var out []*http.Response
	var wg sync.WaitGroup
	for range 10 {
		wg.Go(func() {
			req, _ := http.NewRequest(http.MethodPost, b.site.URL+path, strings.NewReader(form.Encode()))
			req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
			res, err := b.Do(req)
			if err != nil {
				b.site.t.Error(err)
				return
			}
			_ = res.Body.Close()
			mu.Lock()
			defer mu.Unlock()
			out = append(out, res)
		})
	}
	wg.Wait()
	return out
}

// A form that is sent ten times at once does its work once, and every answer looks
// as if it had been the one.
func TestAFormSentTwiceDoesItsWorkOnce(t *testing.T) {
	s := serve(t)
	b := s.as("odd")
	ctx := t.Context()
	account := url.Values{"once": {"A1"}, "unit": {"1"}, "teller": {"fitter"}, "words": {"it screamed"}}
	before, err := s.server.Store.Job(ctx, "T-0412")
	require.NoError(t, err)
	for _, res := range together(b, "/jobs/T-0412/receive/account?unit=1", account) {
		assert.Less(t, res.StatusCode, 400)
	}
	after, err := s.server.Store.Job(ctx, "T-0412")
	require.NoError(t, err)
	assert.Len(t, after.Units[0].Accounts, len(before.Units[0].Accounts)+1)

	fresh := url.Values{
		"once":     {"B1"},
		"customer": {"Quay Works"},
		"title":    {"Winch"},
		"family":   {"winch_brake_pack"},
	}
	places := map[string]int{}
	for _, res := range together(b, "/jobs", fresh) {
		require.Equal(t, http.StatusSeeOther, res.StatusCode)
		places[strings.TrimSuffix(res.Header.Get("Location"), "/receive")]++
	}
	assert.Len(t, places, 1, "all lead to the one job")
	cards, err := s.server.Store.InHand(ctx, store.Sought{Find: "quay works"}, 100, "", 100)
	require.NoError(t, err)
	n := 0
	for _, g := range cards {
		n += g.Total
	}
	assert.Equal(t, 1, n)

	person := url.Values{"once": {"C1"}, "name": {"Nia Holt"}, "sign_in": {"nia"}, "role": {"viewer"},
		"password": {"long enough"}}
	for _, res := range together(b, "/shop/people", person) {
		assert.Equal(t, http.StatusSeeOther, res.StatusCode, "nobody is told that the name is taken")
	}
}

// What was refused did not use the token up: put right, the same form is taken.
func TestARefusedFormMayBeSentAgain(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	form := url.Values{"once": {"D1"}, "customer": {""}, "title": {"Winch"}, "family": {"winch_brake_pack"}}
	res, _ := b.plainPost("/jobs", form)
	require.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	form.Set("customer", "Quay Works")
	res, _ = b.plainPost("/jobs", form)
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	form.Set("once", strings.Repeat("x", 65))
	res, _ = b.plainPost("/jobs", form)
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
}

// Every form of every page carries its session's token and one of its own, which is
// another each time.
func TestFormsCarryTheirTokens(t *testing.T) {
	t.Parallel()
	b := serve(t).as("odd")
	own := regexp.MustCompile(`name="once" value="([A-Z2-7]{26})"`)
	seen := map[string]bool{}
	for range 2 {
		for _, path := range []string{"/jobs/new", "/jobs/T-0417/strip", "/jobs/T-0417/prove", "/instruments",
			"/shop"} {
			_, page := b.get(path)
			found := own.FindAllStringSubmatch(page, -1)
			assert.Len(t, found, strings.Count(page, `method="post"`), path)
			for _, m := range found {
				assert.False(t, seen[m[1]], "%s: a token stands twice", path)
				seen[m[1]] = true
			}
		}
	}
}
