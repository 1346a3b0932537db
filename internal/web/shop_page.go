package web

import (
	"errors"
	"net/http"
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
	return s.renderShop(c, http.StatusOK, nil, people.Form{Role: "technician"})
}

func (s *Server) renderShop(c *echo.Context, status int, addFault error, f people.Form) error {
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
		return s.renderShop(c, http.StatusUnprocessableEntity, err, f)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/shop")
}
