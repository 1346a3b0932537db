package planpages

import (
	"encoding/json"
	"net/http"
	"net/url"
	"slices"
	"strconv"
	"strings"
	"time"

	"corvek/core/field"
	"corvek/core/workshop"
	"corvek/internal/planning"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// asked is the task that a form is about; where it is not in the plan any more, the page says so.
func (s *Pages) asked(c *echo.Context) (p *planning.Planned, i int, err error) {
	if p, err = s.plans.Now(c.Request().Context()); err != nil {
		return nil, 0, err
	}
	if i = taskOf(p, c.FormValue("task")); i < 0 {
		return nil, 0, field.Errorf("task", "is not in the plan any more: it was done meanwhile")
	}
	return p, i, nil
}

// answer shows the page with what is wrong, or the task where it stands now, with how it stood before.
func (s *Pages) answer(c *echo.Context, k workshop.Key, was string, err error) error {
	if fault, is := err.(*field.Error); is {
		return s.renderPlan(c, http.StatusUnprocessableEntity, fault)
	}
	if err != nil {
		return err
	}
	q := url.Values{"task": {address(k)}}
	if was != "" {
		q.Set("was", was)
	}
	if n := firstDay(c) / chartDays; n > 0 {
		q.Set("ahead", strconv.Itoa(n))
	}
	return c.Redirect(http.StatusSeeOther, "/plan?"+q.Encode())
}

// pin puts a task with somebody, somewhere, or to a time, as a person wants it.
func (s *Pages) pin(c *echo.Context) error {
	p, i, err := s.asked(c)
	if err != nil {
		return s.answer(c, workshop.Key{}, "", err)
	}
	start, err := shopTime(c.FormValue("start"))
	if err != nil {
		return s.answer(c, workshop.Key{}, "", field.Errorf("start", "is a day and an hour"))
	}
	person, place := strings.TrimSpace(c.FormValue("person")), strings.TrimSpace(c.FormValue("place"))
	return s.put(c, p, i, person, place, start)
}

// put keeps where a task is to stand, if it may stand there.
func (s *Pages) put(c *echo.Context, p *planning.Planned, i int, person, place string, start *time.Time) error {
	k, t := p.Laid.Keys[i], taskSheet(p, i)
	var fault *field.Error
	switch {
	case person != "" && !slices.Contains(t.People, person):
		fault = field.Errorf("person", "%s cannot do this: it is not among what he can", person)
	case place != "" && !slices.Contains(t.Places, place):
		fault = field.Errorf("place", "it cannot be done at %s", place)
	case start != nil && start.Before(p.Laid.Time(0)):
		fault = field.Errorf("start", "is over")
	case start == nil && person == "" && place == "":
		fault = field.Errorf("start", "say with whom, where or when")
	}
	if fault != nil {
		return s.answer(c, k, "", fault)
	}
	pin := store.PlanPin{Spot: workshop.Spot{Key: k, Person: person, Place: place, Start: start},
		ByName: site.Who(c).Name, At: s.Jobs.Now()}
	return s.answer(c, k, pinWords(p, k), s.Store.SavePin(c.Request().Context(), &pin))
}

// move puts a task where its bar was let go, or a step earlier, later, up or down.
func (s *Pages) move(c *echo.Context) error {
	p, i, err := s.asked(c)
	if err != nil {
		return s.answer(c, workshop.Key{}, "", err)
	}
	at := p.Plan.Tasks[i]
	person, place := p.Laid.On(at)
	row, err := strconv.Atoi(c.FormValue("row"))
	if err != nil || row < 0 || row >= len(p.Laid.Problem.Resources) {
		return s.answer(c, workshop.Key{}, "", field.Errorf("place", "is none of the rows of the plan"))
	}
	start := at.Start
	switch step := c.FormValue("step"); step {
	case "earlier":
		start -= moveStep
	case "later":
		start += moveStep
	case "up", "down":
		row = besideOf(p, i, row, step == "down")
	default:
		x, err := strconv.Atoi(c.FormValue("x"))
		if err != nil {
			return s.answer(c, workshop.Key{}, "", field.Errorf("start", "is no place in the plan"))
		}
		a := axisOf(p, firstDay(c))
		start = a.minute(x)
	}
	if name := p.Laid.Problem.Resources[row].Name; row < len(p.Shop.Hands) {
		person = name
	} else {
		place = name
	}
	when := p.Laid.Time(max(start, p.Laid.Problem.Now))
	return s.put(c, p, i, person, place, &when)
}

// moveStep is how far an arrow key moves a task, in minutes.
const moveStep = 30

// besideOf is the next row above or below in which a task may stand, the same where there is none.
func besideOf(p *planning.Planned, i, row int, below bool) int {
	for _, need := range p.Laid.Problem.Tasks[i].Needs {
		at := slices.Index(need, row)
		switch {
		case at < 0:
		case below && at+1 < len(need):
			return need[at+1]
		case !below && at > 0:
			return need[at-1]
		}
	}
	return row
}

// pinWords are how a task is pinned now, so that it can be put back; the planner's own where it is not.
func pinWords(p *planning.Planned, k workshop.Key) string {
	for _, pin := range p.Pins {
		if pin.Key == k {
			words, err := json.Marshal(pin.Spot)
			if err == nil {
				return string(words)
			}
		}
	}
	return "free"
}

// undo puts a task back as it stood before it was moved.
func (s *Pages) undo(c *echo.Context) error {
	p, i, err := s.asked(c)
	if err != nil {
		return s.answer(c, workshop.Key{}, "", err)
	}
	k := p.Laid.Keys[i]
	was := c.FormValue("was")
	if was == "free" {
		return s.answer(c, k, "", s.Store.DropPin(c.Request().Context(), k))
	}
	var spot workshop.Spot
	if json.Unmarshal([]byte(was), &spot) != nil || spot.Key != k {
		return s.answer(c, k, "", field.Errorf("task", "nobody knows any more how it stood before"))
	}
	return s.put(c, p, i, spot.Person, spot.Place, spot.Start)
}

// free leaves a task to the planner again.
func (s *Pages) free(c *echo.Context) error {
	p, i, err := s.asked(c)
	if err != nil {
		return s.answer(c, workshop.Key{}, "", err)
	}
	k := p.Laid.Keys[i]
	return s.answer(c, k, pinWords(p, k), s.Store.DropPin(c.Request().Context(), k))
}
