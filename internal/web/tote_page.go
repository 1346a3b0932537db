package web

import (
	"encoding/base64"
	"html/template"
	"net/http"

	"corvek/core/unit"

	"github.com/labstack/echo/v5"
	"github.com/skip2/go-qrcode"
)

// TotePage is the tag of a job.
type TotePage struct {
	Job     *unit.Job
	Fluid   string
	Code    template.URL // a picture that a phone reads
	Address string
}

// tote is the tag to print and tie on, with a code that a phone opens.
func (s *Server) tote(c *echo.Context) error {
	l, err := s.look(c, "receive")
	if err != nil {
		return err
	}
	scheme := "http"
	if c.Request().TLS != nil || c.Request().Header.Get("X-Forwarded-Proto") == "https" {
		scheme = "https"
	}
	address := scheme + "://" + c.Request().Host + "/jobs/" + l.job.Tag
	png, err := qrcode.Encode(address, qrcode.Medium, 420)
	if err != nil {
		return err
	}
	code := template.URL("data:image/png;base64," + base64.StdEncoding.EncodeToString(png))
	return s.renderAlone(c, http.StatusOK, "tote", "tote", TotePage{l.job, l.unit.Fluid, code, address})
}
