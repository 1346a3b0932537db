package planpages

import (
	"fmt"
	"math"
	"net/http"
	"strconv"
	"strings"

	"corvek/core/field"
	"corvek/core/partner"
	"corvek/core/quantity"
	"corvek/core/remaining"
	"corvek/core/wording"
	"corvek/core/workshop"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// PartnersPage is whom the shop waits for, and what it takes, for leads.
type PartnersPage struct {
	site.Reader
	Suppliers, Workers []PartnerRow
	Form, PriceForm    []site.Plain
	Fault              string
	Learned            []string // of how long the shop waited
}

// PartnerRow is one of them.
type PartnerRow struct {
	partner.Partner
	Past string // how long he took, as far as that is known
	URL  string // where it is renewed
	CSRF string
}

// The forms of the page.
const (
	partnerForm = "partner"
	priceForm   = "prices"
)

func (s *Pages) partners(c *echo.Context) error { return s.renderPartners(c, http.StatusOK, "", nil) }

func (s *Pages) renderPartners(c *echo.Context, status int, of string, fault error) error {
	ctx := c.Request().Context()
	all, err := s.Store.Partners(ctx)
	if err != nil {
		return err
	}
	prices, err := s.Store.Prices(ctx)
	if err != nil {
		return err
	}
	learned, err := s.plans.Learned(ctx, all)
	if err != nil {
		return err
	}
	v := PartnersPage{Reader: s.Reader(c), Learned: waitWords(learned)}
	typed := map[string]string{"hour_price": prices.HourPrice.Typed, "test_price": prices.TestPrice.Typed}
	for i := range all {
		p := &all[i]
		id := strconv.Itoa(int(p.ID))
		row := PartnerRow{*p, pastOf(learned, p), "/plan/partners?of=" + id + "#in-name", v.CSRF}
		if p.Works == "" {
			v.Suppliers = append(v.Suppliers, row)
		} else {
			v.Workers = append(v.Workers, row)
		}
		if c.QueryParam("of") == id {
			typed["name"], typed["works"], typed["price"] = p.Name, p.Works, p.Price.Typed
			typed["days"], typed["most"] = daysText(p.Days), daysText(p.Most)
		}
	}
	v.forms(c, of, fault, typed)
	return s.Render(c, status, "partners", "Suppliers, outside work, prices", v)
}

// forms are the forms of the page, with what was typed where one was refused.
func (v *PartnersPage) forms(c *echo.Context, of string, fault error, typed map[string]string) {
	form := func(name string, fields ...site.Plain) []site.Plain {
		for i := range fields {
			fields[i].Value = typed[fields[i].Name]
			if name == of {
				fields[i].Value = c.FormValue(fields[i].Name)
			}
		}
		if name != of {
			return site.PlainForm(nil, fields...)
		}
		return site.PlainForm(fault, fields...)
	}
	v.Form = form(
		partnerForm,
		site.Plain{Name: "name", Label: "Who"},
		site.Plain{Name: "works", Label: "Works on parts: what", Help: "chrome, grind. Left empty: supplies pieces."},
		site.Plain{Name: "days", Label: "Days as a rule", Mode: "decimal"},
		site.Plain{
			Name:  "most",
			Label: "Days that nine of ten hold",
			Mode:  "decimal",
			Help:  "Left empty: not known.",
		},
		site.Plain{Name: "price", Label: "Price of his work on one part", Mode: "decimal"},
	)
	v.PriceForm = form(
		priceForm,
		site.Plain{Name: "hour_price", Label: "An hour", Mode: "decimal", Help: "A new job begins with it."},
		site.Plain{
			Name:  "test_price",
			Label: "A test on the stand",
			Mode:  "decimal",
			Help:  "Left empty: in the hours.",
		},
	)
	if of == partnerForm {
		v.Fault = site.Besides(fault, v.Form)
	}
}

// pastOf says how long one took, "" where nothing of him is over.
func pastOf(l *workshop.Learned, p *partner.Partner) string {
	kind := remaining.Outside
	if p.Works == "" {
		kind = remaining.Parts
	}
	n := l.Waited(kind, p.Name)
	if n == 0 {
		return ""
	}
	factor, _ := l.Wait(kind, p.Name, p.Sigma())
	return fmt.Sprintf("planned %.2f times that, from %s", factor, wording.Counted(n, "time", "times"))
}

// waitWords say how long the shop waited for others, as far as that is known.
func waitWords(l *workshop.Learned) (out []string) {
	if n := l.Waited(remaining.Outside, ""); n > 0 {
		factor, _ := l.Wait(remaining.Outside, "", 0)
		out = append(out, fmt.Sprintf("Work outside is planned %.2f times as long as they say, from %s.", factor,
			wording.Counted(n, "part that was away", "parts that were away")))
	}
	if n := l.Waited(remaining.Parts, ""); n > 0 {
		factor, _ := l.Wait(remaining.Parts, "", 0)
		out = append(out, fmt.Sprintf("A piece is planned %.2f times as long as its supplier says, from %s.", factor,
			wording.Counted(n, "piece that came", "pieces that came")))
	}
	if n := l.Waited(remaining.Word, ""); n > 0 {
		factor, _ := l.Wait(remaining.Word, "", 0)
		out = append(out, fmt.Sprintf("A customer's word takes %.1f days, from %s.", factor*l.Word,
			wording.Counted(n, "answer", "answers")))
	}
	return out
}

func daysText(days float64) string {
	if days == 0 {
		return ""
	}
	return strconv.FormatFloat(days, 'f', -1, 64)
}

// shown shows the page again, with a fault at its form or without one.
func (s *Pages) shown(c *echo.Context, of string, err error) error {
	if site.IsField(err) {
		return s.renderPartners(c, http.StatusUnprocessableEntity, of, err)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/plan/partners")
}

func (s *Pages) savePartner(c *echo.Context) error {
	p := partner.Partner{Name: c.FormValue("name"), Works: c.FormValue("works")}
	var err error
	for name, at := range map[string]*float64{"days": &p.Days, "most": &p.Most} {
		text := strings.TrimSpace(strings.ReplaceAll(c.FormValue(name), ",", "."))
		if text == "" {
			continue
		}
		if *at, err = strconv.ParseFloat(text, 64); err != nil || math.IsInf(*at, 0) || math.IsNaN(*at) {
			return s.shown(c, partnerForm, field.Errorf(name, "is a number of days, like 5"))
		}
	}
	if p.Price, err = money(c, "price"); err != nil {
		return s.shown(c, partnerForm, err)
	}
	if fault := p.Check(); fault != nil {
		return s.shown(c, partnerForm, fault)
	}
	action := fmt.Sprintf("%s takes %s days", p.Name, daysText(p.Days))
	return s.shown(c, partnerForm, s.Store.SavePartner(c.Request().Context(), &p, site.Who(c).Name, action))
}

// money reads a price, zero for none.
func money(c *echo.Context, name string) (q quantity.Quantity, err error) {
	text := strings.TrimSpace(c.FormValue(name))
	if text == "" {
		return q, nil
	}
	if q, err = quantity.Parse(text, quantity.Number); err != nil || q.SI < 0 {
		return quantity.Quantity{}, field.Errorf(name, "is a sum of money, like 48.50")
	}
	return q, nil
}

func (s *Pages) dropPartner(c *echo.Context) error {
	id, _ := strconv.ParseUint(c.FormValue("id"), 10, 32)
	return s.shown(c, partnerForm, s.Store.DropPartner(c.Request().Context(), uint(id), site.Who(c).Name,
		"a supplier or partner taken out"))
}

func (s *Pages) savePrices(c *echo.Context) error {
	var p store.Prices
	for name, at := range map[string]*quantity.Quantity{"hour_price": &p.HourPrice, "test_price": &p.TestPrice} {
		q, err := money(c, name)
		if err != nil {
			return s.shown(c, priceForm, err)
		}
		*at = q
	}
	return s.shown(c, priceForm, s.Store.SavePrices(c.Request().Context(), p, site.Who(c).Name, "price list"))
}
