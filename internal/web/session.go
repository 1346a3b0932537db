package web

import (
	"net/http"

	"corvek/internal/job"
	"corvek/internal/store"

	"github.com/labstack/echo/v5"
	"golang.org/x/crypto/bcrypt"
)

// HashPassword makes the stored form of a password.
func HashPassword(password string) (string, error) {
	h, err := bcrypt.GenerateFromPassword([]byte(password), bcrypt.DefaultCost)
	return string(h), err
}

// absent is compared when a sign-in is not known, so that the time taken does
// not tell which names exist.
var absent, _ = bcrypt.GenerateFromPassword([]byte("nobody signs in with this"), bcrypt.DefaultCost)

// identify puts the signed-in person into the context, and for a page what the
// store says of the shop and the job, asked once.
func (s *Server) identify(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		ctx := c.Request().Context()
		if id := s.sessions.GetInt(ctx, "person"); id != 0 {
			g, err := s.store.Glance(ctx, uint(id), c.Param("tag"))
			if err != nil {
				return err
			}
			if g.Person != nil {
				c.Set("person", actor(g.Person))
			}
			if c.Request().Method == http.MethodGet {
				c.SetRequest(c.Request().WithContext(job.WithGlance(ctx, g)))
			}
		}
		return next(c)
	}
}

func actor(p *store.Person) job.Actor {
	return job.Actor{ID: p.ID, Name: p.Name, Initials: p.Initials, Role: p.Role}
}

func who(c *echo.Context) job.Actor {
	a, _ := c.Get("person").(job.Actor)
	return a
}

// admit lets only people of at least the route's role through.
func (s *Server) admit(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		role := s.roles[c.Request().Method+" "+c.Path()]
		if role == "" {
			return next(c)
		}
		a := who(c)
		if a.ID == 0 {
			if wantsJSON(c) || c.Request().Method != http.MethodGet {
				return echo.NewHTTPError(http.StatusUnauthorized, "sign in again")
			}
			return c.Redirect(http.StatusSeeOther, "/sign-in?next="+c.Request().URL.Path)
		}
		if !a.May(role) {
			return job.ErrForbidden
		}
		return next(c)
	}
}
