package site

import (
	"time"

	"corvek/core/quantity"
	"corvek/internal/people"

	"github.com/labstack/echo/v5"
)

// Opened is where the pages were opened.
func Opened(c *echo.Context) string {
	scheme := "http"
	if c.Request().TLS != nil || c.Request().Header.Get("X-Forwarded-Proto") == "https" {
		scheme = "https"
	}
	return scheme + "://" + c.Request().Host
}

// Reader is who looks at a page and in which measures. Every page carries it:
// its forms need the token, and what may be done depends on the role.
type Reader struct {
	Person   people.Actor
	Units    quantity.System
	CSRF     string
	Practice *Practice // nil for a job of the shop
	Closed   bool      // what is looked at was handed over: nothing is written on it
	Now      time.Time
}

// Reader is who looks, in the measures that his browser keeps.
func (s *Site) Reader(c *echo.Context) Reader {
	r := Reader{Person: Who(c), Units: quantity.Metric, Now: s.Jobs.Now()}
	r.CSRF, _ = c.Get("csrf").(string)
	r.Practice, _ = c.Get(practiceKey).(*Practice)
	inch, pressure := chosen(c, "corvek_units") == "in", chosen(c, "corvek_pressure")
	switch {
	case inch && pressure == "bar":
		r.Units = quantity.InchBar
	case inch:
		r.Units = quantity.Inch
	case pressure == "psi":
		r.Units = quantity.MetricPsi
	}
	return r
}

// chosen is what the reader chose and his browser keeps; "" where he chose nothing.
func chosen(c *echo.Context, cookie string) string {
	k, err := c.Cookie(cookie)
	if err != nil {
		return ""
	}
	return k.Value
}

// Inch reports that the reader measures in inches.
func (r Reader) Inch() bool { return r.Units.For(quantity.Length) == quantity.Inch }

// Psi reports that the reader's gauges show psi.
func (r Reader) Psi() bool { return r.Units.For(quantity.Pressure) == quantity.Inch }

// CanWork reports whether the reader may write on a job.
func (r Reader) CanWork() bool { return !r.Closed && r.Person.May(people.RoleTechnician) }

// CanLead reports whether the reader may waive stops.
func (r Reader) CanLead() bool { return !r.Closed && r.Person.May(people.RoleLead) }

// Show writes a base-unit figure in the reader's units.
func (r Reader) Show(si float64, d quantity.Dimension) string { return quantity.Show(si, d, r.Units) }

// Other writes it in the units the reader does not use.
func (r Reader) Other(si float64, d quantity.Dimension) string {
	return quantity.Show(si, d, r.Units.Other(d))
}
