package stockpages

import (
	"cmp"
	"fmt"
	"slices"

	"corvek/core/stock"
	"corvek/core/unit"
	"corvek/internal/document"
	"corvek/internal/report"

	"github.com/labstack/echo/v5"
)

// order is what the drawers lack, by supplier: of each line as many as bring it to twice what it should hold at
// least.
func (s *Pages) order(c *echo.Context) error {
	ctx := c.Request().Context()
	all, err := s.Store.Stock(ctx)
	if err != nil {
		return err
	}
	head, err := s.Store.Letterhead(ctx)
	if err != nil {
		return err
	}
	d := orderOf(all, unit.DateOf(s.Jobs.Now()))
	d.Shop = report.ShopOf(head)
	d.Printed = s.Jobs.Now()
	return s.SendPaper(c, "stock-order", d, func(document.Size) []document.Link {
		return []document.Link{
			{Name: "PDF", Address: "/stock/order.pdf"},
			{Name: "Back to the stock", Address: "/stock"},
		}
	})
}

func orderOf(all *stock.Stock, today unit.Date) document.Document {
	d := document.Document{Kind: "Order for the drawers"}
	by := map[string]*document.Table{}
	var names []string
	for _, i := range all.Items {
		n := i.Lacks(today)
		if n == 0 {
			continue
		}
		t := by[i.Supplier]
		if t == nil {
			t = &document.Table{Heads: []string{"count", "part number", "what", "drawer", "price each"},
				Shares: []float64{10, 22, 40, 14, 14}}
			by[i.Supplier], names = t, append(names, i.Supplier)
		}
		t.Rows = append(t.Rows, document.Cells(fmt.Sprint(n), cmp.Or(i.Number, "not known"), i.Says(), i.Drawer,
			i.Price.Typed))
	}
	slices.Sort(names)
	for _, name := range names {
		d.Add(document.Heading{Text: cmp.Or(name, "No supplier named")}, *by[name])
	}
	if len(names) == 0 {
		d.Add(document.Text{Text: "No line has fewer than it should."})
	}
	return d
}
