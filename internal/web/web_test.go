package web

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"image"
	"image/png"
	"io"
	"mime/multipart"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/url"
	"regexp"
	"strings"
	"testing"

	"corvek/core/bench"
	"corvek/core/calc"
	"corvek/core/unit"
	"corvek/demo"
	"corvek/demo/demotest"
	"corvek/internal/people"
	"corvek/internal/store/storetest"
	"corvek/internal/web/site"
	"corvek/internal/web/toolbox"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"
)

func TestMain(m *testing.M) { storetest.Main(m) }

// served is the demo served for a test.
type served struct {
	*httptest.Server
	server *Server
	t      testing.TB
}

func serve(t testing.TB) *served {
	t.Helper()
	jobs := demotest.Jobs(t)
	app, server, err := New(Config{Jobs: jobs, Demo: true, HashCost: bcrypt.MinCost})
	require.NoError(t, err)
	s := &served{httptest.NewServer(app), server, t}
	t.Cleanup(s.Close)
	return s
}

var csrfField = regexp.MustCompile(`name="csrf" (?:value|content)="([^"]+)"`)

// browser is a client with cookies and the page's token.
type browser struct {
	*http.Client
	site *served
	csrf string
}

func (s *served) as(who string) *browser {
	jar, err := cookiejar.New(nil)
	require.NoError(s.t, err)
	b := &browser{&http.Client{Jar: jar, CheckRedirect: func(*http.Request,
		[]*http.Request) error {
		return http.ErrUseLastResponse
	}}, s, ""}
	if who != "" {
		res, _ := b.post("/sign-in", url.Values{"sign_in": {who}, "password": {people.DemoPassword}})
		require.Equal(s.t, http.StatusSeeOther, res.StatusCode)
		b.takeToken()
	}
	return b
}

// takeToken reads the token of the session from a page.
func (b *browser) takeToken() {
	_, body := b.get("/toolbox")
	m := csrfField.FindStringSubmatch(body)
	require.NotNil(b.site.t, m, "a page carries the token of its session")
	b.csrf = m[1]
}

func (b *browser) get(path string) (*http.Response, string) {
	res, err := b.Get(b.site.URL + path)
	require.NoError(b.site.t, err)
	defer res.Body.Close()
	body, err := io.ReadAll(res.Body)
	require.NoError(b.site.t, err)
	return res, string(body)
}

func (b *browser) post(path string, form url.Values) (*http.Response, string) {
	form.Set("csrf", b.csrf)
	req, err := http.NewRequest(http.MethodPost, b.site.URL+path, strings.NewReader(form.Encode()))
	require.NoError(b.site.t, err)
	req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	req.Header.Set("X-Requested-With", "corvek")
	return b.send(req)
}

// file is what is sent along with a form.
type file struct {
	field, name string
	content     []byte
}

// sendForm sends a form with a file, where there is one.
func (b *browser) sendForm(path string, fields map[string]string, sent *file) (*http.Response, string) {
	t := b.site.t
	t.Helper()
	var body bytes.Buffer
	w := multipart.NewWriter(&body)
	for k, v := range fields {
		require.NoError(t, w.WriteField(k, v))
	}
	if sent != nil {
		part, err := w.CreateFormFile(sent.field, sent.name)
		require.NoError(t, err)
		_, err = part.Write(sent.content)
		require.NoError(t, err)
	}
	require.NoError(t, w.Close())
	req, err := http.NewRequest(http.MethodPost, b.site.URL+path, &body)
	require.NoError(t, err)
	req.Header.Set("Content-Type", w.FormDataContentType())
	req.Header.Set("X-CSRF-Token", b.csrf)
	req.Header.Set("X-Requested-With", "corvek")
	return b.send(req)
}

func (b *browser) send(req *http.Request) (*http.Response, string) {
	res, err := b.Do(req)
	require.NoError(b.site.t, err)
	defer res.Body.Close()
	body, err := io.ReadAll(res.Body)
	require.NoError(b.site.t, err)
	return res, string(body)
}

// Every route is tried by everybody; the table says what must happen.
func TestAuthorizationOverAllRoutesAndRoles(t *testing.T) {
	t.Parallel()
	s := serve(t)
	hands := []struct{ signIn, role string }{{"", ""}, {"tove", people.RoleViewer}, {"iva", people.RoleTechnician},
		{"odd", people.RoleLead}}
	for _, p := range hands {
		b := s.as(p.signIn)
		for _, r := range s.server.routes() {
			t.Run(fmt.Sprintf("%s %s as %q", r.Method, r.Path, p.role), func(t *testing.T) {
				if r.Path == "/sign-out" && p.role != "" {
					return // it would end the session the other routes need; tested below
				}
				path := strings.NewReplacer(":tag", "T-9999", ":station", "strip", ":name", "cylinder", ":id",
					"999").Replace(r.Path)
				var status int
				if r.Method == http.MethodGet {
					res, err := b.Get(s.URL + path) // its body is left: some of them never end
					require.NoError(t, err)
					require.NoError(t, res.Body.Close())
					status = res.StatusCode
				} else {
					res, _ := b.post(path, url.Values{})
					status = res.StatusCode
				}
				allowed := r.Role == "" || (p.role != "" && people.Actor{Role: p.role}.May(r.Role))
				switch {
				case allowed:
					assert.NotContains(t, []int{http.StatusUnauthorized, http.StatusForbidden}, status)
					assert.Less(t, status, 500)
				case p.role == "" && r.Method == http.MethodGet:
					assert.Equal(t, http.StatusSeeOther, status, "sent to the sign-in page")
				case p.role == "":
					assert.Equal(t, http.StatusUnauthorized, status)
				default:
					assert.Equal(t, http.StatusForbidden, status)
				}
			})
		}
	}
}

func TestEveryRouteOfTheServerStandsInTheTable(t *testing.T) {
	t.Parallel()
	s := serve(t)
	table := map[string]bool{}
	for _, r := range s.server.routes() {
		table[r.Method+" "+r.Path] = true
	}
	assert.Greater(t, len(table), 30)
	assert.Len(t, table, len(s.server.routes()), "no route stands twice")
}

func TestSignOutEndsTheSession(t *testing.T) {
	t.Parallel()
	b := serve(t).as("iva")
	res, _ := b.get("/jobs")
	assert.Equal(t, http.StatusOK, res.StatusCode)
	b.post("/sign-out", url.Values{})
	res, _ = b.get("/jobs")
	assert.Equal(t, http.StatusSeeOther, res.StatusCode)
}

func TestSignInRefusals(t *testing.T) {
	t.Parallel()
	b := serve(t).as("")
	res, body := b.post("/sign-in", url.Values{"sign_in": {"iva"}, "password": {"wrong"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "do not go together")
	res, _ = b.post(
		"/sign-in",
		url.Values{"sign_in": {"iva"}, "password": {people.DemoPassword}, "next": {"//evil.example/"}},
	)
	assert.Equal(t, "/jobs", res.Header.Get("Location"), "only our own pages are followed")
}

func TestWithoutTheTokenNothingIsWritten(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	b.csrf = "forged"
	res, _ := b.post("/jobs/T-0417/set", url.Values{"field": {"job/title"}, "value": {"x"},
		"base": {"Press feed pump, No. 2 line"}})
	assert.Equal(t, http.StatusForbidden, res.StatusCode)
}

func TestHeaders(t *testing.T) {
	t.Parallel()
	b := serve(t).as("iva")
	res, body := b.get("/jobs/T-0417/measure")
	assert.Equal(t, http.StatusOK, res.StatusCode)
	csp := res.Header.Get("Content-Security-Policy")
	assert.Contains(t, csp, "script-src 'self'")
	assert.NotContains(t, csp, "unsafe")
	assert.Equal(t, "DENY", res.Header.Get("X-Frame-Options"))
	assert.Equal(t, "nosniff", res.Header.Get("X-Content-Type-Options"))
	assert.NotRegexp(t, `(?i)<script[^>]*>[^<]`, body, "no script stands in a page")
	assert.NotRegexp(t, ` style="`, body, "no style stands in a page")
	assert.NotRegexp(t, `(src|href)="https?:`, body, "nothing comes from outside")
}

// Every station of every demo job renders, in both unit systems.
func TestEveryPageRenders(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("odd")
	docs, err := demo.Documents()
	require.NoError(t, err)
	paths := []string{"/jobs", "/toolbox", "/jobs/new"}
	for _, d := range docs {
		for _, station := range unit.Stations {
			paths = append(paths, "/jobs/"+d.Tag()+"/"+station)
		}
		for _, paper := range []string{"report", "report.pdf", "start-up-card", "export", "record", "line.svg"} {
			paths = append(paths, "/jobs/"+d.Tag()+"/"+paper)
		}
	}
	for _, d := range s.server.Views.Sets {
		require.NotNil(t, d)
	}
	for _, path := range paths {
		res, body := b.get(path)
		assert.Equal(t, http.StatusOK, res.StatusCode, path)
		assert.NotContains(t, body, "ZgotmplZ", path)
		assert.NotContains(t, body, "&lt;nil&gt;", path)
	}
	for _, path := range []string{"/jobs/T-0000", "/jobs/T-0417/dance", "/toolbox/nonesuch",
		"/jobs/T-0417/pictures/99999/file", "/jobs/T-0417/strip?unit=9"} {
		res, _ := b.get(path)
		assert.Equal(t, http.StatusNotFound, res.StatusCode, path)
	}
}

// Each calculator's page works out its own example without an error on it.
func TestToolboxPagesWorkTheirExamples(t *testing.T) {
	t.Parallel()
	b := serve(t).as("tove")
	for _, d := range calc.All() {
		_, body := b.get("/toolbox/" + d.Name + "?" + string(toolbox.ToolPage{Def: d}.ExampleQuery()))
		assert.Contains(t, body, "<h2>Working</h2>", d.Name)
		assert.NotContains(t, body, `class="help is-danger" role="alert"`, d.Name)
		assert.NotContains(t, body, "map[", d.Name)
	}
	_, body := b.get("/toolbox/cylinder?bore=63&pressure=1+bar")
	assert.Contains(t, body, "needs a unit")
}

func TestReportPDFIsAPaper(t *testing.T) {
	t.Parallel()
	b := serve(t).as("tove")
	res, body := b.get("/jobs/T-0388/report.pdf")
	assert.Equal(t, "application/pdf", res.Header.Get("Content-Type"))
	assert.True(t, strings.HasPrefix(body, "%PDF-"))
	assert.Greater(t, len(body), 3000)
}

func TestSetAnswersInTheReadersWords(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	field := "u1/duty_pressure"
	res, body := b.post("/jobs/T-0417/set", url.Values{"field": {field}, "value": {"3000 lb"}, "base": {"175 bar"}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode)
	assert.Contains(t, body, "psi?")
	assert.Contains(t, body, field)
	res, _ = b.post("/jobs/T-0417/set", url.Values{"field": {field}, "value": {"2500 psi"}, "base": {"175 bar"}})
	assert.Equal(t, http.StatusOK, res.StatusCode)
	res, body = b.post("/jobs/T-0417/set", url.Values{"field": {field}, "value": {"180 bar"}, "base": {"175 bar"}})
	assert.Equal(t, http.StatusConflict, res.StatusCode)
	assert.Contains(t, body, `"theirs":"2500 psi"`)
}

func TestCalcOverHTTP(t *testing.T) {
	t.Parallel()
	s := serve(t)
	post := func(name, body string) (int, map[string]any) {
		res, err := http.Post(s.URL+"/api/v1/calc/"+name, "application/json", strings.NewReader(body))
		require.NoError(t, err)
		defer res.Body.Close()
		var out map[string]any
		require.NoError(t, json.NewDecoder(res.Body).Decode(&out))
		return res.StatusCode, out
	}
	status, out := post("cylinder", `{"bore":"63 mm","pressure":"210 bar"}`)
	assert.Equal(t, http.StatusOK, status)
	assert.InDelta(t, 65462.1, out["results"].(map[string]any)["push_force"].(map[string]any)["value"], 0.1)
	status, out = post("cylinder", `{"bore":"63"}`)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
	assert.Equal(t, "bore", out["error"].(map[string]any)["field"])
	status, _ = post("nonesuch", `{}`)
	assert.Equal(t, http.StatusUnprocessableEntity, status)
}

func TestPicturesAreToldByTheirContent(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	send := func(name string, content []byte) int {
		status, _ := b.upload("T-0417", name, content, nil)
		return status
	}
	var whole bytes.Buffer
	require.NoError(t, png.Encode(&whole, image.NewRGBA(image.Rect(0, 0, 30, 20))))
	assert.Equal(t, http.StatusOK, send("a.png", whole.Bytes()))
	assert.Equal(t, http.StatusUnprocessableEntity, send("cut.png", whole.Bytes()[:50]), "a head alone is no picture")
	assert.Equal(t, http.StatusUnprocessableEntity, send("huge.jpg",
		append([]byte("\xff\xd8\xff"), make([]byte, 20<<20)...)), "20 MB are refused politely")
	assert.Equal(t, http.StatusUnprocessableEntity, send("a.png", []byte("MZ\x90\x00 a renamed program")))
	assert.Equal(t, http.StatusUnprocessableEntity, send("a.svg",
		[]byte(`<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>`)))
}

func BenchmarkPages(b *testing.B) {
	s := serve(b)
	br := s.as("odd")
	for _, path := range []string{"/healthz", "/jobs", "/jobs/T-0417/measure", "/jobs/T-0417/explain",
		"/jobs/T-0405/explain", "/jobs/T-0405/explain?face=matrix", "/jobs/T-0426/strip", "/jobs/T-0388/prove",
		"/jobs/T-0388/report"} {
		b.Run(path, func(b *testing.B) {
			for b.Loop() {
				if res, _ := br.get(path); res.StatusCode != http.StatusOK {
					b.Fatal(res.Status)
				}
			}
		})
	}
}

func (b *browser) state(tag string, unit int) *bench.State {
	b.site.t.Helper()
	st, err := b.site.server.Jobs.Load(context.Background(), tag, unit)
	require.NoError(b.site.t, err)
	return st
}

func (b *browser) set(tag, field, value, base string) (*http.Response, string) {
	return b.post("/jobs/"+tag+"/set", url.Values{"field": {field}, "value": {value}, "base": {base}})
}

// Nothing that somebody answers for rides along with a tap that is about something else.
func TestWhatIsSignedForDoesNotRideAlong(t *testing.T) {
	t.Parallel()
	s := serve(t)
	br := s.as("iva")
	res, body := br.post("/jobs/T-0417/set", url.Values{"field": {"u1/part/key/note"}, "value": {"clean"}, "base": {""},
		"field2": {"u1/conclusion/cause"}, "value2": {"contamination"}, "base2": {""}})
	assert.Equal(t, http.StatusUnprocessableEntity, res.StatusCode, body)
	assert.Contains(t, body, "in one act")
	st := br.state("T-0417", 1)
	assert.Empty(t, st.Conclude.Cause)
	assert.NotEqual(t, "clean", st.ByCode["key"].Note, "nor is the first of them written")
}

// routes are those of all rooms.
func (s *Server) routes() (all []site.Route) {
	for _, room := range s.rooms {
		all = append(all, room.Routes...)
	}
	return all
}
