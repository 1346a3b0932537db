package web

import (
	"bytes"
	"fmt"
	"maps"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"corvek/core/bench"
	"corvek/internal/document"
	"corvek/internal/papers"
	"corvek/internal/people"
	"corvek/internal/report"

	"github.com/labstack/echo/v5"
)

// paperOf are the papers of one unit, by the last word of their address.
var paperOf = map[string]func(d report.Data) document.Document{
	"report":        report.Findings,
	"certificate":   report.Certificate,
	"start-up-card": report.Card,
	"tag":           report.ToteTag,
}

// paperRoutes are all papers, each as a page and as a PDF.
func (s *Server) paperRoutes() (out []route) {
	send := map[string]echo.HandlerFunc{"dispute": s.dispute, "quote": s.quote, "build-sheet": s.buildSheet,
		"parts-list": s.partsList}
	for name := range paperOf {
		send[name] = s.unitPaper(name)
	}
	for _, name := range slices.Sorted(maps.Keys(send)) {
		out = append(out, route{"GET", "/jobs/:tag/" + name, people.RoleViewer, send[name]},
			route{"GET", "/jobs/:tag/" + name + ".pdf", people.RoleViewer, send[name]})
	}
	return out
}

// unitPaper answers with a paper of the unit in the address.
func (s *Server) unitPaper(name string) func(c *echo.Context) error {
	write := paperOf[name]
	return func(c *echo.Context) error {
		kept, ok, err := s.keptAsGiven(c, name)
		if err != nil {
			return err
		}
		if ok {
			return s.sendPaper(c, name, kept)
		}
		d, err := s.reportData(c)
		if err != nil {
			return err
		}
		return s.sendPaper(c, name, write(d))
	}
}

// givenAs are the papers that go out with a unit, by the last word of their address.
var givenAs = map[string]string{"report": "report", "certificate": "certificate", "start-up-card": "card"}

// keptAsGiven is the paper as it went out, of a job that was handed over: it is laid out again
// and not worked out again.
func (s *Server) keptAsGiven(c *echo.Context, name string) (d document.Document, ok bool, err error) {
	ctx := c.Request().Context()
	if givenAs[name] == "" {
		return d, false, nil
	}
	j, err := s.store.Job(ctx, c.Param("tag"))
	if err != nil {
		return d, false, err
	}
	d, ok, err = papers.Of(ctx, s.jobs, j, unitNo(c), givenAs[name], s.reader(c).Units)
	if err != nil || !ok {
		return d, ok, err
	}
	d, err = papers.Dress(ctx, s.store, j, unitNo(c), d)
	d.Style, d.Icon = s.assets.url("css/app.css"), s.assets.url("mark.svg")
	return d, true, err
}

// reportData works a report out of the job in the address.
func (s *Server) reportData(c *echo.Context) (report.Data, error) {
	st, err := s.jobs.Load(c.Request().Context(), c.Param("tag"), unitNo(c))
	if err != nil {
		return report.Data{}, err
	}
	d := report.New(st, s.reader(c).Units, s.jobs.Now())
	s.dress(&d)
	err = papers.Complete(c.Request().Context(), s.store, &d, opened(c))
	return d, err
}

// jobData is what papers of all units of a job share.
func (s *Server) jobData(c *echo.Context) (report.Data, []*bench.State, error) {
	states, err := s.jobs.LoadAll(c.Request().Context(), c.Param("tag"))
	if err != nil {
		return report.Data{}, nil, err
	}
	d := report.New(states[0], s.reader(c).Units, s.jobs.Now())
	s.dress(&d)
	err = papers.Complete(c.Request().Context(), s.store, &d, opened(c))
	return d, states, err
}

func (s *Server) dress(d *report.Data) {
	d.Style, d.Icon = s.assets.url("css/app.css"), s.assets.url("mark.svg")
}

// opened is where the pages were opened.
func opened(c *echo.Context) string {
	scheme := "http"
	if c.Request().TLS != nil || c.Request().Header.Get("X-Forwarded-Proto") == "https" {
		scheme = "https"
	}
	return scheme + "://" + c.Request().Host
}

// sendPaper answers with a paper as a page, or as a PDF where the address asks for one. It is
// written whole or not at all.
func (s *Server) sendPaper(c *echo.Context, name string, d document.Document) error {
	if size := document.Size(c.QueryParam("sheet")); size == document.A4 || size == document.Letter {
		d.Shop.Size = size
	}
	var b bytes.Buffer
	if !strings.HasSuffix(c.Path(), ".pdf") {
		d.More = besidePaper(c, d.Shop.Size)
		if err := document.HTML(&b, d); err != nil {
			return err
		}
		return c.HTMLBlob(http.StatusOK, b.Bytes())
	}
	if err := document.PDF(&b, d); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`inline; filename="%s-%s.pdf"`,
		safeName(c.Param("tag")), name))
	return c.Blob(http.StatusOK, "application/pdf", b.Bytes())
}

// besidePaper is the same paper as a PDF on the shop's sheet and on the other, and the way back.
func besidePaper(c *echo.Context, size document.Size) (out []document.Link) {
	path := c.Request().URL.Path
	other := struct{ name, sheet string }{"PDF on Letter", string(document.Letter)}
	if size == document.Letter {
		other.name, other.sheet = "PDF on A4", string(document.A4)
	}
	for _, l := range []struct{ name, sheet string }{{name: "PDF"}, other} {
		q := url.Values{}
		if n := unitNo(c); n > 1 {
			q.Set("unit", strconv.Itoa(n))
		}
		if l.sheet != "" {
			q.Set("sheet", l.sheet)
		}
		address := path + ".pdf"
		if len(q) > 0 {
			address += "?" + q.Encode()
		}
		out = append(out, document.Link{Name: l.name, Address: address})
	}
	if strings.HasSuffix(path, "/parts-list") {
		out = append(out, document.Link{Name: "CSV", Address: path + ".csv"})
	}
	return append(out, document.Link{Name: "Back to the job", Address: "/jobs/" + c.Param("tag")})
}

// dispute is the paper for a warranty or a dispute.
func (s *Server) dispute(c *echo.Context) error {
	d, err := s.reportData(c)
	if err != nil {
		return err
	}
	paper, err := report.Dispute(d, s.store.Lines(c.Request().Context(), d.S.Job.Tag))
	if err != nil {
		return err
	}
	return s.sendPaper(c, "evidence", paper)
}

// buildSheet is the build on paper.
func (s *Server) buildSheet(c *echo.Context) error {
	d, err := s.reportData(c)
	if err != nil {
		return err
	}
	return s.sendPaper(c, "build-sheet", report.NewBuildSheet(d, s.reader(c).Units).Paper())
}

func (s *Server) partsList(c *echo.Context) error {
	d, states, err := s.jobData(c)
	if err != nil {
		return err
	}
	return s.sendPaper(c, "parts-list", report.NewPartsList(states, d).Paper())
}

func (s *Server) partsListCSV(c *echo.Context) error {
	d, states, err := s.jobData(c)
	if err != nil {
		return err
	}
	var b bytes.Buffer
	if err := report.NewPartsList(states, d).CSV(&b); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-parts.csv"`,
		safeName(c.Param("tag"))))
	return c.Blob(http.StatusOK, "text/csv; charset=utf-8", b.Bytes())
}

// quote is the offer to the customer, for all units of the job.
func (s *Server) quote(c *echo.Context) error {
	d, states, err := s.jobData(c)
	if err != nil {
		return err
	}
	return s.sendPaper(c, "offer", report.NewQuote(states, d, s.reader(c).Units).Paper())
}

// signOff lets a lead answer for the papers of a unit.
func (s *Server) signOff(c *echo.Context) error {
	return done(c, s.jobs.SignOff(c.Request().Context(), who(c), c.Param("tag"), unitNo(c)))
}
