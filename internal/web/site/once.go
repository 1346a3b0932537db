package site

import (
	"net/http"
	"net/url"

	"corvek/core/field"
	"corvek/internal/store"

	"github.com/labstack/echo/v5"
)

// onceName is the field with a form's own token.
const onceName = "once"

// once lets a form do its work one time, however often it is sent: by two quick
// taps, by Back and send again, or by a line that broke before the answer came.
func (s *Site) once(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		if c.Request().Method != http.MethodPost || c.Get("csrf") == nil {
			return next(c)
		}
		token := c.FormValue(onceName)
		if len(token) > store.MostOnce {
			return field.Errorf(onceName, "is too long")
		}
		if token != "" {
			c.SetRequest(c.Request().WithContext(store.WithOnce(c.Request().Context(), token)))
		}
		return next(c)
	}
}

// doneBefore answers a form whose work is done already as if it had just been done.
func doneBefore(c *echo.Context, d *store.DoneBefore) error {
	if wantsJSON(c) {
		return c.JSON(http.StatusOK, map[string]any{"ok": true})
	}
	to := "/jobs"
	if back, err := url.Parse(c.Request().Referer()); err == nil && back.Host == c.Request().Host {
		to = OwnPath(back.RequestURI())
	}
	if d.Result != "" {
		to = "/jobs/" + url.PathEscape(d.Result)
	}
	return c.Redirect(http.StatusSeeOther, to)
}
