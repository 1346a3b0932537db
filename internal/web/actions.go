package web

import (
	"net/http"
	"strconv"
	"strings"

	"corvek/core/field"
	"corvek/internal/exchange"
	"corvek/internal/job"

	"github.com/labstack/echo/v5"
)

// ok answers a command: scripts get JSON, a plain form goes back where it came from.
func ok(c *echo.Context, body map[string]any) error {
	if wantsJSON(c) {
		if body == nil {
			body = map[string]any{}
		}
		body["ok"] = true
		return c.JSON(http.StatusOK, body)
	}
	back := "/jobs/" + c.Param("tag")
	return c.Redirect(http.StatusSeeOther, back)
}

// set writes one field; see job.Service.Set. A bare figure takes the unit that
// stood in the field.
func (s *Server) set(c *echo.Context) error {
	kept, err := s.jobs.Set(c.Request().Context(), who(c), c.Param("tag"), job.Edit{
		Field: c.FormValue("field"), Value: c.FormValue("value"), Base: c.FormValue("base"), Bare: c.FormValue("unit"),
	})
	if err != nil {
		return err
	}
	return ok(c, map[string]any{"value": kept})
}

func (s *Server) takeOffRest(c *echo.Context) error {
	return done(c, s.jobs.TakeOffRest(c.Request().Context(), who(c), c.Param("tag"), unitNo(c)))
}

func done(c *echo.Context, err error) error {
	if err != nil {
		return err
	}
	return ok(c, nil)
}

func countOf(c *echo.Context) (int, error) {
	text := strings.TrimSpace(c.FormValue("count"))
	if text == "" {
		return 1, nil
	}
	n, err := strconv.Atoi(text)
	if err != nil {
		return 0, field.Errorf("count", "is a whole number, like 2")
	}
	return n, nil
}

func (s *Server) addLoose(c *echo.Context) error {
	n, err := countOf(c)
	if err != nil {
		return err
	}
	return done(c, s.jobs.AddLoose(c.Request().Context(), who(c), c.Param("tag"), unitNo(c), c.FormValue("what"),
		c.FormValue("place"), n))
}

func (s *Server) addPiece(c *echo.Context) error {
	n, err := countOf(c)
	if err != nil {
		return err
	}
	return done(c, s.jobs.AddPiece(c.Request().Context(), who(c), c.Param("tag"), unitNo(c), c.FormValue("number"),
		c.FormValue("name"), n, c.FormValue("place")))
}

func (s *Server) nextAttempt(c *echo.Context) error {
	return done(c, s.jobs.NextAttempt(c.Request().Context(), who(c), c.Param("tag"), unitNo(c),
		c.FormValue("one_change")))
}

func (s *Server) takeFromStand(c *echo.Context) error {
	return done(c, s.jobs.TakeFromStand(c.Request().Context(), who(c), c.Param("tag"), unitNo(c), c.FormValue("code")))
}

func (s *Server) closeAttempt(c *echo.Context) error {
	return done(c, s.jobs.CloseAttempt(c.Request().Context(), who(c), c.Param("tag"), unitNo(c)))
}

func (s *Server) openRound(c *echo.Context) error {
	back := c.FormValue("back_to")
	if err := s.jobs.OpenRound(c.Request().Context(), who(c), c.Param("tag"), unitNo(c), back,
		c.FormValue("reason")); err != nil {
		return err
	}
	return ok(c, map[string]any{"go": "/jobs/" + c.Param("tag") + "/" + back})
}

func (s *Server) acknowledge(c *echo.Context) error {
	return done(c, s.jobs.Acknowledge(c.Request().Context(), who(c), c.Param("tag"), unitNo(c), c.FormValue("caution")))
}

func (s *Server) passStop(c *echo.Context) error {
	return done(c, s.jobs.WaiveStop(c.Request().Context(), who(c), c.Param("tag"), unitNo(c), c.FormValue("code"),
		c.FormValue("reason")))
}

func (s *Server) handOver(c *echo.Context) error {
	return done(c, s.jobs.HandOver(c.Request().Context(), who(c), c.Param("tag")))
}

// NewJobView is the page of a new job.
type NewJobView struct {
	Groups []FamilyGroup
	In     job.NewJob
	Error  *field.Error
}

// Named is something to choose, with what it is called.
type Named struct{ Code, Name string }

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
	v := NewJobView{In: in, Error: fault}
	v.Groups = s.familyGroups()
	p := s.page(c, "New job")
	p.Body = v
	return s.render(c, status, "newjob", p)
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

func (s *Server) export(c *echo.Context) error {
	tag := c.Param("tag")
	if _, err := s.store.Job(c.Request().Context(), tag); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Type", "application/zip")
	c.Response().Header().Set("Content-Disposition", `attachment; filename="`+safeName(tag)+`.zip"`)
	return exchange.Write(c.Request().Context(), s.store, tag, c.Response())
}

// safeName keeps a tag fit for a file name.
func safeName(s string) string {
	return strings.Map(func(r rune) rune {
		if r >= 'a' && r <= 'z' || r >= 'A' && r <= 'Z' || r >= '0' && r <= '9' || r == '-' {
			return r
		}
		return '_'
	}, s)
}

func (s *Server) importJob(c *echo.Context) error {
	head, err := c.FormFile("file")
	if err != nil {
		return field.Errorf("file", "choose a job file, a .zip that was exported")
	}
	f, err := head.Open()
	if err != nil {
		return err
	}
	defer f.Close()
	d, files, err := exchange.OpenZip(f, head.Size)
	if err != nil {
		return field.Errorf("file", "%s", err)
	}
	if err := exchange.Import(c.Request().Context(), s.jobs, d, files, who(c).Name); err != nil {
		return field.Errorf("file", "%s", err)
	}
	return ok(c, map[string]any{"go": "/jobs/" + d.Tag()})
}
