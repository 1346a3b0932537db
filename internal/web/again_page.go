package web

import (
	"corvek/core/field"
	"net/http"
	"strings"

	"github.com/labstack/echo/v5"
)

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
