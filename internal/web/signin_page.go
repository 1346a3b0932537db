package web

import (
	"errors"
	"math"
	"net/http"
	"strconv"

	"corvek/internal/answer"
	"corvek/internal/people"

	"github.com/labstack/echo/v5"
)

// SignInPage is the sign-in page.
type SignInPage struct {
	Reader
	SignIn, Next, Error string
	Demo                []DemoSignIn
}

// DemoSignIn is offered where the demo is served.
type DemoSignIn struct{ SignIn, Name, Role string }

func (s *Server) signInPage(c *echo.Context) error {
	if who(c).ID != 0 {
		return c.Redirect(http.StatusSeeOther, "/jobs")
	}
	if begin, err := s.mustBegin(c); begin || err != nil {
		return err
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
	v := SignInPage{SignIn: people.SignInName(c.FormValue("sign_in")), Next: c.FormValue("next")}
	p, err := s.people.SignIn(ctx, v.SignIn, c.FormValue("password"), c.RealIP())
	if status := refusedEntry(c, err); status != 0 {
		v.Error = answer.Capital(err.Error())
		return s.renderSignIn(c, status, v)
	}
	if err != nil {
		return err
	}
	if err := s.enter(ctx, p); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, ownPath(v.Next))
}

// refusedEntry is the status of a try that was refused, 0 for anything else.
func refusedEntry(c *echo.Context, err error) int {
	var early *people.TooEarly
	switch {
	case errors.As(err, &early):
		c.Response().Header().Set("Retry-After", strconv.Itoa(int(math.Ceil(early.Wait.Seconds()))))
		return http.StatusTooManyRequests
	case errors.Is(err, people.ErrWrong), errors.Is(err, people.ErrPublic):
		return http.StatusUnprocessableEntity
	}
	return 0
}

func (s *Server) signOut(c *echo.Context) error {
	if err := s.sessions.Destroy(c.Request().Context()); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/sign-in")
}

func (s *Server) home(c *echo.Context) error { return c.Redirect(http.StatusSeeOther, "/jobs") }
