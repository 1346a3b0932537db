package web

import (
	"bytes"
	"encoding/base64"
	"fmt"
	"html/template"
	"net/http"
	"net/url"
	"slices"
	"strings"
	"time"

	"corvek/core/family"

	"github.com/labstack/echo/v5"
	"github.com/skip2/go-qrcode"
)

// families lists the kinds of units to choose from.
func (s *Server) families() []Named {
	var out []Named
	for _, f := range s.jobs.Families().List() {
		out = append(out, Named{f.Code, f.Name})
	}
	return out
}

func (s *Server) addUnit(c *echo.Context) error {
	n, err := s.jobs.AddUnit(c.Request().Context(), who(c), c.Param("tag"), c.FormValue("family"), c.FormValue("name"))
	if err != nil {
		return err
	}
	return ok(c, map[string]any{"go": fmt.Sprintf("/jobs/%s/receive?unit=%d", c.Param("tag"), n)})
}

func (s *Server) addAccount(c *echo.Context) error {
	return done(c, s.jobs.AddAccount(c.Request().Context(), who(c), c.Param("tag"), unitNo(c),
		c.FormValue("teller"), c.FormValue("words")))
}

func (s *Server) addPart(c *echo.Context) error {
	n, err := countOf(c)
	if err != nil {
		return err
	}
	code, err := s.jobs.AddPart(c.Request().Context(), who(c), c.Param("tag"), unitNo(c), c.FormValue("after"),
		c.FormValue("name"), c.FormValue("kind"), n)
	if err != nil {
		return err
	}
	to := fmt.Sprintf("/jobs/%s/strip?part=%s", c.Param("tag"), url.QueryEscape(code))
	if unitNo(c) > 1 {
		to += fmt.Sprintf("&unit=%d", unitNo(c))
	}
	return ok(c, map[string]any{"go": to})
}

func (s *Server) movePart(c *echo.Context) error {
	by := map[string]int{"earlier": -1, "later": 1}[c.FormValue("by")]
	return done(c, s.jobs.MovePart(c.Request().Context(), who(c), c.Param("tag"), unitNo(c), c.FormValue("part"), by))
}

// Kinds are what an unknown part can look like.
func (p *Page) Kinds() []Named {
	var out []Named
	for _, k := range family.Kinds {
		out = append(out, Named{k, strings.ReplaceAll(k, "_", " ")})
	}
	slices.SortFunc(out, func(a, b Named) int { return strings.Compare(a.Name, b.Name) })
	return out
}

// timerWords is a timer as it is read.
func timerWords(until *time.Time, now time.Time) string {
	if until == nil || until.IsZero() {
		return ""
	}
	left := until.Sub(now)
	switch {
	case left <= 0:
		return "ready since " + until.Format("Mon 15:04")
	case left < time.Hour:
		return fmt.Sprintf("ready in %d min", int(left.Minutes())+1)
	case left < 24*time.Hour:
		return fmt.Sprintf("ready in %d h %02d min", int(left.Hours()), int(left.Minutes())%60)
	}
	return "ready " + until.Format("Mon 2 Jan 15:04")
}

// Timer writes a job's timer for the Rack and the strip sheet.
func (p *Page) Timer(until time.Time) string { return timerWords(&until, p.Now) }

// tote is the tag to print and tie on, with a code that a phone opens.
func (s *Server) tote(c *echo.Context) error {
	p, err := s.jobPage(c, "receive")
	if err != nil {
		return err
	}
	scheme := "http"
	if c.Request().TLS != nil || c.Request().Header.Get("X-Forwarded-Proto") == "https" {
		scheme = "https"
	}
	address := scheme + "://" + c.Request().Host + "/jobs/" + p.S.Job.Tag
	png, err := qrcode.Encode(address, qrcode.Medium, 420)
	if err != nil {
		return err
	}
	p.Body = struct {
		Code    template.URL
		Address string
	}{template.URL("data:image/png;base64," + base64.StdEncoding.EncodeToString(png)), address}
	var b bytes.Buffer
	if err := s.views.sets["tote"].ExecuteTemplate(&b, "tote", p); err != nil {
		return err
	}
	return c.HTMLBlob(http.StatusOK, b.Bytes())
}
