package shoppages

import (
	"net/http"
	"time"

	"corvek/internal/people"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// How many lines of what happened a lead is shown.
const mostShopLines = 100

// ShopPage is who may come in, for leads.
type ShopPage struct {
	site.Reader
	People  []PersonRow
	Add     []site.Plain
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

func (s *Pages) shop(c *echo.Context) error {
	return s.renderShop(c, http.StatusOK, nil, people.Form{Role: "technician"})
}

func (s *Pages) renderShop(c *echo.Context, status int, addFault error, f people.Form) error {
	ctx := c.Request().Context()
	v := ShopPage{Reader: s.Reader(c), Roles: people.Roles, Role: f.Role}
	list, err := s.Store.People(ctx)
	if err != nil {
		return err
	}
	failed, err := s.Store.FailedSignIns(ctx)
	if err != nil {
		return err
	}
	for _, p := range list {
		v.People = append(v.People, PersonRow{p, failed[p.SignIn]})
	}
	if v.Tries, err = s.Store.SignIns(ctx, mostShopLines); err != nil {
		return err
	}
	if v.Entries, err = s.Store.ShopEntries(ctx, mostShopLines); err != nil {
		return err
	}
	v.Add = personForm(addFault, f)
	v.Fault = site.Besides(addFault, v.Add)
	return s.Render(c, status, "shop", "Shop", v)
}

func personForm(fault error, f people.Form) []site.Plain {
	return site.PlainForm(
		fault,
		site.Plain{Name: "name", Label: "Full name", Value: f.Name},
		site.Plain{Name: "initials", Label: "Initials", Value: f.Initials, Help: "Left empty: of the name."},
		site.Plain{
			Name:  "sign_in",
			Label: "Name to sign in with",
			Value: f.SignIn,
			Help:  "Capitals make no difference.",
		},
		site.Plain{Name: "password", Label: "First password", Type: "password", Fill: "new-password",
			Help: "At least 8 letters or figures; everybody can change his own."},
		site.FirstCasesField(f.FirstCases),
	)
}

func (s *Pages) addPerson(c *echo.Context) error {
	f := site.ReadPerson(c)
	err := s.People.Add(c.Request().Context(), site.Who(c), f)
	if site.IsField(err) {
		return s.renderShop(c, http.StatusUnprocessableEntity, err, f)
	}
	if err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/shop")
}
