package practicepages

import (
	"html/template"
	"net/http"
	"strconv"

	"corvek/core/hidden"
	"corvek/core/practice"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/instrument"
	"corvek/internal/line"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// reading is an instrument at a setting: one by its seed, or another by chance; in the reader's units where none are
// said.
func (s *Pages) reading(c *echo.Context) (*question, error) {
	kind, known := practice.KindByCode(c.Param("code"))
	if !known {
		return nil, echo.ErrNotFound
	}
	other := quantity.MetricPsi
	if kind.Inch {
		other = quantity.InchBar
	}
	seed, inch := s.asked(c, other)
	e := practice.New(kind, inch, seed)
	q := &question{Code: kind.Code, Title: kind.Name,
		What: kind.What, Asks: e.Asks, judge: e.Judge, Inch: inch, Seed: seed,
		Drawing: template.HTML(instrument.Draw(e)), Wide: e.Caliper != nil || e.Barrel != nil,
		URL: "/practice/reading/" + kind.Code, Helps: true}
	for _, k := range practice.Kinds() {
		q.Others = append(q.Others, Link{k.Name, "/practice/reading/" + k.Code, k.Code == kind.Code})
	}
	if c.FormValue("help") != "" {
		q.Aloud = e.Aloud()
	}
	return q, nil
}

// drill is a short question: one by its seed, or another by chance.
func (s *Pages) drill(c *echo.Context) (*question, error) {
	d, known := practice.DrillByCode(c.Param("code"))
	if !known {
		return nil, echo.ErrNotFound
	}
	seed, inch := s.asked(c, quantity.InchBar)
	t := practice.NewTask(d, inch, seed, s.Jobs.Families())
	q := &question{Code: d.Code, Title: d.Name,
		What: d.What, Says: t.Says, Asks: t.Asks, judge: t.Judge, Inch: inch, Seed: seed,
		URL: "/practice/drill/" + d.Code}
	if t.Line != nil {
		drawing, err := s.line(c, t.Line)
		if err != nil {
			return nil, err
		}
		q.Drawing = drawing
	}
	for _, k := range practice.Drills() {
		q.Others = append(q.Others, Link{k.Name, "/practice/drill/" + k.Code, k.Code == d.Code})
	}
	return q, nil
}

// line is a sound unit pulled apart, with a part of it marked.
func (s *Pages) line(c *echo.Context, at *practice.Line) (template.HTML, error) {
	known, err := s.Jobs.Known(c.Request().Context(), site.Who(c).Name)
	if err != nil {
		return "", err
	}
	shop := &hidden.Shop{Catalog: known.Catalog, Knowledge: s.Jobs.Knowledge, Entry: known.Entry,
		Day: unit.DateOf(s.Jobs.Now())}
	st, err := shop.SoundState(at.Family)
	if err != nil {
		return "", err
	}
	return template.HTML(line.Layer{Station: "strip", Selected: at.Part}.Draw(st)), nil
}

// Link is what else can be practised.
type Link struct {
	Name, URL string
	On        bool
}

// PracticePage is what can be practised.
type PracticePage struct {
	site.Reader
	Kinds, Drills []Link
	Lessons       []Link
	Cases         *CaseForm // nil where there is no bench of practice
	Rows          []CaseRow
	Own           *OwnRecord
	First         practice.First
	Shown         []ShownRecord // by others, to a lead
	Week          *WeekCase
	Set           []site.Plain // of what a lead sets for everybody
	Nobody        []string     // what nobody in the shop does for sure, for a lead
}

func (s *Pages) practice(c *echo.Context) error { return s.showPractice(c, http.StatusOK, nil) }

func (s *Pages) showPractice(c *echo.Context, status int, fault error) error {
	v := PracticePage{Reader: s.Reader(c)}
	if err := s.cases(c, &v); err != nil {
		return err
	}
	v.Set = site.PlainForm(fault,
		site.Plain{Name: "words", Label: "What it is, in a line", Value: c.FormValue("words")},
		site.Plain{Name: "tag", Label: "Or a finished job's tag; names are left out", Value: c.FormValue("tag")})
	if fault != nil {
		v.Cases.Fault = site.Besides(fault, v.Set)
	}
	for i, l := range practice.Course() {
		v.Lessons = append(v.Lessons, Link{strconv.Itoa(i+1) + " " + l.Title, "/practice/lesson/" + l.Code, false})
	}
	for _, k := range practice.Kinds() {
		v.Kinds = append(v.Kinds, Link{k.Name, "/practice/reading/" + k.Code, false})
	}
	for _, d := range practice.Drills() {
		v.Drills = append(v.Drills, Link{d.Name, "/practice/drill/" + d.Code, false})
	}
	if v.CanLead() {
		ctx := c.Request().Context()
		var err error
		if _, v.Nobody, err = s.tried(ctx, 0); err != nil {
			return err
		}
		if v.Shown, err = s.shown(ctx); err != nil {
			return err
		}
	}
	return s.Render(c, status, "practice", "Practice", v)
}
