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
			r.URL += "/told"
			for _, code := range row.Causes {
				r.Right = r.Right || code == row.Named
			}
		}
		v.Rows = append(v.Rows, r)
	}
	return nil
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
