package jobpages

import (
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/answer"
	"corvek/internal/job"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// mostLines of the record are shown at once.
const mostLines = 500

// RecordPage is who did what on a job, and what was worked out for it.
type RecordPage struct {
	Worked []answer.Worked
	Lines  []RecordLine
	Holds  store.Verdict
	Guard  store.Guard
}

// RecordLine is a line of the record with what it is about in words.
type RecordLine struct {
	unit.Entry
	What string
}

func recordLines(l *look, entries []unit.Entry) (out []RecordLine) {
	for _, e := range entries {
		what := e.Action
		if e.Field != "" {
			what = wording.Where(l.job, l.st.Families, e.Field)
			e.Before, e.After = site.ValueWords(e.Field, e.Before), site.ValueWords(e.Field, e.After)
		}
		switch e.Action {
		case "undo":
			what = "Taken back: " + what
		case job.ReadAgain:
			what += ", read once more"
		}
		out = append(out, RecordLine{e, what})
	}
	return out
}

func (s *Pages) record(c *echo.Context) error {
	l, err := s.look(c, "receive")
	if err != nil {
		return err
	}
	lines, err := s.Store.Record(c.Request().Context(), l.job.Tag, mostLines)
	if err != nil {
		return err
	}
	holds, err := s.Store.VerifyJob(c.Request().Context(), l.job.Tag)
	if err != nil {
		return err
	}
	guard, err := s.Store.Guard(c.Request().Context())
	if err != nil {
		return err
	}
	page := RecordPage{answer.Kept(l.job, l.Units), recordLines(l, lines), holds, guard}
	return s.renderBeside(c, "record", "Record", l, page)
}
