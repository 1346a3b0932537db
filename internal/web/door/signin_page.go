package door

import (
	"net/http"

	"corvek/internal/answer"
	"corvek/internal/people"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// SignInPage is the sign-in page.
type SignInPage struct {
	site.Reader
	SignIn, Next, Error string
	Demo                []DemoSignIn
}

// DemoSignIn is offered where the demo is served.
type DemoSignIn struct{ SignIn, Name, Role string }

func (s *Pages) signInPage(c *echo.Context) error {
	if site.Who(c).ID != 0 {
		return c.Redirect(http.StatusSeeOther, "/jobs")
	}
	if begin, err := s.mustBegin(c); begin || err != nil {
		return err
	}
	return s.renderSignIn(c, http.StatusOK, SignInPage{Next: c.QueryParam("next")})
}

func (s *Pages) renderSignIn(c *echo.Context, status int, v SignInPage) error {
	if s.Demo {
		people, err := s.Store.People(c.Request().Context())
		if err != nil {
			return err
		}
		for _, p := range people {
			v.Demo = append(v.Demo, DemoSignIn{p.SignIn, p.Name, p.Role})
		}
	}
	v.Reader = s.Reader(c)
	return s.Render(c, status, "signin", "Sign in", v)
}

func (s *Pages) signIn(c *echo.Context) error {
	ctx := c.Request().Context()
	v := SignInPage{SignIn: people.SignInName(c.FormValue("sign_in")), Next: c.FormValue("next")}
	p, err := s.People.SignIn(ctx, v.SignIn, c.FormValue("password"), c.RealIP())
	if status := site.RefusedEntry(c, err); status != 0 {
		v.Error = answer.Capital(err.Error())
		return s.renderSignIn(c, status, v)
	}
	if err != nil {
		return err
	}
	if err := s.Enter(ctx, p); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, site.OwnPath(v.Next))
}

func (s *Pages) signOut(c *echo.Context) error {
	if err := s.Sessions.Destroy(c.Request().Context()); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/sign-in")
}

func (s *Pages) home(c *echo.Context) error { return c.Redirect(http.StatusSeeOther, "/jobs") }
