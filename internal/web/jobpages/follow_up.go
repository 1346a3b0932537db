package jobpages

import (
	"strconv"

	"corvek/core/handover"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/people"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// GivenBack is something that goes back to the customer with the unit.
type GivenBack struct {
	Name string
	Press
}

// BackRow is something that is asked back of a job, and what came of it.
type BackRow struct {
	Number           int
	Tag, Title, What string
	Due              string
	Late             bool
	Answer           string // "" while none came
}

// backRows lays out what is asked back of a job.
func backRows(list []*unit.FollowUp, today unit.Date) (out []BackRow) {
	for _, f := range list {
		r := BackRow{Number: f.Number, What: wording.Asked(f.Kind), Due: f.DueOn.Time().Format("2 Jan 2006"),
			Late: !f.Answered() && f.DueOn < today}
		if f.Answered() {
			r.Answer = wording.CameBack(f.Result)
			if f.Note != "" {
				r.Answer += ": " + f.Note
			}
			r.Answer += " (" + f.AnsweredBy + ", " + f.AnsweredAt.Format("2 Jan 2006") + ")"
		}
		out = append(out, r)
	}
	return out
}

// dueRows lays out what is due of all jobs.
func dueRows(list []store.FollowUp, today unit.Date) (out []BackRow) {
	for _, f := range list {
		out = append(out, BackRow{Tag: f.Tag, Title: f.Title, What: wording.Asked(f.Kind),
			Due: f.DueOn.Format("2 Jan 2006"), Late: unit.DateOf(f.DueOn) < today})
	}
	return out
}

// asked fills in what is asked back, and what can be.
func (p *HandoverPage) asked(list []*unit.FollowUp, today unit.Date) {
	p.Back, p.MayAsk = backRows(list, today), p.Person.May(people.RoleTechnician)
	for _, kind := range handover.Asks {
		p.Asks = append(p.Asks, site.Named{Code: kind, Name: wording.Asked(kind)})
	}
	for _, result := range handover.Results {
		p.Results = append(p.Results, site.Named{Code: result, Name: wording.CameBack(result)})
	}
}

func (s *Pages) askBack(c *echo.Context) error {
	return site.Done(
		c,
		s.Jobs.AskBack(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("kind"),
			c.FormValue("due_on")),
	)
}

func (s *Pages) answerBack(c *echo.Context) error {
	number, err := strconv.Atoi(c.Param("id"))
	if err != nil {
		return store.ErrNotFound
	}
	return site.Done(
		c,
		s.Jobs.AnswerBack(c.Request().Context(), site.Who(c), c.Param("tag"), number, c.FormValue("result"),
			c.FormValue("note")),
	)
}
