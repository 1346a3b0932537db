package web

import (
	"bytes"
	"fmt"
	"io"
	"net/http"
	"strings"

	"corvek/internal/draw"
	"corvek/internal/papers"
	"corvek/internal/report"

	"github.com/labstack/echo/v5"
)

// reportData works a report out of the job in the address.
func (s *Server) reportData(c *echo.Context) (report.Data, error) {
	l, err := s.look(c, "measure")
	if err != nil {
		return report.Data{}, err
	}
	l.part = nil // nothing is selected on paper
	d := report.New(l.st, l.drawLine(), l.Units, l.now)
	holds, err := s.store.VerifyJob(c.Request().Context(), l.job.Tag)
	if err != nil {
		return report.Data{}, err
	}
	d.Record = report.Record{Lines: holds.Lines, Head: holds.Head, Fault: holds.Fault}
	if err := papers.Since(c.Request().Context(), s.store, &d); err != nil {
		return report.Data{}, err
	}
	d.Style, d.Icon = s.assets.url("css/app.css"), s.assets.url("mark.svg")
	return d, nil
}

// paper answers with a paper as a page, written whole or not at all.
func paper(c *echo.Context, write func(io.Writer) error) error {
	var b bytes.Buffer
	if err := write(&b); err != nil {
		return err
	}
	return c.HTMLBlob(http.StatusOK, b.Bytes())
}

func (s *Server) report(c *echo.Context) error {
	d, err := s.reportData(c)
	if err != nil {
		return err
	}
	return paper(c, func(w io.Writer) error { return report.HTML(w, d) })
}

// dispute is the paper for a warranty or a dispute.
func (s *Server) dispute(c *echo.Context) error {
	d, err := s.reportData(c)
	if err != nil {
		return err
	}
	return paper(c, func(w io.Writer) error {
		return report.Dispute(w, d, s.store.Lines(c.Request().Context(), d.S.Job.Tag))
	})
}

func (s *Server) card(c *echo.Context) error {
	d, err := s.reportData(c)
	if err != nil {
		return err
	}
	return paper(c, func(w io.Writer) error { return report.Card(w, d) })
}

// buildSheet is the build on paper.
func (s *Server) buildSheet(c *echo.Context) error {
	d, err := s.reportData(c)
	if err != nil {
		return err
	}
	return paper(c, report.NewBuildSheet(d, s.reader(c).Units).Paper)
}

// list gathers what is to be got for all units of the job.
func (s *Server) list(c *echo.Context) (report.PartsList, error) {
	states, err := s.jobs.LoadAll(c.Request().Context(), c.Param("tag"))
	if err != nil {
		return report.PartsList{}, err
	}
	d := report.New(states[0], "", s.reader(c).Units, s.jobs.Now())
	d.Style, d.Icon = s.assets.url("css/app.css"), s.assets.url("mark.svg")
	return report.NewPartsList(states, d), nil
}

func (s *Server) partsList(c *echo.Context) error {
	l, err := s.list(c)
	if err != nil {
		return err
	}
	return paper(c, l.Paper)
}

func (s *Server) partsListCSV(c *echo.Context) error {
	l, err := s.list(c)
	if err != nil {
		return err
	}
	var b bytes.Buffer
	if err := l.CSV(&b); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-parts.csv"`,
		safeName(c.Param("tag"))))
	return c.Blob(http.StatusOK, "text/csv; charset=utf-8", b.Bytes())
}

// quote is the offer to the customer, for all units of the job.
func (s *Server) quote(c *echo.Context) error {
	states, err := s.jobs.LoadAll(c.Request().Context(), c.Param("tag"))
	if err != nil {
		return err
	}
	q := report.NewQuote(states, s.reader(c).Units, s.jobs.Now())
	q.Style, q.Icon = s.assets.url("css/app.css"), s.assets.url("mark.svg")
	return paper(c, q.Paper)
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
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`inline; filename="%s-report.pdf"`,
		safeName(c.Param("tag"))))
	return c.Blob(http.StatusOK, "application/pdf", b.Bytes())
}

// standalone gives a drawing the colours and strokes that the pages take from
// the style sheets, so that it stands by itself as a file.
func (a *assets) standalone(svg string) string {
	defs := draw.Defs[strings.Index(draw.Defs, "<defs>"):strings.Index(draw.Defs, "</svg>")]
	head, tail, ok := strings.Cut(svg, ">")
	if !ok {
		return svg
	}
	faces := `--heading:"Barlow Condensed",sans-serif;--label:"Barlow Semi Condensed",` +
		`sans-serif;--text:"Atkinson Hyperlegible",sans-serif;`
	style := ":root,svg{" + a.lightColours() + faces + "}" + string(a.files["css/drawing.css"].content)
	return head + ` xmlns="http://www.w3.org/2000/svg"><style>` + style + `</style>` + defs + tail
}
