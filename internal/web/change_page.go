package web

import (
	"net/http"
	"strconv"
	"strings"

	"corvek/core/field"
	"corvek/internal/store"

	"github.com/labstack/echo/v5"
)

// ChangePage asks who is at the bench now: a badge under the scanner, or initials
// and four digits.
type ChangePage struct {
	Reader
	Next   string
	Tiles  []BenchTile
	Chosen uint
	Error  string
}

// BenchTile is somebody who has a code.
type BenchTile struct {
	ID             uint
	Name, Initials string
	Here           bool // is signed in
}

func (s *Server) changePage(c *echo.Context) error {
	return s.renderChange(c, http.StatusOK, ChangePage{Next: ownPath(c.QueryParam("next"))})
}

func (s *Server) renderChange(c *echo.Context, status int, v ChangePage) error {
	list, err := s.store.People(c.Request().Context())
	if err != nil {
		return err
	}
	v.Reader = s.reader(c)
	for _, p := range list {
		if p.CodeHash != "" && p.LockedAt == nil {
			v.Tiles = append(v.Tiles, BenchTile{p.ID, p.Name, p.Initials, p.ID == v.Person.ID})
		}
	}
	return s.render(c, status, "change", "Who is at the bench?", v)
}

// changePerson hands the bench to whom a badge or a code belongs.
func (s *Server) changePerson(c *echo.Context) error {
	ctx := c.Request().Context()
	v := ChangePage{Next: ownPath(c.FormValue("next"))}
	secret := strings.TrimSpace(c.FormValue("secret"))
	id, _ := strconv.ParseUint(c.FormValue("person"), 10, 32)
	v.Chosen = uint(id)
	var p *store.Person
	var err error
	switch {
	case secret == "":
		v.Error = "Hold the badge to the scanner, or type your four digits."
	case len(secret) == 4 && id == 0:
		v.Error = "Choose who you are, then type your four digits."
	case len(secret) == 4:
		p, err = s.people.CodeAtBench(ctx, v.Chosen, secret, c.RealIP())
	default:
		p, err = s.people.BadgeAtBench(ctx, secret, c.RealIP())
	}
	status := http.StatusUnprocessableEntity
	if refused := refusedEntry(c, err); refused != 0 {
		status, v.Error = refused, err.Error()
		if refused == http.StatusUnprocessableEntity {
			v.Error = "Nobody here has this code or badge."
		}
	} else if err != nil {
		return err
	}
	if v.Error != "" {
		return s.renderChange(c, status, v)
	}
	if err := s.enter(ctx, p); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, v.Next)
}

// againName is the field in which a rested bench is told who is there.
const againName = "still_me"

// stillThere takes a code or the password as word that the person is still there.
func (s *Server) stillThere(c *echo.Context, secret string) error {
	ctx := c.Request().Context()
	_, err := s.people.CodeAtBench(ctx, who(c).ID, strings.TrimSpace(secret), c.RealIP())
	switch status := refusedEntry(c, err); {
	case status == http.StatusUnprocessableEntity:
		return field.Errorf(againName, "is neither your code nor your password")
	case status != 0:
		return field.Errorf(againName, "%s", err)
	case err != nil:
		return err
	}
	s.awake(ctx)
	return nil
}

func (s *Server) confirm(c *echo.Context) error {
	return done(c, s.stillThere(c, c.FormValue(againName)))
}

// AgainPage asks who is there before a plain form is taken, and carries it on.
type AgainPage struct {
	Reader
	Action string
	Values [][2]string
	Field  Plain
}

func (s *Server) askAgain(c *echo.Context, fault error) error {
	v := AgainPage{Reader: s.reader(c)}
	v.Action, v.Values = carried(c)
	v.Field = plainForm(fault, Plain{Name: againName, Label: "Your code or password", Type: "password", Focus: true,
		Fill: "current-password"})[0]
	return s.render(c, http.StatusForbidden, "again", "Still you?", v)
}

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
