package jobpages

import (
	"corvek/core/family"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// StepsMore is what can be given to the test of this unit, and what was.
type StepsMore struct {
	Shared  []site.Named // steps that it is not asked yet
	Figures []site.Named // that a step in own words can read
	Given   []site.Named // steps that this unit has beyond its family, by the code they are taken out by
}

// Reads are the places for figures of a step in own words.
func (StepsMore) Reads() []string { return []string{"first", "second", "third"} }

func (l *look) stepsMore() (v StepsMore) {
	shared, err := family.SharedSteps()
	if err != nil || !l.CanWork() || l.job.HandedOver() {
		return v
	}
	for _, t := range shared {
		if _, there := l.st.Step(t.Code); !there {
			v.Shared = append(v.Shared, site.Named{Code: t.Code, Name: t.Name})
		}
	}
	for _, f := range family.Figures {
		v.Figures = append(v.Figures, site.Named{Code: f.Code, Name: f.Name})
	}
	for code := range l.unit.More {
		if t, is := family.StepOfCode(code); is {
			v.Given = append(v.Given, site.Named{Code: code, Name: t.Name})
		}
	}
	return v
}

func (s *Pages) addStep(c *echo.Context) error {
	if err := c.Request().ParseForm(); err != nil {
		return err
	}
	var figures []string
	for _, f := range c.Request().Form["figure"] {
		if f != "" {
			figures = append(figures, f)
		}
	}
	return site.Done(c, s.Jobs.AddStep(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c),
		c.FormValue("step"), c.FormValue("name"), figures))
}

func (s *Pages) removeStep(c *echo.Context) error {
	return site.Done(c, s.Jobs.RemoveStep(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c),
		c.FormValue("step")))
}
