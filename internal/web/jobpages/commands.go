package jobpages

import (
	"corvek/core/entry"
	"corvek/internal/job"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// set writes one field, and a second one that belongs to the same tap; see
// job.Service.Set. A bare figure takes the unit that stood in the field.
func (s *Pages) set(c *echo.Context) error {
	if f, ok := entry.Of(c.FormValue("field")); ok && f.Signed {
		if err := s.RequireReauth(c); err != nil {
			return err
		}
	}
	var also []job.Edit
	if second := c.FormValue("field2"); second != "" {
		also = append(also, job.Edit{Field: second, Value: c.FormValue("value2"), Base: c.FormValue("base2")})
	}
	kept, err := s.Jobs.Set(c.Request().Context(), site.Who(c), c.Param("tag"), job.Edit{
		Field: c.FormValue("field"), Value: c.FormValue("value"), Base: c.FormValue("base"), Bare: c.FormValue("unit"),
	}, also...)
	if err != nil {
		return err
	}
	return site.OK(c, map[string]any{"value": kept})
}
