package web

import (
	"time"

	"corvek/core/unit"
	"corvek/internal/answer"
	"corvek/internal/job"

	"github.com/labstack/echo/v5"
)

// HandoverPage is what is still open over all stations, and the papers.
type HandoverPage struct {
	JobPage
	HandedOver   bool
	HandedOverAt time.Time
	MayReopen    bool
	Reopened     []*unit.Reopening
	Open, Waived []StopRow
	Lesson       Entry
	Flushed      *Entry // asked when something broke up
	Worked       []answer.Worked
	Pictures     []*PictureView
}

func handoverPage(l *look) HandoverPage {
	p := HandoverPage{JobPage: l.page(), HandedOver: l.job.HandedOver(), HandedOverAt: l.job.HandedOverAt,
		MayReopen: l.job.HandedOver() && l.Person.May(job.RoleLead), Reopened: l.job.Reopenings,
		Lesson: l.field(unit.JobRef("lesson")), Worked: answer.Kept(l.job, l.Units), Pictures: l.pictures()}
	if l.st.BrokenUp() || l.unit.Flushed != "" {
		flushed := l.field(l.unit.Ref("flushed"))
		p.Flushed = &flushed
	}
	for _, code := range job.Stations {
		for _, stop := range l.st.Stops[code] {
			if row := l.stopRow(stop); row.Passed != nil {
				p.Waived = append(p.Waived, row)
			} else {
				p.Open = append(p.Open, row)
			}
		}
	}
	return p
}

func (s *Server) reopen(c *echo.Context) error {
	return done(c, s.jobs.Reopen(c.Request().Context(), who(c), c.Param("tag"), c.FormValue("reason")))
}

func (s *Server) handOver(c *echo.Context) error {
	return done(c, s.jobs.HandOver(c.Request().Context(), who(c), c.Param("tag")))
}
