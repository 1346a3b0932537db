package jobpages

import (
	"slices"

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

// cautions are the station's own, and the serious ones of its parts; one that is read in the row at work stands
// there.
func (l *look) cautions() Cautions {
	list := l.st.Family.ReadAt(l.station)
	if l.runs() {
		if x := l.rowAtWork(); x != nil {
			if unread := l.st.Unread(x.AsFound, l.station); unread != nil && l.CanWork() {
				list = slices.DeleteFunc(list, func(c family.Caution) bool { return c.Code == unread.Code })
			}
		}
	}
	return l.cautionsView(list)
}

func (l *look) cautionsView(list []family.Caution) Cautions {
	out := Cautions{CSRF: l.CSRF, Action: l.page().Act("caution")}
	for _, c := range list {
		v := CautionView{Caution: c}
		if read := l.job.Acknowledged(c.Code); read != nil {
			v.ReadBy = read.By
		}
		v.Ask = v.ReadBy == "" && l.CanWork()
		out.List = append(out.List, v)
	}
	return out
}

// cautionsOf are those of the chosen part which the station does not show beside the sheet already.
func (l *look) cautionsOf(x *bench.Part) (out []family.Caution) {
	shown := l.st.Family.ReadAt(l.station)
	for _, c := range l.st.CautionsOf(x.AsFound, l.station) {
		if !slices.ContainsFunc(shown, func(o family.Caution) bool { return o.Code == c.Code }) {
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
