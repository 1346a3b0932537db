package jobpages

import (
	"corvek/core/bench"
	"corvek/core/unit"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// StopRow is something open, with where it is settled and how it is waived.
type StopRow struct {
	Station, Code, Text, URL string
	Waived                   *unit.Waiver // nil while it is open
	Waive                    string       // where a waiver goes; "" for who may not
	CSRF                     string
}

func (l *look) stopRow(s bench.Stop) StopRow {
	r := StopRow{Station: s.Station, Code: s.StopCode.String(), Text: s.Text,
		URL: l.stopURL(s), Waived: s.Waived, CSRF: l.CSRF}
	if l.CanLead() {
		r.Waive = l.page().Act("pass")
	}
	return r
}

// stopURL leads to what settles a stop, where it stands on its page.
func (l *look) stopURL(s bench.Stop) string {
	part, at := s.Part, ""
	switch s.Kind {
	case unit.StopCaution:
		part, at = "", "caution-"+s.Part
	case unit.StopGauges:
		return withQuery(l.link("receive", "", ""), "face=gauges") + "#panel"
	case unit.StopComplaint:
		at = fieldID(unit.JobRef("complaint"))
	case unit.StopDisplacement, unit.StopSpeed, unit.StopDutyPressure:
		at = fieldID(l.unit.Ref(string(s.Kind)))
	case unit.StopBaseline:
		at = "received"
	case unit.StopStillOn, unit.StopUnfitted:
		at = "act"
	case unit.StopNotMeasured:
		at = "panel"
	case unit.StopConclusion:
		at = "conclusion"
	case unit.StopPlace:
		at = "place-" + s.Part
	case unit.StopProved:
		at = "test"
	}
	address := l.link(s.Station, part, s.Feature)
	if at != "" {
		address += "#" + at
	}
	return address
}

// stops are those of the station, open and waived.
func (l *look) stops() (out []StopRow) {
	for _, s := range l.st.Stops[l.station] {
		out = append(out, l.stopRow(s))
	}
	return out
}

func (s *Pages) passStop(c *echo.Context) error {
	return site.Done(
		c,
		s.Jobs.WaiveStop(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("code"),
			c.FormValue("reason")),
	)
}
