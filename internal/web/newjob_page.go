package web

import (
	"net/http"

	"corvek/core/field"
	"corvek/internal/job"

	"github.com/labstack/echo/v5"
)

// NewJobPage is the page of a new job.
type NewJobPage struct {
	Reader
	Groups []FamilyGroup
	In     job.NewJob
	Error  *field.Error
}

// FamilyGroup is the kinds of units that do the same.
type FamilyGroup struct {
	Name string
	List []Named
}

// familyGroups puts the families by what they do.
func (s *Server) familyGroups() []FamilyGroup {
	var out []FamilyGroup
	for _, g := range [][2]string{{"pump", "Pumps"}, {"motor", "Motors and winches"},
		{"cylinder", "Cylinders and rams"}, {"valve", "Valves and dividers"}} {
		group := FamilyGroup{Name: g[1]}
		for _, f := range s.jobs.Families().List() {
			if f.Action == g[0] {
				group.List = append(group.List, Named{f.Code, f.Name})
			}
		}
		out = append(out, group)
	}
	return out
}

func (s *Server) newJobPage(c *echo.Context) error {
	return s.renderNewJob(c, http.StatusOK, job.NewJob{}, nil)
}

func (s *Server) renderNewJob(c *echo.Context, status int, in job.NewJob, fault *field.Error) error {
	return s.render(c, status, "newjob", "New job",
		NewJobPage{Reader: s.reader(c), Groups: s.familyGroups(), In: in, Error: fault})
}

func (s *Server) createJob(c *echo.Context) error {
	in := job.NewJob{Customer: c.FormValue("customer"), Title: c.FormValue("title"),
		Complaint: c.FormValue("complaint"), Caller: c.FormValue("caller"),
		Family: c.FormValue("family"), Maker: c.FormValue("maker"), Model: c.FormValue("model"),
		Serial: c.FormValue("serial")}
	tag, err := s.jobs.Create(c.Request().Context(), who(c), in)
	if fe, is := err.(*field.Error); is {
		return s.renderNewJob(c, http.StatusUnprocessableEntity, in, fe)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/jobs/"+tag+"/receive")
}
