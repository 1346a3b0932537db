package web

import (
	"errors"
	"net/http"
	"strconv"
	"time"

	"corvek/core/field"
	"corvek/internal/people"
	"corvek/internal/store"

	"github.com/labstack/echo/v5"
)

// How many lines of what happened a lead is shown.
const mostShopLines = 100

// ShopPage is who may come in, for leads.
type ShopPage struct {
	Reader
	Name    []Plain
	People  []PersonRow
	Add     []Plain
	Role    string
	Fault   string
	Roles   []string
	Tries   []store.SignIn
	Entries []store.ShopEntry
}

// PersonRow is a person in the list.
type PersonRow struct {
	store.Person
	Failed int // sign-ins in 30 days
}

// Last is when the person signed in last, in words.
func (p PersonRow) Last() string { return dayAndTime(p.LastSignIn) }

func dayAndTime(t *time.Time) string {
	if t == nil {
		return "never"
	}
	return t.Format("2 Jan 2006 15:04")
}

func (s *Server) shop(c *echo.Context) error {
	return s.renderShop(c, http.StatusOK, nil, nil, people.Form{Role: "technician"})
}

func (s *Server) renderShop(c *echo.Context, status int, nameFault, addFault error, f people.Form) error {
	ctx := c.Request().Context()
	v := ShopPage{Reader: s.reader(c), Roles: people.Roles, Role: f.Role}
	list, err := s.store.People(ctx)
	if err != nil {
		return err
	}
	failed, err := s.store.FailedSignIns(ctx)
	if err != nil {
		return err
	}
	for _, p := range list {
		v.People = append(v.People, PersonRow{p, failed[p.SignIn]})
	}
	if v.Tries, err = s.store.SignIns(ctx, mostShopLines); err != nil {
		return err
	}
	if v.Entries, err = s.store.ShopEntries(ctx, mostShopLines); err != nil {
		return err
	}
	name, err := s.store.ShopName(ctx)
	if err != nil {
		return err
	}
	if nameFault != nil {
		name = c.FormValue("shop")
	}
	v.Name = plainForm(nameFault, Plain{Name: "shop", Value: name,
		Label: "Name of the shop, at the head of the papers"})
	v.Add = personForm(addFault, f)
	v.Fault = besides(addFault, v.Add)
	return s.render(c, status, "shop", "Shop", v)
}

func personForm(fault error, f people.Form) []Plain {
	return plainForm(fault,
		Plain{Name: "name", Label: "Full name", Value: f.Name},
		Plain{Name: "initials", Label: "Initials", Value: f.Initials, Help: "Left empty: of the name."},
		Plain{Name: "sign_in", Label: "Name to sign in with", Value: f.SignIn, Help: "Capitals make no difference."},
		Plain{Name: "password", Label: "First password", Type: "password", Fill: "new-password",
			Help: "At least 8 letters or figures; everybody can change his own."})
}

func readPerson(c *echo.Context) people.Form {
	return people.Form{SignIn: c.FormValue("sign_in"), Name: c.FormValue("name"), Initials: c.FormValue("initials"),
		Role: c.FormValue("role"), Password: c.FormValue("password")}
}

func isField(err error) bool {
	var fe *field.Error
	return errors.As(err, &fe)
}

func (s *Server) addPerson(c *echo.Context) error {
	f := readPerson(c)
	err := s.people.Add(c.Request().Context(), who(c), f)
	if isField(err) {
		return s.renderShop(c, http.StatusUnprocessableEntity, nil, err, f)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/shop")
}

func (s *Server) nameShop(c *echo.Context) error {
	err := s.people.NameShop(c.Request().Context(), who(c), c.FormValue("shop"))
	if isField(err) {
		return s.renderShop(c, http.StatusUnprocessableEntity, err, nil, people.Form{Role: "technician"})
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/shop")
}

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
