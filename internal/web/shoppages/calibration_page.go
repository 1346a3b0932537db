package shoppages

import (
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"corvek/core/field"
	"corvek/core/shop"
	"corvek/core/unit"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// InstrumentPage is one measuring tool, with what its calibrations found.
type InstrumentPage struct {
	site.Reader
	Tool    InstrumentRow
	History []shop.Calibration
	Doubt   []store.ReadWith // read with it since it last held, where it was found out
	Since   unit.Date        // when that was, "" where never
	InDoubt bool
	Form    []site.Plain
	Results []string
	Result  string
	Fault   string
}

// readFrom is from when on readings are in doubt of a tool that never held before.
const readFrom = unit.Date("1990-01-01")

func (s *Pages) instrument(c *echo.Context) error { return s.renderInstrument(c, http.StatusOK, nil) }

func (s *Pages) renderInstrument(c *echo.Context, status int, fault *field.Error) error {
	ctx := c.Request().Context()
	tool, err := s.tool(c)
	if err != nil {
		return err
	}
	today := unit.DateOf(s.Jobs.Now())
	v := InstrumentPage{Reader: s.Reader(c), Tool: instrumentRows([]shop.Instrument{*tool}, today)[0],
		Results: shop.CalibrationResults, Result: c.FormValue("result")}
	if v.History, err = s.Store.Calibrations(ctx, tool.ID); err != nil {
		return err
	}
	if len(v.History) > 0 && v.History[0].Result == shop.CalibrationOut {
		v.InDoubt = true
		for _, k := range v.History[1:] {
			if k.Result != shop.CalibrationOut {
				v.Since = k.On
				break
			}
		}
		from := v.Since
		if from == "" {
			from = readFrom
		}
		if v.Doubt, err = s.Store.ReadWith(ctx, tool.Name, from); err != nil {
			return err
		}
	}
	values := map[string]string{"on": string(today)}
	if fault != nil {
		for _, name := range []string{"on", "due_on", "note"} {
			values[name] = c.FormValue(name)
		}
	}
	var wrong error
	if fault != nil {
		wrong = fault
	}
	v.Form = site.PlainForm(wrong,
		site.Plain{Name: "on", Label: "Calibrated on", Value: values["on"]},
		site.Plain{Name: "due_on", Label: "Good until", Value: values["due_on"], Help: "2031-05-27"},
		site.Plain{Name: "note", Label: "By whom, and the number of the certificate", Value: values["note"]})
	v.Fault = site.Besides(wrong, v.Form)
	return s.Render(c, status, "instrument", tool.Name, v)
}

// tool is the one of the address.
func (s *Pages) tool(c *echo.Context) (*shop.Instrument, error) {
	id, err := strconv.ParseUint(c.Param("id"), 10, 32)
	if err != nil {
		return nil, store.ErrNotFound
	}
	return s.Store.Instrument(c.Request().Context(), uint(id))
}

// mostNoted is how long a note may be.
const mostNoted = 200

func (s *Pages) calibrated(c *echo.Context) error {
	tool, err := s.tool(c)
	if err != nil {
		return err
	}
	k, fault := readCalibration(c, unit.DateOf(s.Jobs.Now()))
	if fault != nil {
		return s.renderInstrument(c, http.StatusUnprocessableEntity, fault)
	}
	k.InstrumentID, k.ByName = tool.ID, site.Who(c).Name
	if err := s.Store.Calibrate(c.Request().Context(), k, tool.Name+" calibrated: "+k.Result); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/instruments/"+c.Param("id"))
}

func readCalibration(c *echo.Context, today unit.Date) (*shop.Calibration, *field.Error) {
	k := &shop.Calibration{Result: c.FormValue("result"), Note: strings.TrimSpace(c.FormValue("note"))}
	var ok bool
	if k.On, ok = unit.ParseDate(c.FormValue("on")); !ok || k.On > today {
		return nil, field.Errorf("on", "is a day like 2031-05-27, not after today")
	}
	if text := strings.TrimSpace(c.FormValue("due_on")); text != "" {
		due, ok := unit.ParseDate(text)
		if !ok || due <= k.On {
			return nil, field.Errorf("due_on", "is a day like 2031-05-27, after the calibration")
		}
		t := due.Time()
		k.DueOn = &t
	}
	switch {
	case !slices.Contains(shop.CalibrationResults, k.Result):
		return nil, field.Errorf("result", "say how it was found, before anything was set")
	case len([]rune(k.Note)) > mostNoted:
		return nil, field.Errorf("note", "is longer than %d letters", mostNoted)
	}
	return k, nil
}

func (s *Pages) lost(c *echo.Context) error {
	return s.lostOrFound(c, unit.DateOf(s.Jobs.Now()), "lost")
}

func (s *Pages) found(c *echo.Context) error { return s.lostOrFound(c, "", "found again") }

func (s *Pages) lostOrFound(c *echo.Context, since unit.Date, what string) error {
	tool, err := s.tool(c)
	if err != nil {
		return err
	}
	if err := s.Store.Lost(c.Request().Context(), tool.ID, since, site.Who(c).Name, tool.Name+" "+what); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/instruments/"+c.Param("id"))
}

// lostWords say since when a tool is not found, "" while it is there.
func lostWords(t *time.Time) string {
	if t == nil {
		return ""
	}
	return "lost since " + t.Format("2 Jan 2006")
}
