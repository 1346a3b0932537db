package practicepages

import (
	"net/http"
	"time"

	"corvek/core/explain"
	"corvek/core/hidden"
	"corvek/core/practice"
	"corvek/internal/casebook"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// CaseRow is one of the reader's cases.
type CaseRow struct {
	Tag, URL, Family, Kind string
	BegunAt                time.Time
	Named                  bool
	Right                  bool
	Spent                  string
}

// CaseForm is what is asked before a case is put on the bench.
type CaseForm struct {
	Families []site.Named
	Kinds    []hidden.Kind
	Family   string
	Kind     string
	Fault    string
}

// cases lists the reader's cases and what can be begun.
func (s *Pages) cases(c *echo.Context, v *PracticePage) error {
	if s.book == nil {
		return nil
	}
	v.Cases = &CaseForm{Families: s.Families(), Kinds: hidden.Kinds, Family: c.FormValue("family"),
		Kind: c.FormValue("kind")}
	rows, err := s.Store.PracticeCases(c.Request().Context(), site.Who(c).ID)
	if err != nil {
		return err
	}
	for _, row := range rows {
		kind, _ := hidden.KindByCode(row.Kind)
		r := CaseRow{Tag: row.Tag, Kind: kind.Name, BegunAt: row.BegunAt, Named: row.NamedAt != nil,
			Spent: (&site.Practice{Minutes: casebook.Minutes(&row)}).Spent(), URL: "/jobs/" + row.Tag}
		if f := s.Jobs.Families()[row.Family]; f != nil {
			r.Family = f.Name
		}
		if r.Named {
			r.URL, r.Right = r.URL+"/told", row.Right()
		}
		v.Rows = append(v.Rows, r)
	}
	v.own(s, rows)
	return s.week(c, v)
}

// OwnRecord is what somebody tends to, for himself alone, and the case that is chosen for him next.
type OwnRecord struct {
	practice.Habits
	FamilyName, KindName string
}

// own tells what the reader tends to, by the cases that he named.
func (v *PracticePage) own(s *Pages, rows []store.PracticeCase) {
	var done []practice.Done
	for _, row := range rows {
		if row.NamedAt == nil {
			continue
		}
		d := practice.Done{Family: row.Family, Kind: row.Kind, Right: row.Right(),
			Early: row.Early, Late: row.Late, Unsaid: row.Unsaid}
		for _, at := range row.Missed {
			d.Missed = append(d.Missed, explain.Reach(at))
		}
		done = append(done, d)
	}
	var families []string
	for _, f := range v.Cases.Families {
		families = append(families, f.Code)
	}
	own := &OwnRecord{Habits: practice.HabitsOf(done, families)}
	if f := s.Jobs.Families()[own.Family]; f != nil {
		own.FamilyName = f.Name
	}
	kind, _ := hidden.KindByCode(own.Kind)
	own.KindName = kind.Name
	v.Own = own
}

// week is the case that a lead set for everybody, and whether the reader has it on his bench already.
func (s *Pages) week(c *echo.Context, v *PracticePage) error {
	set, err := s.Store.PracticeSetNow(c.Request().Context())
	if err != nil || set == nil {
		return err
	}
	kind, _ := hidden.KindByCode(set.Kind)
	v.Week = &WeekCase{Words: set.Words, By: set.ByName, Kind: kind.Name, On: set.SetOn}
	if f := s.Jobs.Families()[set.Family]; f != nil {
		v.Week.Family = f.Name
	}
	return nil
}

// WeekCase is it.
type WeekCase struct {
	Words, By, Family, Kind string
	On                      time.Time
}

// beginWeek puts it on the reader's bench, or goes to it.
func (s *Pages) beginWeek(c *echo.Context) error {
	if s.book == nil {
		return echo.ErrNotFound
	}
	tag, err := s.book.BeginSet(c.Request().Context(), site.Who(c))
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/jobs/"+tag+"/receive")
}

// setWeek sets a case for everybody: one that is drawn, or the unit of a finished job.
func (s *Pages) setWeek(c *echo.Context) error {
	if s.book == nil {
		return echo.ErrNotFound
	}
	ctx, who, words := c.Request().Context(), site.Who(c), c.FormValue("words")
	var err error
	if tag := c.FormValue("tag"); tag != "" {
		err = s.book.SetWritten(ctx, who, tag, words)
	} else {
		err = s.book.SetDrawn(ctx, who, c.FormValue("family"), c.FormValue("kind"), words)
	}
	if site.IsField(err) {
		return s.showPractice(c, http.StatusUnprocessableEntity, err)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/practice")
}

// begin puts a case on the reader's bench.
func (s *Pages) begin(c *echo.Context) error {
	if s.book == nil {
		return echo.ErrNotFound
	}
	tag, err := s.book.Begin(c.Request().Context(), site.Who(c), c.FormValue("family"), c.FormValue("kind"),
		casebook.Seed())
	if site.IsField(err) {
		return s.showPractice(c, http.StatusUnprocessableEntity, err)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/jobs/"+tag+"/receive")
}
