package toolbox

import (
	"bytes"
	"corvek/internal/store"
	"encoding/json"
	"slices"
	"strings"

	"corvek/core/calc"
	"corvek/core/field"
	"corvek/internal/job"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// JobChoice is a job that a calculation can be put on.
type JobChoice struct {
	Tag, Title string
	Chosen     bool
}

// mostJobs of a kind of waiting are offered to put a calculation on.
const mostJobs = 200

// jobChoices lists the jobs in hand, the one in the address chosen.
func (s *Pages) jobChoices(c *echo.Context, chosen string) ([]JobChoice, error) {
	groups, err := s.Store.InHand(c.Request().Context(), store.Sought{}, mostJobs, "", mostJobs)
	if err != nil {
		return nil, err
	}
	var out []JobChoice
	for _, g := range groups {
		for _, j := range g.Cards {
			out = append(out, JobChoice{j.Tag, j.Title, j.Tag == chosen})
		}
	}
	slices.SortFunc(out, func(a, b JobChoice) int { return strings.Compare(a.Tag, b.Tag) })
	return out, nil
}

// putFigure keeps a calculation of the Toolbox with a job.
func (s *Pages) putFigure(c *echo.Context) error {
	d, err := calc.Find(c.Param("name"))
	if err != nil {
		return echo.ErrNotFound
	}
	tag := strings.TrimSpace(c.FormValue("to_job"))
	if tag == "" {
		return field.Errorf("job", "choose the job it belongs to")
	}
	in, _ := inputsOf(d, c.FormValue)
	var body bytes.Buffer
	enc := json.NewEncoder(&body)
	enc.SetEscapeHTML(false) // a stack of springs is written with < and >
	if err := enc.Encode(in); err != nil {
		return err
	}
	of := subjectOf(c.FormValue)
	if err := s.Jobs.PutFigure(c.Request().Context(), site.Who(c), tag, job.Working{Calculator: d.Name,
		Inputs: bytes.TrimSpace(body.Bytes()), Unit: of.Unit, About: of.About, Note: c.FormValue("note")}); err != nil {
		return err
	}
	if back := c.FormValue("back"); strings.HasPrefix(back, "/jobs/"+tag+"/") {
		return site.OK(c, map[string]any{"go": back})
	}
	return site.OK(c, map[string]any{"go": "/jobs/" + tag + "/record#worked"})
}
