package jobpages

import (
	"strings"

	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/internal/job"

	"github.com/labstack/echo/v5"
)

// HistoryPage is what was found on one unit each time it was on the bench.
type HistoryPage struct {
	JobPage
	What   string // maker, model and serial
	Visits []VisitRow
	Lines  []HistoryLine
}

// VisitRow is one time on the bench, in words.
type VisitRow struct {
	BeforeRow
	When, Hours string
	Here        bool
}

// HistoryLine is a size over the visits.
type HistoryLine struct {
	Name  string
	Cells []HistoryCell
}

// HistoryCell is a size at one visit: as it came, as it went, and how fast it wore.
type HistoryCell struct{ Found, Tone, Left, Wear string }

func (s *Pages) history(c *echo.Context) error {
	l, err := s.look(c, "receive")
	if err != nil {
		return err
	}
	h, err := s.Jobs.History(c.Request().Context(), l.st)
	if err != nil {
		return err
	}
	p := HistoryPage{JobPage: l.page(), What: strings.Join(strings.Fields(l.unit.Maker+" "+l.unit.Model), " ") +
		", serial " + l.unit.Serial}
	for _, v := range h.Visits {
		row := VisitRow{
			BeforeRow: beforeRows([]job.Before{v.Before})[0],
			Here:      v.Here,
			When:      v.At.Format("2 Jan 2006"),
		}
		if v.Open {
			row.Words = "on the bench"
		}
		if v.Ran {
			row.Hours = quantity.Figures(v.Hours, 5) + " h"
		}
		p.Visits = append(p.Visits, row)
	}
	for _, line := range h.Lines {
		out := HistoryLine{Name: line.Part + ": " + line.Feature}
		for i := range line.Found {
			cell := HistoryCell{
				Found: l.told(line.Found[i]),
				Tone:  verdictWords[line.Found[i].Verdict],
				Left:  l.told(line.Left[i]),
			}
			if w := line.Wear[i]; w.Known {
				cell.Wear = l.thin(w.Per)
			}
			out.Cells = append(out.Cells, cell)
		}
		p.Lines = append(p.Lines, out)
	}
	return s.renderBeside(c, "history", "Over the years", l, p)
}

// verdictWords are verdicts beside a length, where a bare "in" would read as inches.
var verdictWords = map[metrology.Verdict]string{metrology.In: "within its limits", metrology.Out: "out of its limits",
	metrology.Undecided: "undecided"}

// thin writes what wears off in a thousand hours, which is thinner than lengths are written.
func (l *look) thin(m float64) string {
	if l.Units.For(quantity.Length) == quantity.Inch {
		return quantity.Figures(m/25.4e-6, 2) + " thou"
	}
	return quantity.Figures(m*1e6, 2) + " µm"
}

// told writes a reading, "" of none.
func (l *look) told(r measure.Result) string {
	if !r.HasValue {
		return ""
	}
	return quantity.Show(r.Value, quantity.Length, l.Units)
}
