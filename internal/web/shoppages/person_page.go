package shoppages

import (
	"net/http"
	"strconv"

	"corvek/core/practice"
	"corvek/internal/people"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// PersonPage is one person, for leads.
type PersonPage struct {
	site.Reader
	P                           *store.Person
	Last                        string
	Self                        bool
	Who, Password, Quick        []site.Plain
	WhoFault, PwFault, QckFault string
	Role                        string
	Roles                       []string
	First                       practice.First // how far he is with it
}

func (s *Pages) personPage(c *echo.Context) error { return s.renderPerson(c, http.StatusOK, "", nil) }

// renderPerson shows a person; form says to which of the forms a fault belongs.
func (s *Pages) renderPerson(c *echo.Context, status int, form string, fault error) error {
	p, err := s.Store.Person(c.Request().Context(), personID(c))
	if err != nil {
		return err
	}
	of := func(name string) error {
		if name == form {
			return fault
		}
		return nil
	}
	v := PersonPage{Reader: s.Reader(c), P: p, Last: dayAndTime(p.LastSignIn), Roles: people.Roles}
	v.Self = v.Person.ID == p.ID
	f := people.Form{Name: p.Name, Initials: p.Initials, Role: p.Role}
	if p.FirstCases > 0 {
		f.FirstCases = strconv.Itoa(p.FirstCases)
	}
	if of("who") != nil {
		f = site.ReadPerson(c)
	}
	v.Role = f.Role
	if v.First, err = s.Jobs.First(c.Request().Context(), p.ID); err != nil {
		return err
	}
	v.Who = site.PlainForm(of("who"), site.Plain{Name: "name", Label: "Full name", Value: f.Name},
		site.Plain{Name: "initials", Label: "Initials", Value: f.Initials}, site.FirstCasesField(f.FirstCases))
	v.Password = site.PlainForm(of("password"), site.Plain{Name: "password", Label: "New password", Type: "password",
		Fill: "new-password", Help: "Ends everything the person has open."})
	v.Quick = site.QuickForm(of("quick"))
	v.WhoFault, v.PwFault = site.Besides(of("who"), v.Who), site.Besides(of("password"), v.Password)
	v.QckFault = site.Besides(of("quick"), v.Quick)
	return s.Render(c, status, "person", p.Name, v)
}

func personID(c *echo.Context) uint {
	id, _ := strconv.ParseUint(c.Param("id"), 10, 31)
	return uint(id)
}

// onPerson does something to the person of the address and shows him again.
func (s *Pages) onPerson(form string, act func(c *echo.Context, id uint) error) echo.HandlerFunc {
	return func(c *echo.Context) error {
		id := personID(c)
		err := act(c, id)
		if site.IsField(err) {
			return s.renderPerson(c, http.StatusUnprocessableEntity, form, err)
		}
		if err != nil {
			return err
		}
		return c.Redirect(http.StatusSeeOther, "/shop/people/"+strconv.Itoa(int(id)))
	}
}

func (s *Pages) changeOfPerson(c *echo.Context, id uint) error {
	return s.People.Change(c.Request().Context(), site.Who(c), id, site.ReadPerson(c))
}

func (s *Pages) passwordOfPerson(c *echo.Context, id uint) error {
	return s.People.NewPassword(c.Request().Context(), site.Who(c), id, c.FormValue("own"), c.FormValue("password"))
}

func (s *Pages) lockPerson(c *echo.Context, id uint) error {
	return s.People.Lock(c.Request().Context(), site.Who(c), id, c.FormValue("lock") == "yes")
}
