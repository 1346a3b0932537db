package door

import (
	"net/http"
	"strconv"
	"strings"

	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// ChangePage asks who is at the bench now: a badge under the scanner, or initials
// and four digits.
type ChangePage struct {
	site.Reader
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

func (s *Pages) changePage(c *echo.Context) error {
	return s.renderChange(c, http.StatusOK, ChangePage{Next: site.OwnPath(c.QueryParam("next"))})
}

func (s *Pages) renderChange(c *echo.Context, status int, v ChangePage) error {
	list, err := s.Store.People(c.Request().Context())
	if err != nil {
		return err
	}
	v.Reader = s.Reader(c)
	for _, p := range list {
		if p.CodeHash != "" && p.LockedAt == nil {
			v.Tiles = append(v.Tiles, BenchTile{p.ID, p.Name, p.Initials, p.ID == v.Person.ID})
		}
	}
	return s.Render(c, status, "change", "Who is at the bench?", v)
}

// changePerson hands the bench to whom a badge or a code belongs.
func (s *Pages) changePerson(c *echo.Context) error {
	ctx := c.Request().Context()
	v := ChangePage{Next: site.OwnPath(c.FormValue("next"))}
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
		p, err = s.People.CodeAtBench(ctx, v.Chosen, secret, c.RealIP())
	default:
		p, err = s.People.BadgeAtBench(ctx, secret, c.RealIP())
	}
	status := http.StatusUnprocessableEntity
	if refused := site.RefusedEntry(c, err); refused != 0 {
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
	if err := s.Enter(ctx, p); err != nil {
		return err
	}
	return c.Redirect(http.StatusSeeOther, v.Next)
}
