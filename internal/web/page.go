package web

import (
	"bytes"
	"embed"
	"fmt"
	"html/template"
	"net/url"
	"strconv"
	"strings"
	"time"

	"corvek/core/entry"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/answer"
	"corvek/internal/draw"
	"corvek/internal/job"
	"corvek/internal/wording"

	"github.com/labstack/echo/v5"
)

//go:embed templates/*.html
var templateFiles embed.FS

// views are the parsed templates, one set a page.
type views struct{ sets map[string]*template.Template }

// Page is what every template gets; Body is the page's own view.
type Page struct {
	Title     string
	Person    job.Actor
	CSRF      string
	Units     quantity.System
	Theme     string
	Demo      bool
	Path      string
	Station   string
	UnitNo    int
	shop      *entry.Shop
	Theory    string // the reader's own theory at Explain
	Asked     string // a part that was asked for and not found
	Face      string // which of a station's faces is turned up
	S         *job.State
	Part      *job.PartState
	PartAsked bool // it stands in the address
	Feature   *job.FeatureState
	Line      template.HTML
	Rail      []RailItem
	Foot      Foot
	Body      any
	Now       time.Time
}

// RailItem is a station in the rail.
type RailItem struct {
	No          int
	Code, Name  string
	URL         string
	Stops       int
	Here        bool
	Begun, Done bool
}

// Foot says what is in the way and where to go next.
type Foot struct {
	Stops    int
	StopText string
	StopURL  string
	NextText string
	NextURL  string
	PrevURL  string // previous part
	SuccURL  string // following part
}

func (s *Server) page(c *echo.Context, title string) *Page {
	p := &Page{Title: title, Person: who(c), Units: quantity.Metric, Demo: s.demo, Path: c.Request().URL.Path,
		Now: s.jobs.Now()}
	p.CSRF, _ = c.Get("csrf").(string)
	if k, err := c.Cookie("corvek_units"); err == nil && k.Value == "in" {
		p.Units = quantity.Inch
	}
	if k, err := c.Cookie("corvek_theme"); err == nil && (k.Value == "dark" || k.Value == "light") {
		p.Theme = k.Value
	}
	return p
}

// render writes a whole page at once, so that a fault in a template never
// leaves half a page behind.
func (s *Server) render(c *echo.Context, status int, name string, p *Page) error {
	var b bytes.Buffer
	set := s.views.sets[name]
	if set == nil {
		return fmt.Errorf("there is no template %q", name)
	}
	if err := set.ExecuteTemplate(&b, "layout", p); err != nil {
		return err
	}
	c.Response().Header().Set("Cache-Control", "no-store")
	return c.HTMLBlob(status, b.Bytes())
}

// Inch reports the reader's unit system to templates.
func (p *Page) Inch() bool { return p.Units == quantity.Inch }

// CanWork and CanLead report what the person may do.
func (p *Page) CanWork() bool { return p.Person.May(job.RoleTechnician) }

// CanLead reports whether stops may be passed.
func (p *Page) CanLead() bool { return p.Person.May(job.RoleLead) }

// Show writes a base-unit figure in the reader's units.
func (p *Page) Show(si float64, dim string) string {
	return quantity.Show(si, dimNames[dim], p.Units)
}

// ShowOther writes it in the other units.
func (p *Page) ShowOther(si float64, dim string) string {
	other := quantity.Inch
	if p.Inch() {
		other = quantity.Metric
	}
	return quantity.Show(si, dimNames[dim], other)
}

// Link is the address of a station of the job, with part and feature set by
// their codes.
func (p *Page) Link(station, part, feature string) string {
	q := url.Values{}
	if p.UnitNo > 1 {
		q.Set("unit", fmt.Sprint(p.UnitNo))
	}
	if part != "" {
		q.Set("part", part)
	}
	if feature != "" {
		q.Set("feature", feature)
	}
	u := "/jobs/" + p.S.Job.Tag + "/" + station
	if len(q) > 0 {
		u += "?" + q.Encode()
	}
	return u
}

// LargeURL is the line alone, with this station's layer.
func (p *Page) LargeURL() string {
	u := p.Act("line")
	sep := "?"
	if strings.Contains(u, "?") {
		sep = "&"
	}
	u += sep + "layer=" + p.Station
	if p.Part != nil {
		u += "&part=" + url.QueryEscape(p.Part.Code)
	}
	return u
}

// Act is the address of a command on the shown unit.
func (p *Page) Act(path string) string {
	u := "/jobs/" + p.S.Job.Tag + "/" + path
	if p.UnitNo > 1 {
		u += fmt.Sprintf("?unit=%d", p.UnitNo)
	}
	return u
}

// DaysInHand says how the promise stands.
func (p *Page) DaysInHand(day unit.Date) string {
	return daysLeft(day.Time(), p.Now)
}

func daysLeft(promised, now time.Time) string {
	if promised.IsZero() {
		return "no date promised"
	}
	today := time.Date(now.Year(), now.Month(), now.Day(), 0, 0, 0, 0, time.UTC)
	due := time.Date(promised.Year(), promised.Month(), promised.Day(), 0, 0, 0, 0, time.UTC)
	switch n := int(due.Sub(today).Hours() / 24); {
	case n > 1:
		return fmt.Sprintf("%d days left", n)
	case n == 1:
		return "due tomorrow"
	case n == 0:
		return "due today"
	case n == -1:
		return "one day late"
	default:
		return fmt.Sprintf("%d days late", -n)
	}
}

// Late reports that the promised day has passed.
func (p *Page) Late(day unit.Date) bool {
	return strings.Contains(p.DaysInHand(day), "late")
}

var funcs = template.FuncMap{
	"defs":     func() template.HTML { return template.HTML(draw.Defs) },
	"upper":    strings.ToUpper,
	"lower":    strings.ToLower,
	"spaced":   wording.Plain,
	"title":    answer.Capital,
	"day":      func(t time.Time) string { return t.Format("Mon 2 Jan") },
	"date":     func(t time.Time) string { return t.Format("2 Jan 2006") },
	"clock":    func(t time.Time) string { return t.Format("15:04") },
	"percent":  func(v float64) string { return fmt.Sprintf("%.0f %%", 100*v) },
	"percent1": func(v float64) string { return fmt.Sprintf("%.1f %%", 100*v) },
	"fig":      func(v float64) string { return quantity.Figures(v, 3) },
	"short":    func(v float64) string { return strconv.FormatFloat(v, 'g', 2, 64) },
	"bits":     func(v float64) string { return fmt.Sprintf("%+.1f", v) },
	"grade":    func(i int) template.HTML { return template.HTML(draw.GradeTile(i)) },
	"has":      func(list, word string) bool { return containsWord(list, word) },
	"list":     func(v ...string) []string { return v },
	"add":      func(a, b int) int { return a + b },
	"mul":      func(a, b float64) float64 { return a * b },
	"str":      func(v any) string { return fmt.Sprint(v) },
	"rotation": func(code string) string { return wording.Choice(unit.ScopeUnit, "rotation", code) },
	"attempt": func(verdict string) string {
		return map[string]string{"": "running", "in": "passed", "out": "failed", "undecided": "open"}[verdict]
	},
	"starts": func(name string) []string {
		return map[string][]string{"change": wording.OneChanges, "back": wording.GoesBack,
			"waive": wording.Waivers}[name]
	},
	"station": func(code string) string { return wording.Stations[code] },
}

func containsWord(list, word string) bool {
	for _, w := range strings.Fields(list) {
		if w == word {
			return true
		}
	}
	return false
}

func loadViews(a *assets) (*views, error) {
	base, err := template.New("base").Funcs(funcs).Funcs(template.FuncMap{"asset": a.url}).ParseFS(templateFiles,
		"templates/layout.html", "templates/parts.html")
	if err != nil {
		return nil, err
	}
	entries, err := templateFiles.ReadDir("templates")
	if err != nil {
		return nil, err
	}
	v := &views{sets: map[string]*template.Template{}}
	for _, e := range entries {
		name := strings.TrimSuffix(e.Name(), ".html")
		if name == "layout" || name == "parts" {
			continue
		}
		set, err := base.Clone()
		if err != nil {
			return nil, err
		}
		if v.sets[name], err = set.ParseFS(templateFiles, "templates/"+e.Name()); err != nil {
			return nil, err
		}
	}
	return v, nil
}
