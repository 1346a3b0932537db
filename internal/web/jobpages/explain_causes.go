package jobpages

import (
	"strconv"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// FurtherRow is one of several causes of a failure, beside the roots concluded.
type FurtherRow struct {
	bench.Named
	Did    string // its part in the failure
	Lies   Choice // asked of a cause in free words
	Fields []Entry
}

// causeRoles are the parts a further cause can have, in words.
func causeRoles() (out []site.Named) {
	for _, role := range unit.CauseRoles {
		out = append(out, site.Named{Code: role, Name: wording.Choice(unit.ScopeCause, "role", role)})
	}
	return out
}

// further lays out the roots of earlier rounds, which stay, and the other causes.
func (p *ExplainPage) further(l *look) {
	for _, n := range l.st.Causes() {
		if n.Number == 0 {
			if n.Code != l.st.Conclude.Cause {
				p.Earlier = append(p.Earlier, n)
			}
			continue
		}
		row := FurtherRow{Named: n, Did: wording.Choice(unit.ScopeCause, "role", n.Role)}
		row.Fields = []Entry{l.field(l.unit.CauseRef(n.Number, "action")).With(n.Wants),
			l.field(l.unit.CauseRef(n.Number, "owner"))}
		if n.Code == "" {
			row.Lies = l.choose(l.unit.CauseRef(n.Number, "lies")).Named(n.Name + ": where it lies").Wrap()
		}
		p.Further = append(p.Further, row)
	}
}

func (s *Pages) addCause(c *echo.Context) error {
	return site.Done(
		c,
		s.Jobs.AddCause(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("role"),
			c.FormValue("code"), c.FormValue("words")),
	)
}

func (s *Pages) removeCause(c *echo.Context) error {
	number, err := strconv.Atoi(c.FormValue("number"))
	if err != nil {
		return field.Errorf("cause", "is not a cause of this unit")
	}
	return site.Done(c, s.Jobs.RemoveCause(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), number))
}
