package site

import (
	"net/http"
	"strconv"
	"strings"

	"corvek/core/field"

	"github.com/labstack/echo/v5"
)

// OK answers a command: scripts get JSON, a plain form goes back where it came from. A
// browser that says which page it shows gets with it what is another on that page now.
func OK(c *echo.Context, body map[string]any) error {
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

// Done answers a command that has nothing to say but that it was done.
func Done(c *echo.Context, err error) error {
	if err != nil {
		return err
	}
	return OK(c, nil)
}

// CountOf reads how many of something were meant: one, where nothing is said.
func CountOf(c *echo.Context) (int, error) {
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
