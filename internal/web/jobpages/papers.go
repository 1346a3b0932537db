package jobpages

import (
	"bytes"
	"cmp"
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
	"corvek/internal/report"
	"corvek/internal/web/site"

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
func (s *Pages) paperRoutes() (out []site.Route) {
	send := map[string]echo.HandlerFunc{"dispute": s.dispute, "quote": s.quote, "build-sheet": s.buildSheet,
		"parts-list": s.partsList, "order": s.order, "outside-order": s.outsideOrder,
		"delivery-note": s.deliveryNote, "invoice": s.invoice}
	for name := range paperOf {
		send[name] = s.unitPaper(name)
	}
	for _, name := range slices.Sorted(maps.Keys(send)) {
		page := site.Get("/jobs/:tag/"+name, site.View, send[name])
		if name == "report" || name == "dispute" { // with all pictures, or the whole record
			page = page.Slow()
		}
		out = append(out, page, site.Get("/jobs/:tag/"+name+".pdf", site.View, send[name]).Slow())
	}
	return out
}

// unitPaper answers with a paper of the unit in the address.
func (s *Pages) unitPaper(name string) func(c *echo.Context) error {
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
func (s *Pages) keptAsGiven(c *echo.Context, name string) (d document.Document, ok bool, err error) {
	ctx := c.Request().Context()
	if givenAs[name] == "" {
		return d, false, nil
	}
	j, err := s.Store.Job(ctx, c.Param("tag"))
	if err != nil {
		return d, false, err
	}
	d, ok, err = papers.Of(ctx, s.Jobs, j, unitNo(c), givenAs[name], s.Reader(c).Units)
	if err != nil || !ok {
		return d, ok, err
	}
	d, err = papers.Dress(ctx, s.Store, j, unitNo(c), d)
	return d, true, err
}

// reportData works a report out of the job in the address.
func (s *Pages) reportData(c *echo.Context) (report.Data, error) {
	st, err := s.Jobs.Load(c.Request().Context(), c.Param("tag"), unitNo(c))
	if err != nil {
		return report.Data{}, err
	}
	d := report.New(st, s.Reader(c).Units, s.Jobs.Now())
	err = papers.Complete(c.Request().Context(), s.Store, &d, site.Opened(c))
	return d, err
}

// jobData is what papers of all units of a job share.
func (s *Pages) jobData(c *echo.Context) (report.Data, []*bench.State, error) {
	states, err := s.Jobs.LoadAll(c.Request().Context(), c.Param("tag"))
	if err != nil {
		return report.Data{}, nil, err
	}
	d := report.New(states[0], s.Reader(c).Units, s.Jobs.Now())
	err = papers.Complete(c.Request().Context(), s.Store, &d, site.Opened(c))
	return d, states, err
}

// sendPaper answers with a paper of the job.
func (s *Pages) sendPaper(c *echo.Context, name string, d document.Document) error {
	return s.SendPaper(c, safeName(c.Param("tag"))+"-"+name, d, func(size document.Size) []document.Link {
		return besidePaper(c, size)
	})
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
		if to, asked := c.QueryParams()["supplier"]; asked {
			q["supplier"] = to
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
	if strings.HasSuffix(path, "/invoice") {
		out = append(out, document.Link{Name: "CSV", Address: path + ".csv"},
			document.Link{Name: "JSON", Address: path + ".json"})
	}
	return append(out, document.Link{Name: "Back to the job", Address: "/jobs/" + c.Param("tag")})
}

// dispute is the paper for a warranty or a dispute.
func (s *Pages) dispute(c *echo.Context) error {
	d, err := s.reportData(c)
	if err != nil {
		return err
	}
	paper, err := report.Dispute(d, s.Store.Lines(c.Request().Context(), d.S.Job.Tag))
	if err != nil {
		return err
	}
	return s.sendPaper(c, "evidence", paper)
}

// buildSheet is the build on paper.
func (s *Pages) buildSheet(c *echo.Context) error {
	d, err := s.reportData(c)
	if err != nil {
		return err
	}
	return s.sendPaper(c, "build-sheet", report.NewBuildSheet(d, s.Reader(c).Units).Paper())
}

func (s *Pages) partsList(c *echo.Context) error {
	d, states, err := s.jobData(c)
	if err != nil {
		return err
	}
	l := report.NewPartsList(states, d)
	return s.SendPaper(
		c,
		safeName(c.Param("tag"))+"-parts-list",
		l.Paper(),
		func(size document.Size) []document.Link {
			links := besidePaper(c, size)
			for _, of := range l.Suppliers {
				links = append(links, document.Link{Name: "Order to " + cmp.Or(of.Name, "nobody named yet"),
					Address: "/jobs/" + c.Param("tag") + "/order?" + url.Values{"supplier": {of.Name}}.Encode()})
			}
			return links
		},
	)
}

func (s *Pages) partsListCSV(c *echo.Context) error {
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
func (s *Pages) quote(c *echo.Context) error {
	d, states, err := s.jobData(c)
	if err != nil {
		return err
	}
	return s.sendPaper(c, "offer", report.NewQuote(states, d, s.Reader(c).Units).Paper())
}

// signOff lets a lead answer for the papers of a unit.
func (s *Pages) signOff(c *echo.Context) error {
	return site.Done(c, s.Jobs.SignOff(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c)))
}
