package web

import (
	"net/http"

	"github.com/labstack/echo/v5"
)

// MePage is what a person changes by himself.
type MePage struct {
	Reader
	Password, Quick           []Plain
	PasswordFault, QuickFault string
	Done                      string
}

func (s *Server) mePage(c *echo.Context) error {
	done := map[string]string{"password": "The new password holds. Other screens have to sign in with it.",
		"quick": "Code and badge are kept as given."}
	return s.renderMe(c, http.StatusOK, nil, nil, done[c.QueryParam("done")])
}

func (s *Server) renderMe(c *echo.Context, status int, password, quick error, done string) error {
	v := MePage{Reader: s.reader(c), Done: done}
	v.Password = plainForm(password,
		Plain{Name: "own", Label: "Present password", Type: "password", Fill: "current-password"},
		Plain{Name: "password", Label: "New password", Type: "password", Fill: "new-password",
			Help: "At least 8 letters or figures. Every other screen of yours must sign in again."})
	v.Quick = quickForm(quick)
	v.PasswordFault, v.QuickFault = besides(password, v.Password), besides(quick, v.Quick)
	return s.render(c, status, "me", "Your sign-in", v)
}

func quickForm(fault error) []Plain {
	return plainForm(fault,
		Plain{Name: "code", Label: "Code of four digits", Type: "password", Mode: "numeric", Fill: "off",
			Help: "Takes over a bench where somebody is signed in. Left empty: as it is."},
		Plain{Name: "badge", Label: "Badge", Type: "password", Fill: "off",
			Help: "Put the caret here and scan it."})
}

func (s *Server) ownPassword(c *echo.Context) error {
	ctx, a := c.Request().Context(), who(c)
	err := s.people.NewPassword(ctx, a, a.ID, c.FormValue("own"), c.FormValue("password"))
	if err != nil {
		if isField(err) {
			return s.renderMe(c, http.StatusUnprocessableEntity, err, nil, "")
		}
		return err
	}
	// This screen is the person's own, who has just said so: it stays signed in.
	p, err := s.store.Person(ctx, a.ID)
	if err != nil {
		return err
	}
	if err := s.enter(ctx, p); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/me?done=password")
}

// setQuick gives a person a code or a badge, or takes both away.
func (s *Server) setQuick(c *echo.Context, id uint) error {
	ctx := c.Request().Context()
	if c.FormValue("none") == "yes" {
		return s.people.NoQuickEntry(ctx, who(c), id)
	}
	return s.people.QuickEntry(ctx, who(c), id, c.FormValue("code"), c.FormValue("badge"))
}

func (s *Server) ownQuick(c *echo.Context) error {
	a := who(c)
	err := s.setQuick(c, a.ID)
	if isField(err) {
		return s.renderMe(c, http.StatusUnprocessableEntity, nil, err, "")
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/me?done=quick")
}
