package figurepages

import (
	"cmp"
	"fmt"
	"net/url"
	"slices"
	"strconv"

	"corvek/core/figures"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// FiguresPage is what the jobs of a time came to.
type FiguresPage struct {
	site.Reader
	asked
	Jobs     int
	Fault    string
	Measures []MeasureRow
	Ways     []WayLink
	Measure  figures.Measure
	Bars     []Bar
	Unknown  int // jobs of which the measure is not known
	Chosen   string
	List     []JobRow
	Causes   []string // of the group that was opened, each with how many jobs
	Cross    *CrossTable
	Waits    []Bar
	Stock    store.Turned
	CSV      string
	XLSX     string
}

// asked is what a page or a file is asked for.
type asked struct {
	From, To  unit.Date // both are within
	By        string
	MeasureOf string
	Key       string
	Cause     string // of a group: only its jobs of that cause
	hasKey    bool
	hasCause  bool
}

// MeasureRow is a measure of all jobs.
type MeasureRow struct {
	Name, Value, Of string
	URL             string
	On              bool
}

// WayLink groups the jobs another way.
type WayLink struct {
	Name, URL string
	On        bool
}

// Bar is one group in the drawing.
type Bar struct {
	Name, Value, Of string
	Share           int // of the longest, in percent
	URL             string
	On              bool
}

// JobRow is a job of the group that was opened.
type JobRow struct {
	Tag, Title, Customer, Value string
}

// mostBars are drawn, and mostList jobs named.
const (
	mostBars = 24
	mostList = 200
)

// usualMonths is how far back the figures reach where nothing is asked.
const usualMonths = 12

func (s *Pages) read(c *echo.Context) (a asked, jobs []*figures.Job, fault string, err error) {
	today := unit.DateOf(s.Jobs.Now())
	a = asked{From: unit.DateOf(today.Time().AddDate(0, -usualMonths, 0)), To: today, By: c.QueryParam("by"),
		MeasureOf: c.QueryParam("measure"), Key: c.QueryParam("key")}
	_, a.hasKey = c.QueryParams()["key"]
	_, a.hasCause = c.QueryParams()["cause"]
	a.Cause = c.QueryParam("cause")
	if !slices.Contains(figures.Ways, a.By) {
		a.By = figures.Ways[0]
	}
	for name, at := range map[string]*unit.Date{"from": &a.From, "to": &a.To} {
		text := c.QueryParam(name)
		if text == "" {
			continue
		}
		day, ok := unit.ParseDate(text)
		if !ok {
			return a, nil, text + " is no day; write one like 2031-05-27", nil
		}
		*at = day
	}
	if a.To < a.From {
		return a, nil, "the last day lies before the first", nil
	}
	jobs, err = s.Store.Counted(c.Request().Context(), a.From, a.To.Add(1))
	return a, jobs, "", err
}

// with is the address of the page with something else asked of it.
func (a asked) with(path, by, measure string, key *string) string {
	q := url.Values{"from": {string(a.From)}, "to": {string(a.To)}, "by": {by}, "measure": {measure}}
	if key != nil {
		q.Set("key", *key)
	}
	return path + "?" + q.Encode()
}

func (s *Pages) figures(c *echo.Context) error {
	a, jobs, fault, err := s.read(c)
	if err != nil {
		return err
	}
	v := FiguresPage{Reader: s.Reader(c), asked: a, Jobs: len(jobs), Fault: fault}
	v.Measure = figures.Measures[1]
	for _, m := range figures.Measures {
		if m.Code == a.MeasureOf {
			v.Measure = m
		}
	}
	for _, m := range figures.Measures {
		all := m.Of(jobs)
		row := MeasureRow{
			Name:  m.Name,
			Value: "not known",
			URL:   a.with("/figures", a.By, m.Code, nil),
			On:    m.Code == v.Measure.Code,
		}
		if all.Known() {
			row.Value, row.Of = worded(&m, all.Value), "of "+wording.Counted(len(all.Jobs), "job", "jobs")
		}
		v.Measures = append(v.Measures, row)
	}
	several := slices.ContainsFunc(jobs, func(j *figures.Job) bool { return j.Site != "" })
	for _, by := range figures.Ways {
		if by == figures.BySite && !several {
			continue
		}
		v.Ways = append(v.Ways, WayLink{"by " + by, a.with("/figures", by, v.Measure.Code, nil), by == a.By})
	}
	v.cross(jobs, s.name)
	v.bars(jobs, s.name)
	v.waits(jobs)
	v.CSV, v.XLSX = a.with(
		"/figures.csv",
		a.By,
		v.Measure.Code,
		nil,
	), a.with(
		"/figures.xlsx",
		a.By,
		v.Measure.Code,
		nil,
	)
	turned, err := s.Store.Turned(c.Request().Context(), a.From, a.To.Add(1))
	if err != nil {
		return err
	}
	v.Stock = turned
	return s.RenderOK(c, "owners_figures", "Figures", v)
}

// worded writes a value with its unit.
func worded(m *figures.Measure, value float64) string {
	switch m.Unit {
	case "%":
		return fmt.Sprintf("%.0f %%", value)
	case "jobs":
		return fmt.Sprintf("%.0f", value)
	case "days":
		return strconv.FormatFloat(value, 'f', -1, 64) + " days"
	}
	return fmt.Sprintf("%.2f", value)
}

// name is what a group is called.
func (s *Pages) name(by string, g *figures.Group) string {
	switch {
	case g.Key == "":
		return "not known"
	case by == figures.ByFamily:
		if f := s.Jobs.Families()[g.Key]; f != nil {
			return f.Name
		}
	case by == figures.ByCause:
		for _, u := range g.Jobs[0].Units {
			if c, known := s.Jobs.Knowledge.For(u.Family).CauseByCode(g.Key); known && u.Cause == g.Key {
				return c.Name
			}
		}
	}
	return g.Key
}

func (v *FiguresPage) bars(jobs []*figures.Job, name func(string, *figures.Group) string) {
	longest := 0.0
	groups := figures.Groups(jobs, v.By)
	if v.By == figures.ByMonth {
		groups = groups[max(0, len(groups)-mostBars):]
	}
	groups = groups[:min(len(groups), mostBars)]
	values := make([]figures.Value, len(groups))
	for i, g := range groups {
		values[i] = v.Measure.Of(g.Jobs)
		longest = max(longest, values[i].Value)
	}
	if v.Measure.Unit == "%" {
		longest = 100
	}
	for i, g := range groups {
		b := Bar{
			Name:  name(v.By, g),
			Value: "not known",
			URL:   v.with("/figures", v.By, v.Measure.Code, &g.Key) + "#jobs",
			On:    v.hasKey && v.Key == g.Key,
		}
		if values[i].Known() {
			b.Value, b.Of = worded(&v.Measure, values[i].Value), fmt.Sprintf("of %d", len(values[i].Jobs))
			if longest > 0 {
				b.Share = int(100*values[i].Value/longest + 0.5)
			}
		}
		v.Bars = append(v.Bars, b)
		if b.On {
			v.Chosen = b.Name
			if v.hasCause {
				g.Jobs = figures.With(g.Jobs, v.By, g.Key, v.Cause)
				values[i] = v.Measure.Of(g.Jobs)
			}
			for _, of := range figures.Groups(g.Jobs, figures.ByCause) {
				v.Causes = append(v.Causes, fmt.Sprintf("%s %d", name(figures.ByCause, of), len(of.Jobs)))
			}
			for _, j := range values[i].Jobs[:min(len(values[i].Jobs), mostList)] {
				one := v.Measure.Of([]*figures.Job{j})
				v.List = append(v.List, JobRow{j.Tag, j.Title, j.Customer, worded(&v.Measure, one.Value)})
			}
		}
	}
	all := v.Measure.Of(jobs)
	v.Unknown = len(jobs) - len(all.Jobs)
}

func (v *FiguresPage) waits(jobs []*figures.Job) {
	list := figures.Waits(jobs)
	for _, w := range list {
		v.Waits = append(v.Waits, Bar{Name: wording.Choice(unit.ScopeJob, "waiting", w.For),
			Value: fmt.Sprintf("%.1f days a job", w.Days), Of: wording.Counted(len(w.Jobs), "job", "jobs"),
			Share: int(100*w.Days/cmp.Or(list[0].Days, 1) + 0.5)})
	}
}
