package jobpages

import (
	"fmt"
	"strings"
	"time"

	"corvek/core/wording"
	"corvek/internal/store"

	ics "github.com/arran4/golang-ical"
	"github.com/labstack/echo/v5"
)

// reminders is what the shop has to think of, as a calendar (RFC 5545): offers without an answer, calibrations that
// end, and what is asked back of a customer. An entry keeps its number, so that a calendar that takes the file
// again writes over what it had.
func (s *Pages) reminders(c *echo.Context) error {
	list, err := s.Store.Reminders(c.Request().Context())
	if err != nil {
		return err
	}
	now := s.Jobs.Now()
	cal := ics.NewCalendarFor("Corvek")
	cal.SetMethod(ics.MethodPublish)
	for _, r := range list {
		day := r.On.Time()
		e := cal.AddEvent(strings.ReplaceAll(fmt.Sprintf("%s@corvek", r.Key), " ", "-"))
		e.SetDtStampTime(now)
		e.SetAllDayStartAt(day)
		e.SetAllDayEndAt(day.Add(24 * time.Hour))
		e.SetSummary(reminderWords(r))
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="reminders.ics"`)
	return c.Blob(200, "text/calendar; charset=utf-8", []byte(cal.Serialize()))
}

// reminderWords say what is to be thought of.
func reminderWords(r store.Reminder) string {
	switch r.Kind {
	case store.RemindOffer:
		return fmt.Sprintf("%s %s: ask %s for the answer to the offer", r.Tag, r.Title, r.Who)
	case store.RemindCalibration:
		return r.Title + ": its calibration ends"
	}
	return fmt.Sprintf("%s %s: ask back, %s", r.Tag, r.Title, strings.ToLower(wording.Asked(r.What)))
}
