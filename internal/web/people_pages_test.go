package web

import (
	"fmt"
	"html"
	"net"
	"net/http"
	"net/http/httptest"
	"net/url"
	"regexp"
	"strings"
	"testing"
	"time"

	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store/storetest"
	"corvek/internal/web/door"
	"corvek/internal/web/site"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"
)

// plainPost sends a form as a browser without scripts does.
func (b *browser) plainPost(path string, form url.Values) (*http.Response, string) {
	form.Set("csrf", b.csrf)
	req, err := http.NewRequest(http.MethodPost, b.site.URL+path, strings.NewReader(form.Encode()))
	require.NoError(b.site.t, err)
	req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	return b.send(req)
}

// shopAt is the demo whose clock a test holds.
func shopAt(t *testing.T) (*served, *time.Time) {
	s := serve(t)
	now := time.Now()
	s.server.Jobs.Now = func() time.Time { return now }
	return s, &now
}

func personOf(t *testing.T, s *served, signIn string) uint {
	p, err := s.server.Store.PersonBySignIn(t.Context(), signIn)
	require.NoError(t, err)
	return p.ID
}

// Locking somebody, or giving him another role or password, ends what he has open
// with the very next request.
func TestSessionsEndAtOnce(t *testing.T) {
	t.Parallel()
	for name, form := range map[string]struct {
		path string
		form url.Values
	}{
		"lock":     {"/lock", url.Values{"lock": {"yes"}}},
		"role":     {"", url.Values{"name": {"Iva Brask"}, "initials": {"IB"}, "role": {people.RoleViewer}}},
		"password": {"/password", url.Values{"password": {"another one"}}},
	} {
		t.Run(name, func(t *testing.T) {
			s := serve(t)
			iva, odd := s.as("iva"), s.as("odd")
			res, _ := iva.get("/jobs")
			require.Equal(t, http.StatusOK, res.StatusCode)
			res, _ = odd.plainPost(fmt.Sprintf("/shop/people/%d%s", personOf(t, s, "iva"), form.path), form.form)
			require.Equal(t, http.StatusSeeOther, res.StatusCode)
			res, _ = iva.get("/jobs")
			assert.Equal(t, http.StatusSeeOther, res.StatusCode, "sent to the sign-in page")
			res, _ = iva.post("/jobs/T-0417/set", url.Values{"field": {"job/caller"}, "value": {"x"}})
			assert.Equal(t, http.StatusUnauthorized, res.StatusCode)
			res, _ = odd.get("/jobs")
			assert.Equal(t, http.StatusOK, res.StatusCode, "the lead's own goes on")
		})
	}
}

// A form is taken with the token of its own session only, and not from a page of
// another site.
func TestTokenIsBoundToTheSession(t *testing.T) {
	t.Parallel()
	s := serve(t)
	iva, odd := s.as("iva"), s.as("odd")
	require.NotEqual(t, iva.csrf, odd.csrf)
	edit := url.Values{"field": {"job/caller"}, "value": {"x"}, "base": {""}}
	for name, token := range map[string]string{"another's": odd.csrf, "none": "", "invented": "x"} {
		b := *iva
		b.csrf = token
		res, body := b.post("/jobs/T-0417/set", edit)
		assert.Equal(t, http.StatusForbidden, res.StatusCode, name)
		assert.Contains(t, body, "load it again", name)
	}
	req, err := http.NewRequest(http.MethodPost, s.URL+"/sign-in",
		strings.NewReader(url.Values{"sign_in": {"odd"}, "password": {people.DemoPassword}}.Encode()))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	req.Header.Set("Origin", "https://elsewhere.example")
	res, _ := iva.send(req)
	assert.Equal(t, http.StatusForbidden, res.StatusCode, "nobody is signed in from elsewhere")
}

func TestOnlyOwnPathsAreFollowed(t *testing.T) {
	for next, want := range map[string]string{
		"/jobs/T-0417/measure?part=2": "/jobs/T-0417/measure?part=2", "": "/jobs", "//evil.example": "/jobs",
		"https://evil.example": "/jobs", "/\\evil.example": "/jobs", "/\t/evil.example": "/jobs",
		"/jobs\r\nSet-Cookie: a=b": "/jobs", "/ /evil.example": "/jobs", "/\x00": "/jobs", "jobs": "/jobs",
		"/%0a//evil.example": "/%0a//evil.example", "/\u007f": "/jobs", "/" + strings.Repeat("a", 2000): "/jobs",
		"/%zz": "/jobs",
	} {
		assert.Equal(t, want, site.OwnPath(next), "%q", next)
	}
}

// At a shared bench another takes over with his code; what is saved is his from
// then on, and a page that the first one left open writes no more.
func TestQuickChangeOfPerson(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	old := b.csrf
	mirre := fmt.Sprint(personOf(t, s, "mirre"))
	_, page := b.get("/change?next=/jobs/T-0417/receive")
	assert.Contains(t, page, "Mirre Stoll")
	assert.NotContains(t, page, "Tove Aske", "who has no code cannot take over")
	for _, wrong := range []url.Values{{"secret": {""}}, {"secret": {"3905"}}, {"secret": {"3906"}, "person": {mirre}},
		{"secret": {"a badge nobody has"}}} {
		res, _ := b.plainPost("/change", wrong)
		assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, "%v", wrong)
	}
	res, _ := b.plainPost("/change", url.Values{"secret": {"3905"}, "person": {mirre},
		"next": {"/jobs/T-0417/receive"}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode)
	assert.Equal(t, "/jobs/T-0417/receive", res.Header.Get("Location"))

	edit := url.Values{"field": {"job/caller"}, "value": {"the foreman"}, "base": {callerNow(t, s)}}
	res, _ = b.post("/jobs/T-0417/set", edit)
	require.Equal(t, http.StatusForbidden, res.StatusCode, "the old page")
	b.takeToken()
	require.NotEqual(t, old, b.csrf)
	res, _ = b.post("/jobs/T-0417/set", edit)
	require.Equal(t, http.StatusOK, res.StatusCode)
	lines, err := s.server.Store.Record(t.Context(), "T-0417", 1)
	require.NoError(t, err)
	assert.Equal(t, "Mirre Stoll", lines[0].Who)
}

func callerNow(t *testing.T, s *served) string {
	j, err := s.server.Store.Job(t.Context(), "T-0417")
	require.NoError(t, err)
	return j.Caller
}

// A bench that rested takes figures as before, and asks who is there before a
// conclusion, a waiver, a hand-over or a change of people.
func TestARestedBenchAsksWhoIsThere(t *testing.T) {
	s, now := shopAt(t)
	b := s.as("odd")
	conclude := url.Values{"field": {"u1/conclusion/statement"}, "value": {"The plate gave way."}}
	j, err := s.server.Store.Job(t.Context(), "T-0417")
	require.NoError(t, err)
	conclude.Set("base", j.Units[0].Conclusion().Statement)
	*now = now.Add(site.IdleAfter - time.Minute)
	res, body := b.post("/jobs/T-0417/set", conclude)
	require.Equal(t, http.StatusOK, res.StatusCode, body)

	*now = now.Add(site.IdleAfter + time.Minute)
	res, _ = b.post("/jobs/T-0417/hand-over", url.Values{})
	require.Equal(t, http.StatusForbidden, res.StatusCode, "the first act after the rest")
	res, _ = b.post("/jobs/T-0417/set", url.Values{"field": {"job/caller"}, "value": {"y"}, "base": {callerNow(t, s)}})
	assert.Equal(t, http.StatusOK, res.StatusCode, "a figure is no signed act")
	conclude.Set("base", "The plate gave way.")
	conclude.Set("value", "The plate gave way first.")
	for path, form := range map[string]url.Values{
		"/jobs/T-0417/set": conclude, "/jobs/T-0417/hand-over": {}, "/jobs/T-0417/pass": {"unit": {"1"}},
		"/jobs/T-0388/reopen": {"reason": {"seal wept"}}, "/shop/people": {"name": {"Nia"}},
	} {
		res, body := b.post(path, form)
		assert.Equal(t, http.StatusForbidden, res.StatusCode, path)
		assert.Contains(t, body, `"confirm":true`, path)
	}
	res, body = b.post("/confirm", url.Values{"still_me": {"0000"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "neither your code nor your password")
	res, _ = b.post("/confirm", url.Values{"still_me": {"4417"}})
	require.Equal(t, http.StatusOK, res.StatusCode)
	res, body = b.post("/jobs/T-0417/set", conclude)
	assert.Equal(t, http.StatusOK, res.StatusCode, body)
}

// Without scripts the question is a page, and what was typed goes on with it.
func TestARestedBenchKeepsAPlainForm(t *testing.T) {
	s, now := shopAt(t)
	b := s.as("odd")
	*now = now.Add(2 * site.IdleAfter)
	typed := url.Values{"name": {"Nia \"Q\" Holt"}, "sign_in": {"nia"}, "role": {people.RoleViewer},
		"password": {"long enough"}}
	res, page := b.plainPost("/shop/people", typed)
	require.Equal(t, http.StatusForbidden, res.StatusCode)
	assert.Contains(t, page, "Is it still Odd Renfeld?")
	carried := url.Values{}
	for _, m := range regexp.MustCompile(`type="hidden" name="(\w+)" value="([^"]*)"`).FindAllStringSubmatch(page, -1) {
		carried.Set(m[1], strings.ReplaceAll(m[2], "&#34;", `"`))
	}
	carried.Set("still_me", "wrong")
	res, page = b.plainPost("/shop/people", carried)
	require.Equal(t, http.StatusForbidden, res.StatusCode)
	assert.Contains(t, page, "neither your code nor your password")
	carried.Set("still_me", people.DemoPassword)
	res, _ = b.plainPost("/shop/people", carried)
	require.Equal(t, http.StatusSeeOther, res.StatusCode)
	p, err := s.server.Store.PersonBySignIn(t.Context(), "nia")
	require.NoError(t, err)
	assert.Equal(t, typed.Get("name"), p.Name)
}

// What a lead types for a new person is there again when something is wrong, but
// for the password.
func TestPeopleFormKeepsWhatWasTyped(t *testing.T) {
	t.Parallel()
	b := serve(t).as("odd")
	res, page := b.plainPost("/shop/people", url.Values{"name": {"Nia Holt"}, "sign_in": {"IVA"},
		"role": {people.RoleLead}, "password": {"long enough"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, page, `value="Nia Holt"`)
	assert.Contains(t, page, "somebody has this already")
	assert.Regexp(t, `value="lead" checked`, page)
	assert.NotContains(t, page, "long enough")
}

func TestOwnPasswordKeepsThisScreenAndEndsOthers(t *testing.T) {
	t.Parallel()
	s := serve(t)
	here, there := s.as("iva"), s.as("iva")
	res, page := here.plainPost("/me/password", url.Values{"own": {"wrong"}, "password": {"another one"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, page, "is not your present password")
	res, _ = here.plainPost("/me/password", url.Values{"own": {people.DemoPassword}, "password": {"another one"}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode)
	res, _ = here.get("/me")
	assert.Equal(t, http.StatusOK, res.StatusCode)
	res, _ = there.get("/me")
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	here.takeToken()
	res, _ = here.plainPost("/me/quick", url.Values{"code": {"2602"}, "badge": {"IB-000417"}})
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	odd := s.as("odd")
	res, _ = odd.plainPost("/change", url.Values{"secret": {"IB-000417"}})
	require.Equal(t, http.StatusSeeOther, res.StatusCode)
	_, page = odd.get("/jobs")
	assert.Contains(t, page, "Iva Brask is at the bench")
}

// Wrong tries make the next one wait; the page says how long.
func TestSignInWaits(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("")
	var res *http.Response
	var page string
	for range 12 {
		res, page = b.plainPost("/sign-in", url.Values{"sign_in": {"tove"}, "password": {"x"}})
		if res.StatusCode == http.StatusTooManyRequests {
			break
		}
	}
	assert.Equal(t, http.StatusTooManyRequests, res.StatusCode)
	assert.Regexp(t, `^[1-9]`, res.Header.Get("Retry-After"))
	assert.Contains(t, page, "try again in")
	assert.Contains(t, page, `value="tove"`)
}

// Where a request comes from is the other end of its connection, or what a trusted
// proxy says of it; anybody else's word for it counts for nothing.
func TestAddressesAreTakenFromTrustedProxiesOnly(t *testing.T) {
	_, proxy, err := net.ParseCIDR("10.1.0.0/24")
	require.NoError(t, err)
	for _, c := range []struct {
		proxies    []*net.IPNet
		from, says string
		want       string
	}{
		{nil, "10.1.0.7:80", "203.0.113.5", "10.1.0.7"},
		{[]*net.IPNet{proxy}, "10.1.0.7:80", "203.0.113.5", "203.0.113.5"},
		{[]*net.IPNet{proxy}, "10.1.0.7:80", "198.51.100.1, 203.0.113.5", "203.0.113.5"},
		{[]*net.IPNet{proxy}, "192.168.1.4:80", "203.0.113.5", "192.168.1.4"},
		{[]*net.IPNet{proxy}, "127.0.0.1:80", "203.0.113.5", "127.0.0.1"},
	} {
		r := httptest.NewRequest(http.MethodGet, "/", nil)
		r.RemoteAddr = c.from
		r.Header.Set("X-Forwarded-For", c.says)
		assert.Equal(t, c.want, site.Addresses(c.proxies)(r), "%+v", c)
	}
}

// An empty store asks for its first lead, against the code of the terminal, once.
func TestFirstStart(t *testing.T) {
	t.Parallel()
	st := storetest.New(t)
	jobs, err := job.New(st)
	require.NoError(t, err)
	app, server, err := New(Config{Jobs: jobs, First: &door.FirstStart{Code: "QUAY7STEEL"}, HashCost: bcrypt.MinCost})
	require.NoError(t, err)
	s := &served{httptest.NewServer(app), server, t}
	t.Cleanup(s.Close)
	b := s.as("")
	res, _ := b.get("/")
	require.Equal(t, "/sign-in?next=%2F", res.Header.Get("Location"))
	res, _ = b.get("/sign-in")
	require.Equal(t, "/first", res.Header.Get("Location"))
	form := url.Values{"once": {"GUESS"}, "shop": {"Harbour Hydraulics"}, "name": {"Ada Lund"}, "sign_in": {"Ada"},
		"password": {"first of all"}}
	res, page := b.plainPost("/first", form)
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, page, "is not the one in the terminal")
	assert.Contains(t, page, `value="Harbour Hydraulics"`)
	form.Set("once", "quay7 steel")
	res, _ = b.plainPost("/first", form)
	require.Equal(t, "/jobs", res.Header.Get("Location"))
	res, page = b.get("/shop")
	assert.Equal(t, http.StatusOK, res.StatusCode)
	assert.Contains(t, page, "Ada Lund")
	res, _ = s.as("").get("/first")
	assert.Equal(t, "/sign-in", res.Header.Get("Location"), "there is no second first")
	res, _ = s.as("").plainPost("/first", form)
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
}

func TestTheFirstCodeIsNotGuessed(t *testing.T) {
	f := &door.FirstStart{Code: "QUAY7STEEL"}
	for range door.MostFirstTries {
		assert.ErrorContains(t, f.Opens("x"), "terminal")
	}
	assert.ErrorContains(t, f.Opens("QUAY7STEEL"), "too often")
}

// A plain form that cannot be taken just now, because the store is away, the session
// ended or the bench changed hands, stands on the page that says so, and is sent
// again from there with all that was typed.
func TestAPlainFormOutlivesWhatStoodInItsWay(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	typed := url.Values{"customer": {`Quay "7" Works`}, "title": {"Winch <3>"}, "family": {"winch_brake_pack"},
		"complaint": {"slips\r\nwhen wet"}, "once": {"E1"}}
	again := func(page string) url.Values {
		out := url.Values{}
		for _, m := range regexp.MustCompile(`name="(\w+)" value="([^"]*)"`).FindAllStringSubmatch(page, -1) {
			out.Set(m[1], html.UnescapeString(m[2]))
		}
		return out
	}
	old := b.csrf
	b.csrf = "of another session"
	res, page := b.plainPost("/jobs", typed)
	require.Equal(t, http.StatusForbidden, res.StatusCode)
	assert.Contains(t, page, "Send it again")
	carried := again(page)
	for name := range typed {
		if name != "csrf" {
			assert.Equal(t, strings.ReplaceAll(typed.Get(name), "\r\n", "\n"),
				strings.ReplaceAll(carried.Get(name), "\r\n", "\n"), name)
		}
	}
	assert.Equal(t, old, carried.Get("csrf"))

	out := s.as("")
	res, page = out.plainPost("/jobs", typed)
	require.Equal(t, http.StatusUnauthorized, res.StatusCode)
	assert.Contains(t, page, "Sign in, beside this page")
	assert.Equal(t, "Winch <3>", again(page).Get("title"))

	b.csrf = carried.Get("csrf")
	res, _ = b.plainPost("/jobs", carried)
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
	res, page = b.plainPost("/me/password", url.Values{"csrf": {""}, "password": {"long secret"}})
	assert.NotContains(t, page, "long secret", "secrets are not carried")
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)

	// A form from another site is not put before anybody to be sent.
	req, err := http.NewRequest(http.MethodPost, s.URL+"/jobs", strings.NewReader(typed.Encode()))
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	req.Header.Set("Sec-Fetch-Site", "cross-site")
	_, page = b.send(req)
	assert.NotContains(t, page, "Send it again")
}
