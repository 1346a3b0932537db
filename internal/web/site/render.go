package site

import (
	"bytes"
	"crypto/rand"
	"embed"
	"fmt"
	"html/template"
	"io/fs"
	"net/http"
	"path"
	"strconv"
	"strings"
	"time"

	"corvek/core/quantity"
	"corvek/core/search"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/answer"
	"corvek/internal/draw"

	"github.com/labstack/echo/v5"
)

//go:embed templates
var templateFiles embed.FS

// views are the parsed templates, one set a page, by the page's name.
type views struct{ Sets map[string]*template.Template }

// loadViews parses the pages of the site itself and of its rooms, each with the parts of its room.
func loadViews(a *assets, rooms []Room) (*views, error) {
	own := template.FuncMap{"asset": a.url, "faces": a.faces}
	base, err := template.New("base").Funcs(funcs).Funcs(own).ParseFS(templateFiles,
		"templates/layout.html", "templates/parts/*.html")
	if err != nil {
		return nil, err
	}
	v := &views{Sets: map[string]*template.Template{}}
	for _, room := range append([]Room{{Files: templateFiles}}, rooms...) {
		if room.Files == nil {
			continue
		}
		if err := v.add(base, room); err != nil {
			return nil, err
		}
	}
	return v, nil
}

// add parses the pages of a room.
func (v *views) add(base *template.Template, room Room) error {
	of, err := base.Clone()
	if err != nil {
		return err
	}
	of.Funcs(room.Funcs)
	parts, err := fs.Glob(room.Files, "templates/parts/*.html")
	if err == nil && len(parts) > 0 {
		_, err = of.ParseFS(room.Files, parts...)
	}
	if err != nil {
		return err
	}
	pages, err := fs.Glob(room.Files, "templates/pages/*.html")
	if err != nil {
		return err
	}
	for _, file := range pages {
		set, err := of.Clone()
		if err != nil {
			return err
		}
		name := strings.TrimSuffix(path.Base(file), ".html")
		if v.Sets[name] != nil {
			return fmt.Errorf("two pages are called %s", name)
		}
		if v.Sets[name], err = set.ParseFS(room.Files, file); err != nil {
			return err
		}
	}
	return nil
}

// Shell is what stands around a page, and the page itself.
type Shell struct {
	Reader
	Title string
	Here  string    // its address, see here
	Live  bool      // a stand can show on it
	Theme string    // light, dark, or as the machine has it
	Job   *JobShell // nil on pages of no job
	Main  any       // the page's own struct, laid out by its file
}

// Render writes a page that belongs to no job.
func (s *Site) Render(c *echo.Context, status int, name, title string, page any) error {
	return s.RenderShell(c, status, name, Shell{Reader: s.Reader(c), Title: title, Main: page})
}

// RenderShell writes a page, or of one that the browser shows already what is another now.
func (s *Site) RenderShell(c *echo.Context, status int, name string, shell Shell) error {
	if theme := chosen(c, "corvek_theme"); theme == "dark" || theme == "light" {
		shell.Theme = theme
	}
	shell.Here = shell.here(c)
	page, err := s.Views.lay(name, "layout", shell)
	if err != nil {
		return err
	}
	c.Response().Header().Set("Cache-Control", "no-store")
	list := fragmentsOf(page)
	has := c.Request().Header.Get(HasHeader)
	if has == "" || status != http.StatusOK {
		return c.HTMLBlob(status, summed(page, list))
	}
	return c.JSON(status, freshOf(page, list, has, shell))
}

// Version is that of the job on the page, 0 where there is none.
func (s Shell) Version() int64 {
	if s.Job == nil {
		return 0
	}
	return s.Job.Version
}

// here is the address under which the page shows again just this, whatever is entered
// meanwhile: the part and the feature that it opened with stand in it.
func (s Shell) here(c *echo.Context) string {
	if s.Job != nil && s.Job.Here != "" {
		return s.Job.Here
	}
	return c.Request().URL.RequestURI()
}

// lay writes a document whole, so that a fault in a template never leaves half a page.
func (v *views) lay(name, document string, data any) ([]byte, error) {
	set := v.Sets[name]
	if set == nil {
		return nil, fmt.Errorf("there is no template %q", name)
	}
	var b bytes.Buffer
	err := set.ExecuteTemplate(&b, document, data)
	return b.Bytes(), err
}

// Part lays a part of a page out alone.
func (s *Site) Part(page, part string, data any) ([]byte, error) {
	return s.Views.lay(page, part, data)
}

// RenderOK writes a page that was found.
func (s *Site) RenderOK(c *echo.Context, name, title string, page any) error {
	return s.Render(c, http.StatusOK, name, title, page)
}

// hidden are the fields that every form carries: the token of its session, and one
// of its own, by which a form that is sent twice does its work once.
func hidden(csrf string) template.HTML {
	const field = `<input type="hidden" name="%s" value="%s">`
	return template.HTML(fmt.Sprintf(field+field, "csrf", template.HTMLEscapeString(csrf), onceName, rand.Text()))
}

// outcomes are how a step can come out after a change.
var outcomes = map[search.Outcome]string{search.Right: "if it comes right", search.Better: "if it comes nearer",
	search.Same: "if it is as bad", search.Worse: "if it gets worse"}

var funcs = template.FuncMap{
	"hidden":   hidden,
	"defs":     func() template.HTML { return template.HTML(draw.Defs) },
	"lower":    strings.ToLower,
	"spaced":   wording.Plain,
	"title":    answer.Capital,
	"bare":     func(s string) string { return strings.TrimSuffix(strings.TrimSpace(s), ".") },
	"day":      func(t time.Time) string { return t.Format("Mon 2 Jan") },
	"date":     func(t time.Time) string { return t.Format("2 Jan 2006") },
	"clock":    func(t time.Time) string { return t.Format("15:04") },
	"percent":  func(v float64) string { return fmt.Sprintf("%.0f %%", 100*v) },
	"short":    func(v float64) string { return strconv.FormatFloat(v, 'g', 2, 64) },
	"bits":     func(v float64) string { return fmt.Sprintf("%+.1f", v) },
	"figure":   func(v float64) string { return quantity.Figures(v, 3) },
	"grade":    func(i int) template.HTML { return template.HTML(draw.GradeTile(i)) },
	"add":      func(a, b int) int { return a + b },
	"mul":      func(a, b float64) float64 { return a * b },
	"str":      func(v any) string { return fmt.Sprint(v) },
	"role":     func(code string) string { return wording.Choice(unit.ScopeCause, "role", code) },
	"rotation": func(code string) string { return wording.Choice(unit.ScopeUnit, "rotation", code) },
	"outcome":  func(o search.Outcome) string { return outcomes[o] },
	"attempt": func(verdict string) string {
		return map[string]string{"": "running", "in": "passed", "out": "failed", "undecided": "open"}[verdict]
	},
	"starts": func(name string) []string {
		return map[string][]string{"waive": wording.Waivers}[name]
	},
	"station": func(code string) string { return wording.Stations[code] },
}
