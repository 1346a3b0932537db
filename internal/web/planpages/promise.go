package planpages

import (
	"net/http"

	"corvek/core/field"
	"corvek/internal/job"
	"corvek/internal/planning"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// promise finds the first day of a job that still holds in 80 of 100 once it is promised, and promises it.
func (s *Pages) promise(c *echo.Context) error {
	ctx, tag := c.Request().Context(), c.FormValue("tag")
	p, err := s.plans.Now(ctx)
	if err != nil {
		return err
	}
	n := p.Job(tag)
	if n < 0 {
		return s.renderPlan(c, http.StatusUnprocessableEntity, field.Errorf("tag", "is not in the plan any more"))
	}
	firm, ok, err := p.Firm(n)
	if err != nil {
		return err
	}
	if !ok {
		return s.renderPlan(c, http.StatusUnprocessableEntity,
			field.Errorf("tag", "is promised no day: as the shop stands none was found that holds in %.0f of 100",
				100*planning.FirmShare))
	}
	_, err = s.Jobs.Set(ctx, site.Who(c), tag, job.Edit{Field: "job/promised_on", Value: string(firm.Day),
		Base: string(p.Laid.Jobs[n].Promised)})
	if fault, is := err.(*field.Error); is {
		return s.renderPlan(c, http.StatusUnprocessableEntity, fault)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, whyURL(tag))
}
