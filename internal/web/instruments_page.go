package web

import (
	"net/http"
	"strings"
	"time"

	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/store"

	"github.com/labstack/echo/v5"
)

// InstrumentRow is a measuring tool with how its calibration stands.
type InstrumentRow struct {
	store.Instrument
	Overdue bool
	Due     string
}

func instrumentRows(list []store.Instrument, today unit.Date) []InstrumentRow {
	var out []InstrumentRow
	for _, i := range list {
		r := InstrumentRow{Instrument: i, Due: "no calibration kept"}
		if i.DueOn != nil {
			r.Due, r.Overdue = "due "+i.DueOn.Format("2 Jan 2006"), job.Overdue(i, today)
		}
		out = append(out, r)
	}
	return out
}

func (s *Server) instruments(c *echo.Context) error {
	return s.renderInstruments(c, http.StatusOK, nil)
}

// InstrumentsPage is the page of the shop's measuring tools.
type InstrumentsPage struct {
	Reader
	Rows                  []InstrumentRow
	Error                 *field.Error
	Name, Kind, Res, DueS string
}

func (s *Server) renderInstruments(c *echo.Context, status int, v *InstrumentsPage) error {
	list, err := s.store.Instruments(c.Request().Context())
	if err != nil {
		return err
	}
	if v == nil {
		v = &InstrumentsPage{}
	}
	v.Rows = instrumentRows(list, unit.DateOf(s.jobs.Now()))
	v.Reader = s.reader(c)
	return s.render(c, status, "instruments", "Instruments", v)
}

func (s *Server) saveInstrument(c *echo.Context) error {
	v := &InstrumentsPage{Name: strings.TrimSpace(c.FormValue("name")),
		Kind: strings.TrimSpace(c.FormValue("kind")), Res: strings.TrimSpace(c.FormValue("resolution")),
		DueS: strings.TrimSpace(c.FormValue("due_on"))}
	row := store.Instrument{Name: v.Name, Kind: v.Kind, Resolution: v.Res}
	switch {
	case v.Name == "":
		v.Error = field.Errorf("name", "say which one it is, as it is marked")
	case v.Kind == "":
		v.Error = field.Errorf("kind", "say what it is: micrometer, bore gauge")
	default:
		if q, err := quantity.Parse(v.Res, quantity.Length); err != nil {
			v.Error = field.Errorf("resolution", "%s", err)
		} else if q.SI <= 0 {
			v.Error = field.Errorf("resolution", "must be more than zero")
		}
	}
	if v.DueS != "" && v.Error == nil {
		t, err := time.Parse(time.DateOnly, v.DueS)
		if err != nil {
			v.Error = field.Errorf("due_on", "is a date like 2031-05-27")
		}
		row.DueOn = &t
	}
	if v.Error != nil {
		return s.renderInstruments(c, http.StatusUnprocessableEntity, v)
	}
	if err := s.store.SaveInstrument(c.Request().Context(), &row); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/instruments")
}
