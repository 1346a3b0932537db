package toolbox

import (
	"errors"
	"strconv"

	"corvek/core/calc"
	"corvek/core/filled"
	"corvek/internal/store"

	"github.com/labstack/echo/v5"
)

// Subject is what of a job a calculator is opened for, as its address says it.
type Subject struct {
	Job   string // its tag, "" of none
	Unit  int    // from 1
	About string // a part or part.feature, "" of the whole unit
	Back  string // page it was opened from
}

func subjectOf(said func(string) string) Subject {
	n, err := strconv.Atoi(said("unit"))
	if err != nil || n < 1 || n > 99 {
		n = 1
	}
	return Subject{Job: safeTag(said("for")), Unit: n, About: safePath(said("about")), Back: safePath(said("back"))}
}

// safePath cuts off what is no address of a part or a page.
func safePath(s string) string {
	if len(s) > 200 {
		return ""
	}
	return s
}

// AboutLink is a part, or what is measured on one, that the calculator can be asked about.
type AboutLink struct {
	Code, Name string
	Chosen     bool
}

// fillIn gives what the unit knows of the calculator's inputs, by input, and what of the unit it can be asked about.
func (s *Pages) fillIn(c *echo.Context, d *calc.Def, of Subject) (map[string]filled.Input, []AboutLink, error) {
	if of.Job == "" || !filled.Knows(d.Name) || !s.Reader(c).CanWork() {
		return nil, nil, nil
	}
	st, err := s.Jobs.LoadOther(c.Request().Context(), of.Job, of.Unit)
	switch {
	case errors.Is(err, store.ErrNotFound): // an address that was typed, or a job of another store
		return nil, nil, nil
	case err != nil:
		return nil, nil, err
	}
	known := map[string]filled.Input{}
	for _, in := range filled.Of(st, d.Name, of.About) {
		known[in.Name] = in
	}
	var about []AboutLink
	for _, x := range filled.Subjects(st, d.Name) {
		about = append(about, AboutLink{x.Code, x.Name, x.Code == of.About})
	}
	return known, about, nil
}
