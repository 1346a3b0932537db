package jobpages

import (
	"bytes"
	"fmt"
	"io"

	"corvek/core/bench"
	"corvek/internal/report"

	"github.com/labstack/echo/v5"
)

// order is what one supplier is to send for the job.
func (s *Pages) order(c *echo.Context) error {
	d, states, err := s.jobData(c)
	if err != nil {
		return err
	}
	return s.sendPaper(c, "order", report.NewPartsList(states, d).Order(c.QueryParam("supplier")))
}

// outsideOrder is what goes out to be worked on.
func (s *Pages) outsideOrder(c *echo.Context) error {
	d, states, err := s.jobData(c)
	if err != nil {
		return err
	}
	return s.sendPaper(c, "outside-work", report.OutsideOrder(states, d))
}

// deliveryNote goes with what the customer gets back.
func (s *Pages) deliveryNote(c *echo.Context) error {
	d, states, err := s.jobData(c)
	if err != nil {
		return err
	}
	return s.sendPaper(c, "delivery-note", report.DeliveryNote(states, d))
}

// billed is what goes on the invoice of the job in the address.
func (s *Pages) billed(c *echo.Context) (out report.Invoice, err error) {
	d, states, err := s.jobData(c)
	if err != nil {
		return out, err
	}
	prices, err := s.Store.LotPrices(c.Request().Context(), states[0].Job)
	if err != nil {
		return out, err
	}
	list, err := s.Store.Prices(c.Request().Context())
	if err != nil {
		return out, err
	}
	partners, err := s.Store.Partners(c.Request().Context())
	if err != nil {
		return out, err
	}
	lot := func(lot string) (float64, bool) {
		price, known := prices[lot]
		return price, known
	}
	return report.Invoice{Data: d,
		Bill: bench.BillOf(states, bench.Prices{Lot: lot, Test: list.TestPrice, Partners: partners})}, nil
}

func (s *Pages) invoice(c *echo.Context) error {
	bill, err := s.billed(c)
	if err != nil {
		return err
	}
	return s.sendPaper(c, "invoice", bill.Paper())
}

func (s *Pages) invoiceCSV(c *echo.Context) error {
	return s.billAs(c, "csv", "text/csv; charset=utf-8", report.Invoice.CSV)
}

func (s *Pages) invoiceJSON(c *echo.Context) error {
	return s.billAs(c, "json", echo.MIMEApplicationJSON, report.Invoice.JSON)
}

// billAs answers with what goes on the invoice, for the shop's accounts.
func (s *Pages) billAs(c *echo.Context, end, kind string, write func(report.Invoice, io.Writer) error) error {
	bill, err := s.billed(c)
	if err != nil {
		return err
	}
	var b bytes.Buffer
	if err := write(bill, &b); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`attachment; filename="%s-invoice.%s"`,
		safeName(c.Param("tag")), end))
	return c.Blob(200, kind, b.Bytes())
}
