package site

import (
	"fmt"

	"corvek/core/practice"
	"corvek/internal/people"

	"github.com/labstack/echo/v5"
)

// QuickForm are the fields of what lets a person in quickly, with the fault at the one it is about.
func QuickForm(fault error) []Plain {
	return PlainForm(fault,
		Plain{Name: "code", Label: "Code of four digits", Type: "password", Mode: "numeric", Fill: "off",
			Help: "Takes over a bench where somebody is signed in. Left empty: as it is."},
		Plain{Name: "badge", Label: "Badge", Type: "password", Fill: "off",
			Help: "Put the caret here and scan it."})
}

// SetQuick gives a person a code or a badge, or takes both away.
func (s *Site) SetQuick(c *echo.Context, id uint) error {
	ctx := c.Request().Context()
	if c.FormValue("none") == "yes" {
		return s.People.NoQuickEntry(ctx, Who(c), id)
	}
	return s.People.QuickEntry(ctx, Who(c), id, c.FormValue("code"), c.FormValue("badge"))
}

// FirstCasesField asks how many units of practice come before a job of one's own.
func FirstCasesField(typed string) Plain {
	return Plain{Name: "first_cases", Label: "Units of practice before a first own job", Value: typed, Mode: "numeric",
		Help: fmt.Sprintf("Named rightly; %d is usual for somebody new. Left empty: none.", practice.UsualFirst)}
}

// ReadPerson reads the form of a person as it was typed.
func ReadPerson(c *echo.Context) people.Form {
	return people.Form{SignIn: c.FormValue("sign_in"), Name: c.FormValue("name"), Initials: c.FormValue("initials"),
		Role: c.FormValue("role"), Password: c.FormValue("password"),
		FirstCases: c.FormValue("first_cases")}
}
