package library

import (
	"bytes"
	"fmt"
	"net/http"
	"strings"

	"corvek/internal/document"
	"corvek/internal/report"

	"github.com/labstack/echo/v5"
)

// sheetPaper is a sheet as a paper for the bench: its line, its figures with where they are from, kit and lessons.
func (s *Pages) sheetPaper(c *echo.Context) error {
	p, err := s.sheetPage(c)
	if err != nil {
		return err
	}
	head, err := s.Store.Letterhead(c.Request().Context())
	if err != nil {
		return err
	}
	d := document.Document{
		Shop:    report.ShopOf(head),
		Kind:    "Sheet of a model",
		Title:   p.Sheet.Name(),
		Printed: s.Jobs.Now(),
	}
	p.write(&d)
	var b bytes.Buffer
	if err := document.PDF(&b, d); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`inline; filename="sheet-%d.pdf"`, p.ID))
	return c.Blob(http.StatusOK, "application/pdf", b.Bytes())
}

// write lays the sheet out.
func (p *SheetPage) write(d *document.Document) {
	if p.Waiting > 0 {
		d.Add(document.Banner{Text: "A newer version waits for a lead", Tone: document.Look})
	}
	units := "none"
	if len(p.Behind) > 0 {
		units = strings.Join(p.Behind, ", ")
	}
	d.Add(
		document.Facts{
			Rows: []document.Fact{{Name: "Family", Value: p.Family}, {Name: "Units behind it", Value: units}},
		},
		document.Drawing{SVG: string(p.Line)},
	)
	if len(p.Form) > 0 {
		d.Add(document.Heading{Text: "The form made true"}, document.Lines{Items: p.Form})
	}
	for _, part := range p.Parts {
		t := document.Table{Heads: []string{"what", "is", "from", "over the units"}, Shares: []float64{3, 2, 4, 3}}
		for _, l := range part.Lines {
			t.Rows = append(t.Rows, document.Cells(l.Name, l.Text, l.From, l.Behind))
		}
		d.Add(document.Heading{Text: part.Name}, t)
	}
	if len(p.Sheet.Kit) > 0 {
		t := document.Table{Heads: []string{"number", "what", "count", "for"}, Shares: []float64{3, 4, 1, 3}}
		for _, k := range p.Sheet.Kit {
			t.Rows = append(t.Rows, document.Cells(k.Number, k.Name, fmt.Sprint(k.Count), k.Part))
		}
		d.Add(document.Heading{Text: "Kit"}, t)
	}
	if len(p.Sheet.Lessons) > 0 {
		var lines []string
		for _, l := range p.Sheet.Lessons {
			lines = append(lines, l.Text+" ("+l.Job+")")
		}
		d.Add(document.Heading{Text: "Lessons"}, document.Lines{Items: lines})
	}
}
