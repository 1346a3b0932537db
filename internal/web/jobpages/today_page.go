package jobpages

import (
	"time"

	"corvek/core/bench"

	"github.com/labstack/echo/v5"
)

// TodayPage is what today's knowledge makes of a unit that was handed over, beside what was
// worked out then. It changes nothing: pages and papers of the job stay as they went out.
type TodayPage struct {
	HandedOver time.Time
	At         time.Time // when it was worked out
	Later      bool      // after the hand-over, since nothing was kept on the day
	Things     int       // that were worked out
	Differs    []bench.Difference
	// Rules are what this version of the program works out otherwise, by what was known then.
	Rules []bench.Difference
}

// mostDiffering differences are shown.
const mostDiffering = 200

func (s *Pages) today(c *echo.Context) error {
	l, err := s.look(c, "receive")
	if err != nil {
		return err
	}
	t, err := s.Jobs.Today(c.Request().Context(), l.job.Tag, l.unitNo)
	if err != nil {
		return err
	}
	p := TodayPage{HandedOver: l.job.HandedOverAt, At: t.Frozen.At, Later: t.Frozen.Later, Things: len(t.Then),
		Differs: t.Then.Against(t.Now), Rules: t.Then.Against(t.Shown)}
	p.Differs = p.Differs[:min(len(p.Differs), mostDiffering)]
	p.Rules = p.Rules[:min(len(p.Rules), mostDiffering)]
	return s.renderBeside(c, "today", "By what is known today", l, p)
}
