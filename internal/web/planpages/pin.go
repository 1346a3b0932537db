package planpages

import (
	"net/http"
	"slices"
	"strings"

	"corvek/core/field"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// pin puts a task with somebody, somewhere, or to a time, as a person wants it.
func (s *Pages) pin(c *echo.Context) error {
	ctx := c.Request().Context()
	p, err := s.plans.Now(ctx)
	if err != nil {
		return err
	}
	i := taskOf(p, c.FormValue("task"))
	if i < 0 {
		return s.renderPlan(c, http.StatusUnprocessableEntity,
			field.Errorf("task", "is not in the plan any more: it was done meanwhile"))
	}
	k, t := p.Laid.Keys[i], taskSheet(p, i)
	pin := store.PlanPin{Tag: k.Tag, Unit: k.Unit, Code: k.Code, Person: strings.TrimSpace(c.FormValue("person")),
		Place: strings.TrimSpace(c.FormValue("place")), ByName: site.Who(c).Name, At: s.Jobs.Now()}
	start, err := shopTime(c.FormValue("start"))
	switch {
	case err != nil:
		err = field.Errorf("start", "is a day and an hour")
	case pin.Person != "" && !slices.Contains(t.People, pin.Person):
		err = field.Errorf("person", "%s cannot do this: it is not among what he can", pin.Person)
	case pin.Place != "" && !slices.Contains(t.Places, pin.Place):
		err = field.Errorf("place", "it cannot be done at %s", pin.Place)
	case start != nil && start.Before(p.Laid.Time(0)):
		err = field.Errorf("start", "is over")
	case start == nil && pin.Person == "" && pin.Place == "":
		err = field.Errorf("start", "say with whom, where or when")
	}
	if fault, is := err.(*field.Error); is {
		return s.renderPlan(c, http.StatusUnprocessableEntity, fault)
	}
	pin.StartAt = start
	if err := s.Store.SavePin(ctx, &pin); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, taskURL(k))
}

// free leaves a task to the planner again.
func (s *Pages) free(c *echo.Context) error {
	ctx := c.Request().Context()
	p, err := s.plans.Now(ctx)
	if err != nil {
		return err
	}
	i := taskOf(p, c.FormValue("task"))
	if i < 0 {
		return c.Redirect(http.StatusSeeOther, "/plan")
	}
	k := p.Laid.Keys[i]
	if err := s.Store.DropPin(ctx, k.Tag, k.Unit, k.Code); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, taskURL(k))
}
