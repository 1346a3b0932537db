package shoppages

import (
	"html/template"
	"io"
	"net/http"

	"corvek/core/shop"
	"corvek/internal/document"
	"corvek/internal/report"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// LetterheadPage is what stands at the head of the papers, for leads.
type LetterheadPage struct {
	site.Reader
	Head   shop.Letterhead
	Mark   template.URL // address of the mark within the page, "" for none
	Sheets []SheetChoice
	Here   string // where the pages are opened now
}

// SheetChoice is a sheet of paper to choose.
type SheetChoice struct {
	Code, Name string
	Chosen     bool
}

func (s *Pages) letterhead(c *echo.Context) error {
	h, err := s.Store.Letterhead(c.Request().Context())
	if err != nil {
		return err
	}
	v := LetterheadPage{Reader: s.Reader(c), Head: h, Here: site.Opened(c),
		Mark: document.Document{Shop: report.ShopOf(h)}.MarkAddress()}
	for _, sheet := range []SheetChoice{{"a4", "A4", false}, {"letter", "Letter", false}} {
		sheet.Chosen = sheet.Code == h.Sheet
		v.Sheets = append(v.Sheets, sheet)
	}
	return s.Render(c, http.StatusOK, "letterhead", "Letterhead", v)
}

func (s *Pages) saveLetterhead(c *echo.Context) error {
	var mark io.Reader
	if head, err := c.FormFile("mark"); err == nil {
		f, err := head.Open()
		if err != nil {
			return err
		}
		defer f.Close()
		mark = f
	}
	return site.Done(
		c,
		s.People.SaveLetterhead(c.Request().Context(), site.Who(c), shop.Letterhead{Name: c.FormValue("shop"),
			Address: c.FormValue("address"), Sheet: c.FormValue("sheet"), Site: c.FormValue("site"),
			LeadSigns:    c.FormValue("lead_signs") != "",
			LeadConfirms: c.FormValue("lead_confirms") != ""}, mark,
			c.FormValue("drop") != ""),
	)
}
