package web

import (
	"net/http"
	"strconv"
	"strings"

	"corvek/core/entry"
	"corvek/core/field"
	"corvek/internal/job"

	"github.com/labstack/echo/v5"
)

// ok answers a command: scripts get JSON, a plain form goes back where it came from. A
// browser that says which page it shows gets with it what is another on that page now.
func ok(c *echo.Context, body map[string]any) error {
	if wantsJSON(c) {
		if body == nil {
			body = map[string]any{}
		}
		body["ok"] = true
		if page := pageAfter(c); page != nil {
			body["page"] = page
		}
		return c.JSON(http.StatusOK, body)
	}
	back := "/jobs/" + c.Param("tag")
	return c.Redirect(http.StatusSeeOther, back)
}

// done answers a command that has nothing to say but that it was done.
func done(c *echo.Context, err error) error {
	if err != nil {
		return err
	}
	return ok(c, nil)
}

// set writes one field, and a second one that belongs to the same tap; see
// job.Service.Set. A bare figure takes the unit that stood in the field.
func (s *Server) set(c *echo.Context) error {
	if f, ok := entry.Of(c.FormValue("field")); ok && f.Signed {
		if err := s.requireReauth(c); err != nil {
			return err
		}
	}
	var also []job.Edit
	if second := c.FormValue("field2"); second != "" {
		also = append(also, job.Edit{Field: second, Value: c.FormValue("value2"), Base: c.FormValue("base2")})
	}
	kept, err := s.jobs.Set(c.Request().Context(), who(c), c.Param("tag"), job.Edit{
		Field: c.FormValue("field"), Value: c.FormValue("value"), Base: c.FormValue("base"), Bare: c.FormValue("unit"),
	}, also...)
	if err != nil {
		return err
	}
	return ok(c, map[string]any{"value": kept})
}

// countOf reads how many of something were meant: one, where nothing is said.
func countOf(c *echo.Context) (int, error) {
	text := strings.TrimSpace(c.FormValue("count"))
	if text == "" {
		return 1, nil
	}
	n, err := strconv.Atoi(text)
	if err != nil {
		return 0, field.Errorf("count", "is a whole number, like 2")
	}
	return n, nil
}
