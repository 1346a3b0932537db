package door

import (
	"net/http"

	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// MePage is what a person changes by himself.
type MePage struct {
	site.Reader
	Password, Quick           []site.Plain
	PasswordFault, QuickFault string
	Done                      string
}

func (s *Pages) mePage(c *echo.Context) error {
	done := map[string]string{"password": "The new password holds. Other screens have to sign in with it.",
		"quick": "Code and badge are kept as given."}
	return s.renderMe(c, http.StatusOK, nil, nil, done[c.QueryParam("done")])
}

func (s *Pages) renderMe(c *echo.Context, status int, password, quick error, done string) error {
	v := MePage{Reader: s.Reader(c), Done: done}
	v.Password = site.PlainForm(password,
		site.Plain{Name: "own", Label: "Present password", Type: "password", Fill: "current-password"},
		site.Plain{Name: "password", Label: "New password", Type: "password", Fill: "new-password",
			Help: "At least 8 letters or figures. Every other screen of yours must sign in again."})
	v.Quick = site.QuickForm(quick)
	v.PasswordFault, v.QuickFault = site.Besides(password, v.Password), site.Besides(quick, v.Quick)
	return s.Render(c, status, "me", "Your sign-in", v)
}

func (s *Pages) ownPassword(c *echo.Context) error {
	ctx, a := c.Request().Context(), site.Who(c)
	err := s.People.NewPassword(ctx, a, a.ID, c.FormValue("own"), c.FormValue("password"))
	if err != nil {
		if site.IsField(err) {
			return s.renderMe(c, http.StatusUnprocessableEntity, err, nil, "")
		}
		return err
	}
	// This screen is the person's own, who has just said so: it stays signed in.
	p, err := s.Store.Person(ctx, a.ID)
	if err != nil {
		return err
	}
	if err := s.Enter(ctx, p); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/me?done=password")
}

func (s *Pages) ownQuick(c *echo.Context) error {
	a := site.Who(c)
	err := s.SetQuick(c, a.ID)
	if site.IsField(err) {
		return s.renderMe(c, http.StatusUnprocessableEntity, nil, err, "")
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/me?done=quick")
}
