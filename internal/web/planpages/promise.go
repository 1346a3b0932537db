package planpages

import (
	"cmp"
	"fmt"
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

// tell puts what whoever runs the machine is to be told of the day that was promised.
func (s *Pages) tell(c *echo.Context, w *WhySheet) error {
	j, err := s.Store.Job(c.Request().Context(), w.Tag)
	if err != nil || j.PromisedOn == "" || j.ToldDay == j.PromisedOn {
		return err
	}
	w.TellDay = string(j.PromisedOn)
	w.Tell = fmt.Sprintf("Tell %s: %s is ready on %s.", cmp.Or(j.Caller, j.Customer.Name), j.Title,
		j.PromisedOn.Time().Format("Monday 2 January"))
	if j.ToldDay != "" {
		w.Tell += " He was told " + j.ToldDay.Time().Format("Mon 2 Jan") + "."
	}
	return nil
}

// told notes that whoever runs the machine was told the day.
func (s *Pages) told(c *echo.Context) error {
	ctx, tag := c.Request().Context(), c.FormValue("tag")
	j, err := s.Store.Job(ctx, tag)
	if err != nil {
		return err
	}
	day := c.FormValue("day")
	if day != string(j.PromisedOn) {
		return s.renderPlan(c, http.StatusUnprocessableEntity,
			field.Errorf("tag", "is promised for another day meanwhile: look again before he is told"))
	}
	_, err = s.Jobs.Set(ctx, site.Who(c), tag, job.Edit{Field: "job/told_day", Value: day, Base: string(j.ToldDay)})
	if fault, is := err.(*field.Error); is {
		return s.renderPlan(c, http.StatusUnprocessableEntity, fault)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, whyURL(tag))
}
