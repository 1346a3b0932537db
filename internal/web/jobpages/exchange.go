package jobpages

import (
	"strings"

	"corvek/core/field"
	"corvek/internal/exchange"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

func (s *Pages) export(c *echo.Context) error {
	tag := c.Param("tag")
	if _, err := s.Store.Job(c.Request().Context(), tag); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Type", "application/zip")
	c.Response().Header().Set("Content-Disposition", `attachment; filename="`+safeName(tag)+`.zip"`)
	return exchange.Write(c.Request().Context(), s.Store, tag, c.Response())
}

// safeName keeps a tag fit for a file name.
func safeName(s string) string {
	return strings.Map(func(r rune) rune {
		if r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' || r == '-' {
			return r
		}
		return '_'
	}, s)
}

func (s *Pages) importJob(c *echo.Context) error {
	head, err := c.FormFile("file")
	if err != nil {
		return field.Errorf("file", "choose a job file, a .zip that was exported")
	}
	f, err := head.Open()
	if err != nil {
		return err
	}
	defer f.Close()
	d, files, err := exchange.OpenZip(f, head.Size)
	if err != nil {
		return field.Errorf("file", "%s", err)
	}
	if err := exchange.Import(c.Request().Context(), s.Jobs, d, files, site.Who(c).Name); err != nil {
		return field.Errorf("file", "%s", err)
	}
	return site.OK(c, map[string]any{"go": "/jobs/" + d.Tag()})
}
