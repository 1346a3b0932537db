package web

import (
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"
	"golang.org/x/crypto/bcrypt"
)

// SignInPage is the sign-in page.
type SignInPage struct {
	Reader
	SignIn, Next, Error string
	Demo                []DemoSignIn
}

// DemoSignIn is offered where the demo is served.
type DemoSignIn struct{ SignIn, Name, Role string }

// DemoPassword opens every demo sign-in; the demo is served on loopback.
const DemoPassword = "tarnholm"

func (s *Server) signInPage(c *echo.Context) error {
	if who(c).ID != 0 {
		return c.Redirect(http.StatusSeeOther, "/jobs")
	}
	return s.renderSignIn(c, http.StatusOK, SignInPage{Next: c.QueryParam("next")})
}

func (s *Server) renderSignIn(c *echo.Context, status int, v SignInPage) error {
	if s.demo {
		people, err := s.store.People(c.Request().Context())
		if err != nil {
			return err
		}
		for _, p := range people {
			v.Demo = append(v.Demo, DemoSignIn{p.SignIn, p.Name, p.Role})
		}
	}
	v.Reader = s.reader(c)
	return s.render(c, status, "signin", "Sign in", v)
}

func (s *Server) signIn(c *echo.Context) error {
	ctx := c.Request().Context()
	v := SignInPage{SignIn: strings.ToLower(strings.TrimSpace(c.FormValue("sign_in"))), Next: c.FormValue("next")}
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
		next = "/jobs"
	}
	return c.Redirect(http.StatusSeeOther, next)
}

func (s *Server) signOut(c *echo.Context) error {
	if err := s.sessions.Destroy(c.Request().Context()); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/sign-in")
}

func (s *Server) home(c *echo.Context) error { return c.Redirect(http.StatusSeeOther, "/jobs") }
