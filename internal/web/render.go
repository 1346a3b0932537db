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
	"corvek/core/wording"
	"corvek/internal/answer"
	"corvek/internal/draw"

	"github.com/labstack/echo/v5"
)

//go:embed templates
var templateFiles embed.FS

// views are the parsed templates, one set a page, by the page's name.
type views struct{ sets map[string]*template.Template }

func loadViews(a *assets) (*views, error) {
	own := template.FuncMap{"asset": a.url, "faces": a.faces}
	base, err := template.New("base").Funcs(funcs).Funcs(own).ParseFS(templateFiles,
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
	Here  string    // its address, see here
	Live  bool      // a stand can show on it
	Theme string    // light, dark, or as the machine has it
	Job   *JobShell // nil on pages of no job
	Main  any       // the page's own struct, laid out by its file
}

// render writes a page that belongs to no job.
func (s *Server) render(c *echo.Context, status int, name, title string, page any) error {
	return s.renderShell(c, status, name, Shell{Reader: s.reader(c), Title: title, Main: page})
}

// renderShell writes a page, or of one that the browser shows already what is another now.
func (s *Server) renderShell(c *echo.Context, status int, name string, shell Shell) error {
	if theme := chosen(c, "corvek_theme"); theme == "dark" || theme == "light" {
		shell.Theme = theme
	}
	shell.Here = shell.here(c)
	page, err := s.views.lay(name, "layout", shell)
	if err != nil {
		return err
	}
	c.Response().Header().Set("Cache-Control", "no-store")
	list := fragmentsOf(page)
	has := c.Request().Header.Get(hasHeader)
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
	set := v.sets[name]
	if set == nil {
		return nil, fmt.Errorf("there is no template %q", name)
	}
	var b bytes.Buffer
	err := set.ExecuteTemplate(&b, document, data)
	return b.Bytes(), err
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
