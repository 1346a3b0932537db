package web

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
	"corvek/core/unit"
	"corvek/internal/answer"
	"corvek/internal/draw"
	"corvek/internal/wording"

	"github.com/labstack/echo/v5"
)

//go:embed templates
var templateFiles embed.FS

// views are the parsed templates, one set a page, by the page's name.
type views struct{ sets map[string]*template.Template }

func loadViews(a *assets) (*views, error) {
	base, err := template.New("base").Funcs(funcs).Funcs(template.FuncMap{"asset": a.url}).ParseFS(templateFiles,
		"templates/layout.html", "templates/parts/*.html")
	if err != nil {
		return nil, err
	}
	files, err := fs.Glob(templateFiles, "templates/pages/*.html")
	if err != nil {
		return nil, err
	}
	v := &views{sets: map[string]*template.Template{}}
	for _, file := range files {
		set, err := base.Clone()
		if err != nil {
			return nil, err
		}
		if v.sets[strings.TrimSuffix(path.Base(file), ".html")], err = set.ParseFS(templateFiles, file); err != nil {
			return nil, err
		}
	}
	return v, nil
}

// Shell is what stands around a page, and the page itself.
type Shell struct {
	Reader
	Title string
	Live  bool      // a stand can show on it
	Theme string    // light, dark, or as the machine has it
	Job   *JobShell // nil on pages of no job
	Main  any       // the page's own struct, laid out by its file
}

// render writes a page that belongs to no job.
func (s *Server) render(c *echo.Context, status int, name, title string, page any) error {
	return s.renderShell(c, status, name, Shell{Reader: s.reader(c), Title: title, Main: page})
}

// renderShell writes a whole page at once, so that a fault in a template never
// leaves half a page behind.
func (s *Server) renderShell(c *echo.Context, status int, name string, shell Shell) error {
	if k, err := c.Cookie("corvek_theme"); err == nil && (k.Value == "dark" || k.Value == "light") {
		shell.Theme = k.Value
	}
	c.Response().Header().Set("Cache-Control", "no-store")
	return s.renderAlone(c, status, name, "layout", shell)
}

// renderAlone writes a document that has no shell, such as a tag to print.
func (s *Server) renderAlone(c *echo.Context, status int, name, document string, data any) error {
	set := s.views.sets[name]
	if set == nil {
		return fmt.Errorf("there is no template %q", name)
	}
	var b bytes.Buffer
	if err := set.ExecuteTemplate(&b, document, data); err != nil {
		return err
	}
	return c.HTMLBlob(status, b.Bytes())
}

// renderOK writes a page that was found.
func (s *Server) renderOK(c *echo.Context, name, title string, page any) error {
	return s.render(c, http.StatusOK, name, title, page)
}

// hidden are the fields that every form carries: the token of its session, and one
// of its own, by which a form that is sent twice does its work once.
func hidden(csrf string) template.HTML {
	const field = `<input type="hidden" name="%s" value="%s">`
	return template.HTML(fmt.Sprintf(field+field, "csrf", template.HTMLEscapeString(csrf), onceName, rand.Text()))
}

var funcs = template.FuncMap{
	"hidden":   hidden,
	"changeOf": changeOf,
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
	"attempt": func(verdict string) string {
		return map[string]string{"": "running", "in": "passed", "out": "failed", "undecided": "open"}[verdict]
	},
	"starts": func(name string) []string {
		return map[string][]string{"waive": wording.Waivers}[name]
	},
	"ticks":   func(title, name string, list []Tick) TickList { return TickList{title, name, list} },
	"word":    func(of, what, label, value string) FormWord { return FormWord{of + "-" + what, label, value} },
	"named":   func(what string, names []string) NameList { return NameList{what, names} },
	"page":    func(page KitPage, of any) PageOf { return PageOf{page, of} },
	"station": func(code string) string { return wording.Stations[code] },
}
