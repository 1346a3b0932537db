package web

import (
	"bytes"
	"fmt"
	"net/http"
	"strings"

	"corvek/internal/draw"
	"corvek/internal/report"

	"github.com/labstack/echo/v5"
)

// reportData works a report out of the job in the address.
func (s *Server) reportData(c *echo.Context) (report.Data, error) {
	p, err := s.jobPage(c, "measure")
	if err != nil {
		return report.Data{}, err
	}
	p.Part = nil // nothing is selected on paper
	return report.New(p.S, p.drawLine(), p.Units, p.Now), nil
}

func (s *Server) report(c *echo.Context) error {
	d, err := s.reportData(c)
	if err != nil {
		return err
	}
	var b bytes.Buffer
	if err := report.HTML(&b, d); err != nil {
		return err
	}
	return c.HTMLBlob(http.StatusOK, b.Bytes())
}

// dispute is the paper for a warranty or a dispute.
func (s *Server) dispute(c *echo.Context) error {
	d, err := s.reportData(c)
	if err != nil {
		return err
	}
	history, err := s.store.Record(c.Request().Context(), d.S.Job.Tag, 10000)
	if err != nil {
		return err
	}
	var b bytes.Buffer
	if err := report.Dispute(&b, d, history); err != nil {
		return err
	}
	return c.HTMLBlob(http.StatusOK, b.Bytes())
}

func (s *Server) card(c *echo.Context) error {
	d, err := s.reportData(c)
	if err != nil {
		return err
	}
	var b bytes.Buffer
	if err := report.Card(&b, d); err != nil {
		return err
	}
	return c.HTMLBlob(http.StatusOK, b.Bytes())
}

func (s *Server) reportPDF(c *echo.Context) error {
	d, err := s.reportData(c)
	if err != nil {
		return err
	}
	var b bytes.Buffer
	if err := report.PDF(&b, d); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`inline; filename="%s-report.pdf"`, safeName(c.Param("tag"))))
	return c.Blob(http.StatusOK, "application/pdf", b.Bytes())
}

// standalone gives a drawing the colours and patterns that the pages take from
// the style sheet, so that it stands by itself as a file.
func standalone(svg string) string {
	css, err := static.ReadFile("static/drawing.css")
	if err != nil {
		return svg
	}
	defs := draw.Defs[strings.Index(draw.Defs, "<defs>"):strings.Index(draw.Defs, "</svg>")]
	head, tail, ok := strings.Cut(svg, ">")
	if !ok {
		return svg
	}
	return head + ` xmlns="http://www.w3.org/2000/svg"><style>:root,svg{--ink:#1c2529;--ink2:#5b676c;--sheet:#fbfbf8;--line:#9aa5a8;--petrol:#0b5560;--ochre:#b9770e;--red:#b3341a;--tint:#d7e6e7;--ground:#e6e8e5}` + string(css) + `</style>` + defs + tail
}
