package web

import (
	"corvek/core/unit"
	"corvek/internal/answer"
	"corvek/internal/store"

	"github.com/labstack/echo/v5"
)

// mostLines of the record are shown at once.
const mostLines = 500

// RecordPage is who did what on a job, and what was worked out for it.
type RecordPage struct {
	Worked []answer.Worked
	Lines  []unit.Entry
	Holds  store.Verdict
	Guard  store.Guard
}

func (s *Server) record(c *echo.Context) error {
	l, err := s.look(c, "receive")
	if err != nil {
		return err
	}
	lines, err := s.store.Record(c.Request().Context(), l.job.Tag, mostLines)
	if err != nil {
		return err
	}
	holds, err := s.store.VerifyJob(c.Request().Context(), l.job.Tag)
	if err != nil {
		return err
	}
	guard, err := s.store.Guard(c.Request().Context())
	if err != nil {
		return err
	}
	return s.renderBeside(c, "record", "Record", l, RecordPage{answer.Kept(l.job, l.Units), lines, holds, guard})
}
