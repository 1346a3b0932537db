package door

import (
	"crypto/subtle"
	"errors"
	"net/http"
	"strings"
	"sync"

	"corvek/core/field"
	"corvek/internal/people"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// FirstStart lets the first person of an empty store in: whoever reads the
// terminal that the program was started in.
type FirstStart struct {
	Code string

	wrong sync.Mutex
	tries int
}

// MostFirstTries of the code are heard before the program must be started anew.
const MostFirstTries = 30

// Opens reports whether what was typed is the code of the first start, a field error where it is not. It is called
// concurrently.
func (f *FirstStart) Opens(typed string) error {
	f.wrong.Lock()
	defer f.wrong.Unlock()
	typed = strings.ToUpper(strings.Join(strings.Fields(typed), ""))
	switch {
	case f.tries >= MostFirstTries:
		return field.Errorf("once", "was wrong too often; start Corvek again for another one")
	case subtle.ConstantTimeCompare([]byte(typed), []byte(f.Code)) != 1:
		f.tries++
		return field.Errorf("once", "is not the one in the terminal where Corvek was started")
	}
	return nil
}

// FirstPage asks for the shop and its first lead.
type FirstPage struct {
	site.Reader
	Fields []site.Plain
	Fault  string
}

// mustBegin sends to the first page while nobody could sign in.
func (s *Pages) mustBegin(c *echo.Context) (bool, error) {
	if s.first == nil {
		return false, nil
	}
	none, err := s.Store.NoPeople(c.Request().Context())
	if err != nil || !none {
		return false, err
	}
	return true, c.Redirect(http.StatusSeeOther, "/first")
}

func (s *Pages) firstPage(c *echo.Context) error {
	if s.first == nil {
		return store.ErrNotFound
	}
	none, err := s.Store.NoPeople(c.Request().Context())
	if err != nil {
		return err
	}
	if !none {
		return c.Redirect(http.StatusSeeOther, "/sign-in")
	}
	return s.renderFirst(c, http.StatusOK, nil, "", people.Form{})
}

func (s *Pages) renderFirst(c *echo.Context, status int, fault error, shop string, f people.Form) error {
	v := FirstPage{Reader: s.Reader(c)}
	v.Fields = site.PlainForm(fault,
		site.Plain{Name: "once", Label: "Code from the terminal", Value: c.FormValue("once"), Focus: fault == nil,
			Help: "It stands where Corvek was started."},
		site.Plain{Name: "shop", Label: "Name of the shop", Value: shop, Help: "Stands on the letterhead."},
		site.Plain{Name: "name", Label: "Your full name", Value: f.Name, Fill: "name"},
		site.Plain{Name: "sign_in", Label: "Name to sign in with", Value: f.SignIn, Fill: "username"},
		site.Plain{Name: "password", Label: "Password", Type: "password", Fill: "new-password",
			Help: "At least 8 letters or figures."})
	v.Fault = site.Besides(fault, v.Fields)
	return s.Render(c, status, "first", "A new shop", v)
}

// begin names the shop, keeps its first lead and signs him in.
func (s *Pages) begin(c *echo.Context) error {
	if s.first == nil {
		return store.ErrNotFound
	}
	ctx := c.Request().Context()
	shop, f := c.FormValue("shop"), site.ReadPerson(c)
	err := s.first.Opens(c.FormValue("once"))
	if err == nil {
		err = s.People.Begin(ctx, shop, f)
	}
	var fe *field.Error
	if errors.As(err, &fe) {
		return s.renderFirst(c, http.StatusUnprocessableEntity, err, shop, f)
	}
	if err != nil {
		return err
	}
	p, err := s.Store.PersonBySignIn(ctx, people.SignInName(f.SignIn))
	if err != nil {
		return err
	}
	if err := s.Enter(ctx, p); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, "/jobs")
}
