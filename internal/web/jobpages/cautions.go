package jobpages

import (
	"corvek/core/bench"
	"corvek/core/family"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// Cautions are what must be minded at a station.
type Cautions struct {
	List   []CautionView
	CSRF   string
	Action string // where it is written that one was read
}

// CautionView is a caution with whether it was read, where it must be.
type CautionView struct {
	family.Caution
	ReadBy string
	Ask    bool // the reader can say that it was read
}

// cautions are the station's own.
func (l *look) cautions() Cautions {
	out := Cautions{CSRF: l.CSRF, Action: l.page().Act("caution")}
	for _, c := range l.st.Family.CautionsAt(l.station) {
		v := CautionView{Caution: c}
		if read := l.job.Acknowledged(c.Code); read != nil {
			v.ReadBy = read.By
		}
		v.Ask = v.ReadBy == "" && l.CanWork()
		out.List = append(out.List, v)
	}
	return out
}

// partCautions are those of the chosen part which the station does not show
// beside the sheet already.
func (l *look) cautionsOf(x *bench.Part) (out []family.Caution) {
	shown := map[string]bool{}
	for _, c := range l.st.Family.CautionsAt(l.station) {
		shown[c.Code] = true
	}
	for _, code := range x.Def.Cautions {
		if c, ok := family.CautionByCode(code); ok && !shown[code] {
			out = append(out, c)
		}
	}
	return out
}

func (s *Pages) acknowledge(c *echo.Context) error {
	return site.Done(
		c,
		s.Jobs.Acknowledge(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("caution")),
	)
}
