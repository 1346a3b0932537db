package web

import (
	"corvek/internal/people"
	"corvek/internal/store"
	"net/http"
	"strconv"

	"github.com/labstack/echo/v5"
)

// PersonPage is one person, for leads.
type PersonPage struct {
	Reader
	P                           *store.Person
	Last                        string
	Self                        bool
	Who, Password, Quick        []Plain
	WhoFault, PwFault, QckFault string
	Role                        string
	Roles                       []string
}

func (s *Server) personPage(c *echo.Context) error { return s.renderPerson(c, http.StatusOK, "", nil) }

// renderPerson shows a person; form says to which of the forms a fault belongs.
func (s *Server) renderPerson(c *echo.Context, status int, form string, fault error) error {
	p, err := s.store.Person(c.Request().Context(), personID(c))
	if err != nil {
		return err
	}
	of := func(name string) error {
		if name == form {
			return fault
		}
		return nil
	}
	v := PersonPage{Reader: s.reader(c), P: p, Last: dayAndTime(p.LastSignIn), Role: p.Role, Roles: people.Roles}
	v.Self = v.Person.ID == p.ID
	name, initials := p.Name, p.Initials
	if of("who") != nil {
		name, initials, v.Role = c.FormValue("name"), c.FormValue("initials"), c.FormValue("role")
	}
	v.Who = plainForm(of("who"), Plain{Name: "name", Label: "Full name", Value: name},
		Plain{Name: "initials", Label: "Initials", Value: initials})
	v.Password = plainForm(of("password"), Plain{Name: "password", Label: "New password", Type: "password",
		Fill: "new-password", Help: "Ends everything the person has open."})
	v.Quick = quickForm(of("quick"))
	v.WhoFault, v.PwFault = besides(of("who"), v.Who), besides(of("password"), v.Password)
	v.QckFault = besides(of("quick"), v.Quick)
	return s.render(c, status, "person", p.Name, v)
}

func personID(c *echo.Context) uint {
	id, _ := strconv.ParseUint(c.Param("id"), 10, 31)
	return uint(id)
}

// onPerson does something to the person of the address and shows him again.
func (s *Server) onPerson(form string, act func(c *echo.Context, id uint) error) echo.HandlerFunc {
	return func(c *echo.Context) error {
		id := personID(c)
		err := act(c, id)
		if isField(err) {
			return s.renderPerson(c, http.StatusUnprocessableEntity, form, err)
		}
		if err != nil {
			return err
		}
		return c.Redirect(http.StatusSeeOther, "/shop/people/"+strconv.Itoa(int(id)))
	}
}

func (s *Server) changeOfPerson(c *echo.Context, id uint) error {
	return s.people.Change(c.Request().Context(), who(c), id, readPerson(c))
}

func (s *Server) passwordOfPerson(c *echo.Context, id uint) error {
	return s.people.NewPassword(c.Request().Context(), who(c), id, c.FormValue("own"), c.FormValue("password"))
}

func (s *Server) lockPerson(c *echo.Context, id uint) error {
	return s.people.Lock(c.Request().Context(), who(c), id, c.FormValue("lock") == "yes")
}
