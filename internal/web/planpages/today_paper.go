package planpages

import (
	"corvek/internal/document"
	"corvek/internal/planning"
	"corvek/internal/report"

	"github.com/labstack/echo/v5"
)

// todayPaper is today's list of each, to hang up or to take along.
func (s *Pages) todayPaper(c *echo.Context) error {
	p, err := s.plans.Now(c.Request().Context())
	if err != nil {
		return err
	}
	head, err := s.Store.Letterhead(c.Request().Context())
	if err != nil {
		return err
	}
	shops, err := s.Shops(c, "/plan/today")
	if err != nil {
		return err
	}
	d := todayOf(p, shops.Site)
	d.Shop = report.ShopOf(head)
	d.Printed = s.Jobs.Now()
	return s.SendPaper(c, "today", d, func(document.Size) []document.Link {
		return []document.Link{
			{Name: "PDF", Address: "/plan/today.pdf"},
			{Name: "Back to the plan", Address: "/plan"},
		}
	})
}

// todayOf writes the paper: for each a list with boxes to tick.
func todayOf(p *planning.Planned, site string) document.Document {
	d := document.Document{Kind: "Today", Title: p.Laid.Time(0).Format("Monday 2 January 2006")}
	for _, who := range today(p, site) {
		t := document.Table{Heads: []string{"from", "to", "job", "what", "where", "done"},
			Shares: []float64{9, 13, 12, 40, 16, 10}, None: "Nothing is planned."}
		for _, x := range who.Tasks {
			row := document.Cells(x.From, x.To, x.Tag, x.Name, x.Place)
			row = append(row, document.Cell{Lines: []document.Line{{Box: true}}})
			t.Rows = append(t.Rows, row)
		}
		d.Add(document.Heading{Text: who.Name}, t)
	}
	return d
}
