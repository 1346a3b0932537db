package jobpages

import (
	"cmp"
	"errors"
	"net/http"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/field"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// HolderPage is who has a job, and how it goes from one to the next.
type HolderPage struct {
	site.Reader
	Tag      string
	Holder   string   // "" while nobody has it
	HalfDone string   // what the one who handed it on said
	Yours    bool     // the reader has it, and has not said yet that he read it
	People   []string // who may have it
	Sites    []string // shops of one owner
	Site     string
	Units    []UnitUnderWay
	Closed   bool
	Fault    string
	Typed    string // what is half done, as it was typed and refused
}

// UnitUnderWay is what is half done of one unit.
type UnitUnderWay struct {
	Name string // "" where the job has one
	List []bench.UnderWay
}

func (s *Pages) holder(c *echo.Context) error { return s.renderHolder(c, http.StatusOK, nil) }

func (s *Pages) renderHolder(c *echo.Context, status int, fault *field.Error) error {
	ctx := c.Request().Context()
	l, err := s.look(c, "receive")
	if err != nil {
		return err
	}
	states, err := s.Jobs.LoadAll(ctx, l.job.Tag)
	if err != nil {
		return err
	}
	j := l.job
	p := HolderPage{Reader: l.Reader, Tag: j.Tag, Holder: j.HeldBy, HalfDone: j.HalfDone, Site: j.Site,
		Closed: j.Closed(),
		Yours:  unit.HandedTo(l.Person.Name, j.HeldBy, j.HalfDone)}
	if p.People, err = s.mayHave(c); err != nil {
		return err
	}
	if p.Sites, err = s.Store.Sites(ctx); err != nil {
		return err
	}
	for _, st := range states {
		u := UnitUnderWay{List: st.UnderWay()}
		if len(states) > 1 {
			u.Name = st.Unit.Name
		}
		if len(u.List) > 0 {
			p.Units = append(p.Units, u)
		}
	}
	if fault != nil {
		p.Fault, p.Typed = fault.Text, c.FormValue("half_done")
	}
	return s.renderBesideAs(c, status, "holder", "Who has it", l, p)
}

// mayHave are the people who may have a job, but for the reader: he takes it by a button of its own.
func (s *Pages) mayHave(c *echo.Context) (names []string, err error) {
	all, err := s.Store.People(c.Request().Context())
	for i := range all {
		if p := &all[i]; p.LockedAt == nil && p.Role != people.RoleViewer && p.ID != site.Who(c).ID {
			names = append(names, p.Name)
		}
	}
	return names, err
}

// handOn gives a job to another one, with what is half done, or takes it.
func (s *Pages) handOn(c *echo.Context) error {
	ctx, who := c.Request().Context(), site.Who(c)
	j, err := s.Store.Job(ctx, c.Param("tag"))
	if err != nil {
		return err
	}
	to, words := strings.TrimSpace(c.FormValue("to")), strings.TrimSpace(c.FormValue("half_done"))
	if c.FormValue("act") == "take" {
		to, words = who.Name, ""
	}
	names, err := s.mayHave(c)
	if err != nil {
		return err
	}
	place := j.Site
	if _, given := c.Request().PostForm["site"]; given {
		place = c.FormValue("site")
	}
	if to != who.Name && !slices.Contains(names, to) {
		return s.renderHolder(c, http.StatusUnprocessableEntity, field.Errorf("to", "Say who goes on with it."))
	}
	give := job.HandOn{From: c.FormValue("held_base"), To: to, HalfDone: words, Site: place}
	err = s.Jobs.HandOn(ctx, who, j.Tag, give)
	var other *job.Conflict
	if errors.As(err, &other) {
		err = field.Errorf("to", "Meanwhile %s has it. Look again, and say who goes on.",
			cmp.Or(other.Theirs, "nobody"))
	}
	if fault, is := err.(*field.Error); is {
		return s.renderHolder(c, http.StatusUnprocessableEntity, fault)
	}
	if err != nil {
		return err
	}
	if to == who.Name {
		return c.Redirect(http.StatusSeeOther, "/jobs/"+j.Tag)
	}
	return c.Redirect(http.StatusSeeOther, "/jobs")
}
