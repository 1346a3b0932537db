// Package origin_test asks of everything that is printed where it is from, by intervention: the proportions of all
// drawings are the only sizes that families hold, so they are made larger, and nothing that is read may change.
package origin_test

import (
	"fmt"
	"html"
	"io"
	"log/slog"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/url"
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"corvek/core/family"
	"corvek/demo/demotest"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store/storetest"
	"corvek/internal/web"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"
)

func TestMain(m *testing.M) {
	slog.SetDefault(slog.New(slog.DiscardHandler))
	storetest.Main(m)
}

// every tells that all pages of all families are read; with ./check it is some of every fourth.
var every = os.Getenv("CORVEK_EVERY") != ""

// mostPages is how many pages of one job are read, each once.
func mostPages() int {
	if every {
		return 400
	}
	return 30
}

var (
	leads   = regexp.MustCompile(`href="(/jobs/[^"#]+)"`)
	drawn   = regexp.MustCompile(`(?s)<svg.*?</svg>`)
	session = regexp.MustCompile(`(csrf" (?:value|content)=)"[^"]+"`)
	token   = regexp.MustCompile(`(name="once" value|data-sum)="[^"]+"`)
)

// shop is a shop with a unit of each family: its duty told, taken apart, and no size typed.
type shop struct {
	*http.Client
	t    *testing.T
	base string
	tags map[string]string // by family
}

func open(t *testing.T) *shop {
	jobs := demotest.Jobs(t)
	now := time.Date(2031, 5, 14, 9, 0, 0, 0, time.UTC)
	jobs.Now = func() time.Time { return now }
	app, server, err := web.New(web.Config{Jobs: jobs, Demo: true, HashCost: bcrypt.MinCost})
	require.NoError(t, err)
	t.Cleanup(server.Close)
	served := httptest.NewServer(app)
	t.Cleanup(served.Close)
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	s := &shop{&http.Client{Jar: jar}, t, served.URL, map[string]string{}}
	_, err = s.PostForm(s.base+"/sign-in", url.Values{"sign_in": {"iva"}, "password": {people.DemoPassword}})
	require.NoError(t, err)
	iva := people.Actor{Name: "Iva Brask", Role: people.RoleTechnician}
	step := 4 // of the families every so many
	if testing.Short() {
		step = 8
	}
	for i, f := range jobs.Families().List() {
		if !every && i%step > 0 {
			continue
		}
		tag, err := jobs.Create(t.Context(), iva, job.NewJob{Customer: "Mill", Title: f.Code, Complaint: "weak",
			Family: f.Code})
		require.NoError(t, err)
		for _, told := range [][2]string{{"duty_pressure", "175 bar"}, {"viscosity", "46 cSt"}, {"speed", "1450 rpm"},
			{"displacement", "32 cc/rev"}, {"rotation", "right"}, {"not_asked", "came alone"}} {
			_, err := jobs.Set(t.Context(), iva, tag, job.Edit{Field: "u1/" + told[0], Value: told[1]})
			require.NoError(t, err)
		}
		require.NoError(t, jobs.TakeOffRest(t.Context(), iva, tag, 1))
		s.tags[f.Code] = tag
	}
	return s
}

// read gives everything of a job that can be read, by address: pages and papers, each followed from the others.
func (s *shop) read(code string) map[string]string {
	tag := s.tags[code]
	out, queue := map[string]string{}, []string{"/jobs/" + tag + "/export"}
	for _, station := range []string{"receive", "strip", "measure", "explain", "decide", "kit", "build", "prove",
		"handover"} {
		queue = append(queue, fmt.Sprintf("/jobs/%s/%s", tag, station))
	}
	for len(queue) > 0 && len(out) < mostPages() {
		at := queue[0]
		queue = queue[1:]
		if _, seen := out[at]; seen || !strings.HasPrefix(at, "/jobs/"+tag+"/") || strings.Contains(at, ".svg") ||
			strings.Contains(at, ".pdf") || strings.Contains(at, "/line") {
			continue
		}
		res, err := s.Get(s.base + at)
		require.NoError(s.t, err)
		body, err := io.ReadAll(io.LimitReader(res.Body, 16<<20))
		require.NoError(s.t, err)
		require.NoError(s.t, res.Body.Close())
		require.Less(s.t, res.StatusCode, 500, at)
		text := string(body)
		for _, lead := range leads.FindAllStringSubmatch(text, -1) {
			queue = append(queue, html.UnescapeString(lead[1]))
		}
		text = strings.ReplaceAll(drawn.ReplaceAllString(text, ""), s.base, "")
		out[at] = token.ReplaceAllString(session.ReplaceAllString(text, "$1"), "")
	}
	return out
}

// drawing is the line of a unit as it is drawn.
func (s *shop) drawing(tag string) string {
	res, err := s.Get(s.base + "/jobs/" + tag + "/line.svg")
	require.NoError(s.t, err)
	defer func() { _ = res.Body.Close() }()
	body, err := io.ReadAll(io.LimitReader(res.Body, 16<<20))
	require.NoError(s.t, err)
	return string(body)
}

// grow makes every proportion of every drawing larger, in families, assemblies and kinds.
func grow(t *testing.T, by float64) {
	t.Helper()
	shape := func(s *family.Shape) {
		for _, v := range []*float64{&s.W, &s.OD, &s.ID, &s.Top, &s.Base, &s.Step} {
			*v *= by
		}
		for i := range s.Shaft {
			s.Shaft[i].L *= by
			s.Shaft[i].D *= by
		}
	}
	lib, err := family.Shipped()
	require.NoError(t, err)
	all, err := family.Assemblies()
	require.NoError(t, err)
	seen := map[*family.Part]bool{}
	parts := func(list []family.Part) {
		for i := range list {
			if p := &list[i]; !seen[p] {
				seen[p] = true
				p.Shape.Shaft = slices.Clone(p.Shape.Shaft)
				shape(&p.Shape)
			}
		}
	}
	for _, f := range lib {
		parts(f.Parts)
		for i := range f.Lines {
			if p := f.Lines[i].Part; p != nil && !seen[p] {
				seen[p] = true
				p.Shape.Shaft = slices.Clone(p.Shape.Shaft)
				shape(&p.Shape)
			}
		}
		for i := range f.Axes {
			f.Axes[i] *= by
		}
	}
	for _, a := range all {
		parts(a.Parts)
	}
}

// No proportion of a drawing is printed as a size, nor is anything that was worked out of one, on any page, paper or
// file of any family.
func TestNothingThatIsReadComesFromADrawing(t *testing.T) {
	before := open(t)
	texts := map[string]map[string]string{}
	pages := 0
	for code := range before.tags {
		texts[code] = before.read(code)
		pages += len(texts[code])
	}
	require.Greater(t, pages, 20*len(texts), "the pages were found")
	drawings := map[string]string{}
	for code, tag := range before.tags {
		drawings[code] = before.drawing(tag)
	}
	grow(t, 1.37)
	after := open(t)
	require.Equal(t, before.tags, after.tags)
	for code, tag := range after.tags {
		assert.NotEqual(t, drawings[code], after.drawing(tag), "the drawing of %s did not grow", code)
	}
	moved := 0
	for code := range after.tags {
		for at, text := range after.read(code) {
			was, there := texts[code][at]
			if !assert.True(t, there, at) {
				continue
			}
			if was != text && moved < 10 {
				moved++
				assert.Equal(t, differing(was, text), differing(text, was), "%s %s goes by a drawing", code, at)
			}
		}
	}
}

// differing is the first line of a text that another one has not.
func differing(text, other string) string {
	lines := strings.Split(other, "\n")
	for i, line := range strings.Split(text, "\n") {
		if i >= len(lines) || line != lines[i] {
			return strings.TrimSpace(line)
		}
	}
	return ""
}
