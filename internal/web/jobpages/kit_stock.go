package jobpages

import (
	"fmt"
	"strconv"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/core/stock"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// StockRow is a lot of the shop's own stock that may go to a place.
type StockRow struct {
	stock.Offer
	Part  string // code of the place
	Where string // drawer and lot
}

// stockRows are the lots for a place, the one to take first at the head.
func (l *look) stockRows(x *bench.Part) (out []StockRow) {
	if l.stock == nil {
		return nil
	}
	for _, o := range l.stock.Offers[x.Code] {
		where := "lot " + o.Lot.Code
		if o.Item.Drawer != "" {
			where = o.Item.Drawer + " · " + where
		}
		out = append(out, StockRow{Offer: o, Part: x.Code, Where: where})
	}
	return out
}

// booked says what is promised to a place, "" for nothing.
func (l *look) booked(x *bench.Part) string {
	if l.stock == nil {
		return ""
	}
	b, is := l.stock.Booked[x.Code]
	if !is {
		return ""
	}
	return fmt.Sprintf("%d × %s", b.Count, b.Item.Says())
}

func (s *Pages) takeOfStock(c *echo.Context) error {
	n, err := site.CountOf(c)
	if err != nil {
		return err
	}
	return site.Done(
		c,
		s.Jobs.Take(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("lot"), n,
			c.FormValue("place")),
	)
}

func (s *Pages) putToStock(c *echo.Context) error {
	piece, err := strconv.Atoi(c.FormValue("piece"))
	if err != nil {
		return field.Errorf("piece", "is not a piece of this kit")
	}
	_, err = s.Jobs.PutToStock(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), piece,
		c.FormValue("drawer"))
	return site.Done(c, err)
}

func (s *Pages) book(c *echo.Context) error {
	item, err := strconv.ParseUint(c.FormValue("item"), 10, 32)
	if err != nil {
		return field.Errorf("item", "is no line of the stock")
	}
	return site.Done(
		c,
		s.Jobs.Book(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c), c.FormValue("place"),
			uint(item)),
	)
}

func (s *Pages) unbook(c *echo.Context) error {
	return site.Done(c, s.Jobs.Unbook(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c),
		c.FormValue("place")))
}
