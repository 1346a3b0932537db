package web

import (
	"strconv"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/core/wording"

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
func causeRoles() (out []Named) {
	for _, role := range unit.CauseRoles {
		out = append(out, Named{role, wording.Choice(unit.ScopeCause, "role", role)})
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

func (s *Server) addCause(c *echo.Context) error {
	return done(c, s.jobs.AddCause(c.Request().Context(), who(c), c.Param("tag"), unitNo(c), c.FormValue("role"),
		c.FormValue("code"), c.FormValue("words")))
}

func (s *Server) removeCause(c *echo.Context) error {
	number, err := strconv.Atoi(c.FormValue("number"))
	if err != nil {
		return field.Errorf("cause", "is not a cause of this unit")
	}
	return done(c, s.jobs.RemoveCause(c.Request().Context(), who(c), c.Param("tag"), unitNo(c), number))
}
