package site

import (
	"errors"
	"math"
	"net/http"
	"strconv"
	"strings"

	"corvek/core/field"
	"corvek/internal/people"

	"github.com/labstack/echo/v5"
)

// againName is the field in which a rested bench is told who is there.
const againName = "still_me"

// stillThere takes a code or the password as word that the person is still there.
func (s *Site) stillThere(c *echo.Context, secret string) error {
	ctx := c.Request().Context()
	_, err := s.People.CodeAtBench(ctx, Who(c).ID, strings.TrimSpace(secret), c.RealIP())
	switch status := RefusedEntry(c, err); {
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

// Confirm takes the word of the person at the bench that it is still him.
func (s *Site) Confirm(c *echo.Context) error {
	return Done(c, s.stillThere(c, c.FormValue(againName)))
}

// AgainPage asks who is there before a plain form is taken, and carries it on.
type AgainPage struct {
	Reader
	Action string
	Values [][2]string
	Field  Plain
}

func (s *Site) askAgain(c *echo.Context, fault error) error {
	v := AgainPage{Reader: s.Reader(c)}
	v.Action, v.Values = carried(c)
	v.Field = PlainForm(fault, Plain{Name: againName, Label: "Your code or password", Type: "password", Focus: true,
		Fill: "current-password"})[0]
	return s.Render(c, http.StatusForbidden, "again", "Still you?", v)
}

// RefusedEntry is the status of a try that was refused, 0 for anything else.
func RefusedEntry(c *echo.Context, err error) int {
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
