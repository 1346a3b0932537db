package jobpages

import (
	"html/template"
	"net/http"

	"corvek/core/bench"
	"corvek/core/wording"
	"corvek/internal/draw"
	"corvek/internal/line"

	"github.com/labstack/echo/v5"
)

// lineSVG serves the drawing alone, with its own colours, for the report and for keeping.
func (s *Pages) lineSVG(c *echo.Context) error {
	l, err := s.look(c, "measure")
	if err != nil {
		return err
	}
	// It brings its looks along, which a page may not; opened by itself it can do nothing.
	c.Response().Header().Set("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'; sandbox")
	return c.Blob(http.StatusOK, "image/svg+xml", []byte(draw.Standalone(string(l.drawLine()))))
}

// LinePage is the line alone, large, with its list of parts.
type LinePage struct {
	JobPage
	Unit  string
	Layer string
	Line  template.HTML
	Back  string
	Parts []LineRow
}

// LineRow is a part in the list under the line.
type LineRow struct {
	No   int
	URL  string
	Part *bench.Part
}

// lineLarge is the line alone on its page: to look close, and to print.
func (s *Pages) lineLarge(c *echo.Context) error {
	layer := c.QueryParam("layer")
	if !line.Stations[layer] {
		layer = "strip"
	}
	l, err := s.look(c, layer)
	if err != nil {
		return err
	}
	p := LinePage{JobPage: l.page(), Unit: l.unit.Name, Layer: wording.Stations[layer], Line: l.drawLine(),
		Back: l.link(layer, l.part.Code, "")}
	for i, x := range l.st.Parts {
		p.Parts = append(p.Parts, LineRow{i + 1, l.link("strip", x.Code, ""), x})
	}
	return s.renderBeside(c, "line", "The line", l, p)
}
