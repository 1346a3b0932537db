package jobpages

import (
	"corvek/core/handover"
	"fmt"
	"log/slog"
	"net/http"
	"slices"
	"strconv"
	"time"

	"corvek/core/bench"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/answer"
	"corvek/internal/document"
	"corvek/internal/job"
	"corvek/internal/papers"
	"corvek/internal/people"
	"corvek/internal/report"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// HandoverPage is what is still open over all stations, and the papers.
type HandoverPage struct {
	JobPage
	Found        []bench.Named // causes, with who does what
	HandedOver   bool
	HandedOverAt time.Time
	MayReopen    bool
	Reopened     []*unit.Reopening
	Open, Waived []StopRow
	Withdrawn    bool
	// WithdrawnWords say when, by whom and why.
	WithdrawnWords string
	MayWithdraw    bool
	Kept           []store.Paper // as they were on the day
	Stands         report.Standing
	Seal           document.Seal
	MaySign        bool
	NeedsSign      bool // the shop lets nothing go before that
	Papers         []PaperLink
	Ending         Choice
	EndingNote     *Entry // asked where the unit was not rebuilt
	Lesson         Entry
	OperatorNote   Entry
	LessonAt       Choice
	Collected      Entry
	WorkedHours    Entry
	Gave           []GivenBack
	Back           []BackRow // what is asked back
	Asks, Results  []site.Named
	MayAsk         bool     // and answer, on a closed job too
	Flushed        []Entry  // asked when something broke up
	Flushes        []Choice // the places where pieces can lie
	Sump           *Entry   // asked when another sump gained
	Worked         []answer.Worked
	Pictures       []*PictureView
}

func handoverPage(l *look, kept []store.Paper, signed handover.SignOff) HandoverPage {
	lead := l.Person.May(people.RoleLead)
	p := HandoverPage{JobPage: l.page(), Found: l.st.Causes(),
		HandedOver: l.job.HandedOver(), HandedOverAt: l.job.HandedOverAt,
		MayReopen: l.job.Closed() && lead, Reopened: l.job.Reopenings, Kept: givenOut(kept),
		Withdrawn: l.job.Withdrawn(), MayWithdraw: !l.job.Withdrawn() && lead,
		Seal: report.Seal(signed), MaySign: lead && !l.job.Withdrawn(),
		NeedsSign: l.st.Shop.LeadSigns && !signed.Holds(),
		Stands:    report.Stands(l.st, l.Units),
		Ending:    l.choose(l.unit.Ref("ending")).Named("Ends otherwise than rebuilt").Wrap(),
		Lesson:    l.field(unit.JobRef("lesson")), OperatorNote: l.field(unit.JobRef("operator_note")),
		LessonAt:    l.choose(unit.JobRef("lesson_at")).Named("The lesson matters at").Wrap(),
		WorkedHours: l.field(unit.JobRef("worked_hours")),
		Collected: l.field(
			unit.JobRef("collected_by"),
		), Worked: answer.Kept(l.job, l.Units), Pictures: l.pictures()}
	p.Papers = l.papers(p.JobPage)
	p.Gave = []GivenBack{{"the old parts", l.toggle(unit.JobRef("gave_old_parts"), l.job.GaveOldParts)},
		{"the old springs", l.toggle(unit.JobRef("gave_springs"), l.job.GaveSprings)},
		{"the start-up card", l.toggle(unit.JobRef("gave_card"), l.job.GaveCard)}}
	if p.Withdrawn {
		p.WithdrawnWords = fmt.Sprintf("%s by %s: %s", l.job.WithdrawnAt.Format("2 Jan 2006"), l.job.WithdrawnBy,
			l.job.WithdrawnReason)
	}
	if l.unit.Ending != unit.EndRebuilt {
		note := l.field(l.unit.Ref("ending_note"))
		p.EndingNote = &note
	}
	if l.st.BrokenUp() || l.unit.Flushed != "" {
		p.Flushed = l.ofUnit("flushed_by", "flushed")
		for _, place := range unit.FlushPlaces {
			p.Flushes = append(p.Flushes, l.choose(l.unit.FlushRef(place)).Named(wording.Plain(place)))
		}
	}
	if !l.unit.GainedElsewhere.IsZero() {
		sump := l.field(l.unit.Ref("other_sump"))
		p.Sump = &sump
	}
	for _, code := range unit.Stations {
		for _, stop := range l.st.Stops[code] {
			if row := l.stopRow(stop); row.Waived != nil {
				p.Waived = append(p.Waived, row)
			} else {
				p.Open = append(p.Open, row)
			}
		}
	}
	return p
}

// givenOut leaves out what was kept as data beside the papers.
func givenOut(kept []store.Paper) []store.Paper {
	return slices.DeleteFunc(kept, func(p store.Paper) bool { return p.MediaType == job.MediaPacked })
}

// PaperLink leads to a paper of the unit, as a page and as a PDF.
type PaperLink struct{ Name, For, Page, PDF string }

// papers are all that can be printed of the unit, those that go out with it first.
func (l *look) papers(p JobPage) (out []PaperLink) {
	add := func(path, name, use string) {
		out = append(out, PaperLink{name, use, p.Act(path), p.Act(path + ".pdf")})
	}
	add("report", "Findings report", "what was found, done and tested")
	if l.unit.Owes("prove") {
		add("certificate", "Test certificate", "what the test shows, and no more")
	}
	add("start-up-card", report.NoteOf(l.st, l.Units).Title, "goes with the unit")
	add("quote", "Offer", "what it takes, for the customer")
	add("delivery-note", "Delivery note", "goes with what he gets back")
	add("invoice", "Invoice basis", "what was done, against what was agreed")
	add("dispute", "State of the evidence", "for a warranty or a dispute")
	add("tag", "Tote tag", "hangs on the tote")
	if l.job.HandedOver() {
		out = append(out, PaperLink{Name: "By what is known today", For: "beside what was worked out then",
			Page: p.Act("today")})
	}
	return append(out, PaperLink{Name: "Job file", For: "JSON and pictures", Page: p.Act("export")},
		PaperLink{Name: "Record", For: "who did what", Page: p.Act("record")})
}

func (s *Pages) reopen(c *echo.Context) error {
	return site.Done(c, s.Jobs.Reopen(c.Request().Context(), site.Who(c), c.Param("tag"), c.FormValue("reason"),
		c.FormValue("touches")))
}

// handOver closes the job and keeps the papers of the day. A program that is
// stopped between the two makes up for it when it runs again.
func (s *Pages) handOver(c *echo.Context) error {
	ctx, tag := c.Request().Context(), c.Param("tag")
	if err := s.Jobs.HandOver(ctx, site.Who(c), tag); err != nil {
		return err
	}
	if err := papers.Keep(ctx, s.Jobs, site.Who(c), tag, site.Opened(c)); err != nil {
		slog.Error("the papers of the day were not kept yet", "job", tag, "error", err)
	}
	return site.OK(c, nil)
}

func (s *Pages) withdraw(c *echo.Context) error {
	return site.Done(
		c,
		s.Jobs.Withdraw(c.Request().Context(), site.Who(c), c.Param("tag"), c.FormValue("withdraw_reason")),
	)
}

// keptPaper sends a paper as it was on the day of a hand-over.
func (s *Pages) keptPaper(c *echo.Context) error {
	number, err := strconv.Atoi(c.Param("number"))
	if err != nil || number > job.MostReopenings+1 {
		return store.ErrNotFound
	}
	p, err := s.Store.Paper(c.Request().Context(), c.Param("tag"), number, c.Param("name"))
	if err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`inline; filename="%s-%d-%s"`,
		safeName(c.Param("tag")), p.HandOver, safeName(p.Name)))
	return c.Blob(http.StatusOK, p.MediaType, p.Content)
}
