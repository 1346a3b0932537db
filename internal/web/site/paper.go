package site

import (
	"bytes"
	"fmt"
	"net/http"
	"strings"

	"corvek/internal/document"

	"github.com/labstack/echo/v5"
)

// SendPaper answers with a paper as a page, or as a PDF where the address asks for one. It is written whole or not at
// all. file is what the PDF is called; beside are links on the page, by the sheet that the paper is on.
func (s *Site) SendPaper(c *echo.Context, file string, d document.Document,
	beside func(size document.Size) []document.Link) error {
	d.Style, d.Icon = s.Asset("css/app.css"), s.Asset("mark.svg")
	if size := document.Size(c.QueryParam("sheet")); size == document.A4 || size == document.Letter {
		d.Shop.Size = size
	}
	var b bytes.Buffer
	if !strings.HasSuffix(c.Path(), ".pdf") {
		d.More = beside(d.Shop.Size)
		if err := document.HTML(&b, d); err != nil {
			return err
		}
		return c.HTMLBlob(http.StatusOK, b.Bytes())
	}
	if err := document.PDF(&b, d); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", fmt.Sprintf(`inline; filename="%s.pdf"`, file))
	return c.Blob(http.StatusOK, "application/pdf", b.Bytes())
}
