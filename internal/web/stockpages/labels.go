package stockpages

import (
	"strings"

	"corvek/core/stock"
	"corvek/internal/document"

	"github.com/labstack/echo/v5"
)

// mostLabels are printed at once.
const mostLabels = 200

// abreast is how many labels stand beside one another.
const abreast = 3

// labels are those of a lot, of a line's lots, or of all that a look at the stock shows.
func (s *Pages) labels(c *echo.Context) error {
	ctx := c.Request().Context()
	all, err := s.Store.Stock(ctx)
	if err != nil {
		return err
	}
	head, err := s.Store.Letterhead(ctx)
	if err != nil {
		return err
	}
	d := document.Document{Kind: "Labels", Printed: s.Jobs.Now(),
		Shop: document.Shop{Name: head.Name, Size: document.Size(head.Sheet)}}
	t := document.Table{
		Heads:  make([]string, abreast),
		Shares: make([]float64, abreast),
		None:   "No lot is left to label.",
	}
	for k := range t.Shares {
		t.Shares[k] = 1
	}
	var row []document.Cell
	printed := 0
	for _, i := range all.Items {
		for k := range i.Lots {
			l := &i.Lots[k]
			if !wanted(c, i, l) || printed == mostLabels {
				continue
			}
			printed++
			if row = append(row, label(i, l, head.Site)); len(row) == abreast {
				t.Rows, row = append(t.Rows, row), nil
			}
		}
	}
	if len(row) > 0 {
		t.Rows = append(t.Rows, append(row, make([]document.Cell, abreast-len(row))...))
	}
	d.Add(t)
	pdf := "/stock/labels.pdf"
	if q := c.Request().URL.RawQuery; q != "" {
		pdf += "?" + q
	}
	return s.SendPaper(c, "labels", d, func(document.Size) []document.Link {
		return []document.Link{{Name: "PDF", Address: pdf}, {Name: "Back to the stock", Address: "/stock"}}
	})
}

// wanted reports that a lot's label is asked for.
func wanted(c *echo.Context, i *stock.Item, l *stock.Lot) bool {
	if code := c.QueryParam("lot"); code != "" {
		return strings.EqualFold(code, l.Code)
	}
	if item := c.QueryParam("item"); item != "" {
		return at(i.ID) == "/stock?item="+item
	}
	return holds(i, c.QueryParam("find"))
}

// label is a code with the words that a hand reads.
func label(i *stock.Item, l *stock.Lot, site string) document.Cell {
	leads := l.Code
	if site != "" {
		leads = strings.TrimRight(site, "/") + "/stock/lots/" + l.Code
	}
	out := document.Cell{Drawing: document.CodeOf(leads), Lines: []document.Line{{Text: l.Code, Large: true},
		{Text: i.Says(), Bold: true}}}
	for _, text := range []string{i.Number, said("drawer ", i.Drawer), said("cured ", l.Cure),
		said("came ", string(l.CameOn)), said("of ", l.FromTag)} {
		if text != "" {
			out.Lines = append(out.Lines, document.Line{Text: text, Small: true})
		}
	}
	return out
}

func said(before, text string) string {
	if text == "" {
		return ""
	}
	return before + text
}
