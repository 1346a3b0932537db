package web

import (
	"net/http"
	"strings"

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

// require lets only people of at least the role through.
func (s *Server) require(role string) echo.MiddlewareFunc {
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
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
}

// SignInView is the sign-in page.
type SignInView struct {
	SignIn, Next, Error string
	Demo                []DemoSignIn
}

// DemoSignIn is offered where the demo is served.
type DemoSignIn struct{ SignIn, Name, Role string }

// DemoPassword opens every demo sign-in; the demo is served on loopback.
const DemoPassword = "tarnholm"

func (s *Server) signInPage(c *echo.Context) error {
	if who(c).ID != 0 {
		return c.Redirect(http.StatusSeeOther, "/rack")
	}
	return s.renderSignIn(c, http.StatusOK, SignInView{Next: c.QueryParam("next")})
}

func (s *Server) renderSignIn(c *echo.Context, status int, v SignInView) error {
	if s.demo {
		people, err := s.store.People(c.Request().Context())
		if err != nil {
			return err
		}
		for _, p := range people {
			v.Demo = append(v.Demo, DemoSignIn{p.SignIn, p.Name, p.Role})
		}
	}
	page := s.page(c, "Sign in")
	page.Body = v
	return s.render(c, status, "signin", page)
}

func (s *Server) signIn(c *echo.Context) error {
	ctx := c.Request().Context()
	v := SignInView{SignIn: strings.ToLower(strings.TrimSpace(c.FormValue("sign_in"))), Next: c.FormValue("next")}
	if ok, _ := s.slow.Allow(c.RealIP() + " " + v.SignIn); !ok {
		v.Error = "Too many tries; wait a minute."
		return s.renderSignIn(c, http.StatusTooManyRequests, v)
	}
	p, err := s.store.PersonBySignIn(ctx, v.SignIn)
	hash := absent
	if err == nil {
		hash = []byte(p.PasswordHash)
	}
	if bcrypt.CompareHashAndPassword(hash, []byte(c.FormValue("password"))) != nil || err != nil {
		v.Error = "Name and password do not go together."
		return s.renderSignIn(c, http.StatusUnprocessableEntity, v)
	}
	if err := s.sessions.RenewToken(ctx); err != nil {
		return err
	}
	s.sessions.Put(ctx, "person", int(p.ID))
	// Only a path of our own is followed, never another site's address.
	next := v.Next
	if !strings.HasPrefix(next, "/") || strings.HasPrefix(next, "//") || strings.Contains(next, "\\") {
		next = "/rack"
	}
	return c.Redirect(http.StatusSeeOther, next)
}

func (s *Server) signOut(c *echo.Context) error {
	if err := s.sessions.Destroy(c.Request().Context()); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/sign-in")
}
