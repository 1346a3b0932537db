package jobpages

import (
	"net/http"

	"corvek/core/field"
	"corvek/core/practice"
	"corvek/internal/job"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// NewJobPage is the page of a new job.
type NewJobPage struct {
	site.Reader
	Groups []FamilyGroup
	In     job.NewJob
	Error  *field.Error
	First  practice.First // what comes before it
}

// FamilyGroup is the kinds of units that do the same.
type FamilyGroup struct {
	Name string
	List []site.Named
}

// familyGroups puts the families by what they do.
func (s *Pages) familyGroups() []FamilyGroup {
	var out []FamilyGroup
	for _, g := range [][2]string{{"pump", "Pumps"}, {"motor", "Motors and winches"},
		{"cylinder", "Cylinders and rams"}, {"valve", "Valves and dividers"}} {
		group := FamilyGroup{Name: g[1]}
		for _, f := range s.Jobs.Families().List() {
			if f.Action == g[0] {
				group.List = append(group.List, site.Named{Code: f.Code, Name: f.Name})
			}
		}
		out = append(out, group)
	}
	return out
}

func (s *Pages) newJobPage(c *echo.Context) error {
	return s.renderNewJob(c, http.StatusOK, job.NewJob{}, nil)
}

func (s *Pages) renderNewJob(c *echo.Context, status int, in job.NewJob, fault *field.Error) error {
	first, err := s.Jobs.First(c.Request().Context(), site.Who(c).ID)
	if err != nil {
		return err
	}
	return s.Render(c, status, "newjob", "New job",
		NewJobPage{Reader: s.Reader(c), Groups: s.familyGroups(), In: in, Error: fault, First: first})
}

func (s *Pages) createJob(c *echo.Context) error {
	in := job.NewJob{Customer: c.FormValue("customer"), Title: c.FormValue("title"),
		Complaint: c.FormValue("complaint"), Caller: c.FormValue("caller"),
		Family: c.FormValue("family"), Maker: c.FormValue("maker"), Model: c.FormValue("model"),
		Serial: c.FormValue("serial")}
	var err error
	if in.Site, err = s.Store.SiteOf(c.Request().Context(), site.Who(c).ID); err != nil {
		return err
	}
	prices, err := s.Store.Prices(c.Request().Context())
	if err != nil {
		return err
	}
	in.Rate = prices.HourPrice.Typed
	tag, err := s.Jobs.Create(c.Request().Context(), site.Who(c), in)
	if fe, is := err.(*field.Error); is {
		return s.renderNewJob(c, http.StatusUnprocessableEntity, in, fe)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/jobs/"+tag+"/receive")
}
