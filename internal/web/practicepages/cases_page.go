package practicepages

import (
	"net/http"
	"time"

	"corvek/core/hidden"
	"corvek/internal/casebook"
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
	if s.book == nil || !v.CanWork() {
		return nil
	}
	v.Cases = &CaseForm{Families: s.Families(), Kinds: hidden.Kinds, Family: c.FormValue("family"),
		Kind: c.FormValue("kind")}
	ctx, who := c.Request().Context(), site.Who(c)
	own, rows, err := s.record(ctx, who.ID)
	if err != nil {
		return err
	}
	if v.First, err = s.Jobs.First(ctx, who.ID); err != nil {
		return err
	}
	for _, row := range rows {
		r := CaseRow{Tag: row.Tag, BegunAt: row.BegunAt, Named: row.NamedAt != nil,
			Spent: (&site.Practice{Minutes: casebook.Minutes(&row)}).Spent(), URL: "/jobs/" + row.Tag}
		r.Family, r.Kind = s.names(row.Family, row.Kind)
		if r.Named {
			r.URL, r.Right = r.URL+"/told", row.Right()
		}
		v.Rows = append(v.Rows, r)
	}
	v.Own = own
	return s.week(c, v)
}

// week is the case that a lead set for everybody, and whether the reader has it on his bench already.
func (s *Pages) week(c *echo.Context, v *PracticePage) error {
	set, err := s.Store.PracticeSetNow(c.Request().Context())
	if err != nil || set == nil {
		return err
	}
	v.Week = &WeekCase{Words: set.Words, By: set.ByName, On: set.SetOn}
	v.Week.Family, v.Week.Kind = s.names(set.Family, set.Kind)
	return nil
}

// names are those of a family and of a kind of case.
func (s *Pages) names(of, kind string) (family, hard string) {
	if f := s.Jobs.Families()[of]; f != nil {
		family = f.Name
	}
	k, _ := hidden.KindByCode(kind)
	return family, k.Name
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
