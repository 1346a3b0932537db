package jobpages

import (
	"corvek/core/quantity"
	"corvek/core/wording"

	"github.com/labstack/echo/v5"
)

// FiguresPage tells of every figure of a unit where it is from.
type FiguresPage struct {
	JobPage
	Rows []FigureRow
}

// FigureRow is a figure with its origin.
type FigureRow struct{ Name, Value, Origin, URL string }

func (s *Pages) figures(c *echo.Context) error {
	l, err := s.look(c, "measure")
	if err != nil {
		return err
	}
	p := FiguresPage{JobPage: l.page()}
	for _, f := range l.st.Figures() {
		r := FigureRow{Name: f.Name, Value: quantity.Show(f.SI, f.Dim, l.Units), Origin: wording.OriginOf(f)}
		if f.Part != "" {
			r.URL = l.link("measure", f.Part, "")
		}
		p.Rows = append(p.Rows, r)
	}
	return s.renderBeside(c, "figures", "Where its figures are from", l, p)
}
