package shoppages

import (
	"net/http"
	"strings"
	"time"

	"corvek/core/field"
	"corvek/core/quantity"
	"corvek/core/shop"
	"corvek/core/unit"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// InstrumentRow is a measuring tool with how its calibration stands.
type InstrumentRow struct {
	shop.Instrument
	Overdue, Soon bool
	Due           string
	Lost          string
}

func instrumentRows(list []shop.Instrument, today unit.Date) []InstrumentRow {
	var out []InstrumentRow
	for _, i := range list {
		r := InstrumentRow{Instrument: i, Due: "no calibration kept"}
		if i.DueOn != nil {
			r.Due, r.Overdue = "due "+i.DueOn.Format("2 Jan 2006"), i.Overdue(today)
			r.Soon = i.Soon(today)
		}
		r.Lost = lostWords(i.LostOn)
		out = append(out, r)
	}
	return out
}

func (s *Pages) instruments(c *echo.Context) error {
	return s.renderInstruments(c, http.StatusOK, nil)
}

// InstrumentsPage is the page of the shop's measuring tools.
type InstrumentsPage struct {
	site.Reader
	Rows                  []InstrumentRow
	Error                 *field.Error
	Name, Kind, Res, DueS string
	Class, Full           string // of a gauge of the stand
	Permitted             string // of a length instrument: its largest error, as certified
	Setting               string // of one that compares: that of the ring it is set by
}

func (s *Pages) renderInstruments(c *echo.Context, status int, v *InstrumentsPage) error {
	list, err := s.Store.Instruments(c.Request().Context())
	if err != nil {
		return err
	}
	if v == nil {
		v = &InstrumentsPage{}
	}
	v.Rows = instrumentRows(list, unit.DateOf(s.Jobs.Now()))
	v.Reader = s.Reader(c)
	return s.Render(c, status, "instruments", "Instruments", v)
}

func (s *Pages) saveInstrument(c *echo.Context) error {
	v := &InstrumentsPage{Name: strings.TrimSpace(c.FormValue("name")),
		Kind: strings.TrimSpace(c.FormValue("kind")), Res: strings.TrimSpace(c.FormValue("resolution")),
		DueS: strings.TrimSpace(c.FormValue("due_on")), Class: strings.TrimSpace(c.FormValue("class")),
		Full: strings.TrimSpace(c.FormValue("full_scale")), Permitted: strings.TrimSpace(c.FormValue("permitted")),
		Setting: strings.TrimSpace(c.FormValue("setting"))}
	row := shop.Instrument{Name: v.Name, Kind: v.Kind, Resolution: v.Res, Class: v.Class, FullScale: v.Full,
		Permitted: v.Permitted, Setting: v.Setting}
	switch {
	case v.Name == "":
		v.Error = field.Errorf("name", "say which one it is, as it is marked")
	case v.Kind == "":
		v.Error = field.Errorf("kind", "say what it is: micrometer, bore gauge")
	default:
		v.Error = gaugeFault(v.Res, v.Class, v.Full)
	}
	if q, err := quantity.Parse(v.Permitted, quantity.Length); v.Permitted != "" && v.Error == nil &&
		(err != nil || q.SI <= 0) {
		v.Error = field.Errorf("permitted", "is a length, as its certificate has it: 0.004 mm")
	}
	if q, err := quantity.Parse(v.Setting, quantity.Length); v.Setting != "" && v.Error == nil &&
		(err != nil || q.SI <= 0) {
		v.Error = field.Errorf("setting", "is a length, as the certificate of the ring has it: 0.002 mm")
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
	if err := s.Store.SaveInstrument(c.Request().Context(), &row); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/instruments")
}

// readable are what a measuring tool of the shop can read.
var readable = []quantity.Dimension{quantity.Length, quantity.Pressure, quantity.Flow, quantity.Temperature,
	quantity.Torque, quantity.Force, quantity.Rotation, quantity.Volume}

// mostClass is the coarsest class of a gauge in percent of full scale (EN 837-1 ends at 4).
const mostClass = 10

// gaugeFault says what is wrong with how a tool is described, nil for nothing.
func gaugeFault(resolution, class, full string) *field.Error {
	_, wrong := quantity.Parse(resolution, quantity.Length)
	for _, dim := range readable {
		q, err := quantity.Parse(resolution, dim)
		if err != nil {
			continue
		}
		if q.SI <= 0 {
			return field.Errorf("resolution", "must be more than zero")
		}
		if class != "" {
			c, err := quantity.Parse(class, quantity.Number)
			if err != nil || c.SI <= 0 || c.SI > mostClass {
				return field.Errorf("class", "is the largest error in percent of full scale, like 1.6")
			}
		}
		if (class == "") != (full == "") {
			return field.Errorf("full_scale", "class and full scale go together")
		}
		if full != "" {
			if f, err := quantity.Parse(full, dim); err != nil {
				return field.Errorf("full_scale", "%s", err)
			} else if f.SI < q.SI {
				return field.Errorf("full_scale", "is less than its resolution")
			}
		}
		return nil
	}
	return field.Errorf("resolution", "%s", wrong)
}
