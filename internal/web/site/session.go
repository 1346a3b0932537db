package site

import (
	"context"
	"crypto/rand"
	"crypto/subtle"
	"net/http"
	"net/url"
	"strings"
	"time"

	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store"

	"github.com/labstack/echo/v5"
)

// apiPath begins the addresses that keep no state and know nobody.
const apiPath = "/api/"

const sessionCookie = "corvek_session"

// What a session keeps.
const (
	keyPerson = "person" // number of who is signed in
	keyEntry  = "entry"  // as it was then; a step of it ends the session
	keyToken  = "token"  // that every form must carry
	keySeen   = "seen"   // when the bench was last at work, in seconds of 1970
	keyIdle   = "idle"   // true after a long rest, until the person says that it is still him
)

// idleAfter is how long a bench may rest before a signed act asks who is there;
// seenEvery is how exactly that is known.
const (
	IdleAfter = 10 * time.Minute
	seenEvery = time.Minute
)

// errAskAgain says that the bench has rested, and the act needs its person.
var errAskAgain = echo.NewHTTPError(http.StatusForbidden, "Say that it is still you: this bench has rested.")

// Enter begins a session of a person under a new name of the session, so that
// whatever was open before is not his.
func (s *Site) Enter(ctx context.Context, p *store.Person) error {
	if err := s.Sessions.RenewToken(ctx); err != nil {
		return err
	}
	s.Sessions.Put(ctx, keyPerson, int(p.ID))
	s.Sessions.Put(ctx, keyEntry, p.Entry)
	s.Sessions.Put(ctx, keyToken, rand.Text())
	s.awake(ctx)
	return nil
}

// awake notes that the person was there just now.
func (s *Site) awake(ctx context.Context) {
	s.Sessions.Put(ctx, keySeen, s.Jobs.Now().Unix())
	s.Sessions.Remove(ctx, keyIdle)
}

// identify puts the signed-in person into the context, and for a page what the
// store says of the shop and the job, asked once.
func (s *Site) identify(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		ctx := c.Request().Context()
		if id := s.Sessions.GetInt(ctx, keyPerson); id != 0 {
			g, err := s.glance(ctx, uint(id), c.Param("tag"))
			if err != nil {
				return err
			}
			if g.Person == nil || g.Person.Entry != s.Sessions.GetInt64(ctx, keyEntry) {
				// Locked, or with another password or role since.
				if err := s.Sessions.Destroy(ctx); err != nil {
					return err
				}
				return next(c)
			}
			c.Set("person", actor(g.Person))
			if err := s.admit(c, g.Person); err != nil {
				return err
			}
			c.Set("csrf", s.Sessions.GetString(ctx, keyToken))
			s.watchRest(ctx)
			if c.Request().Method == http.MethodGet {
				c.SetRequest(c.Request().WithContext(job.WithGlance(ctx, g)))
			}
		}
		return next(c)
	}
}

// glance asks once what the store says of a person and a job.
func (s *Site) glance(ctx context.Context, person uint, tag string) (store.Glance, error) {
	g, err := s.house.Glance(ctx, person, tag)
	if err != nil || s.house == s.Store {
		return g, err
	}
	own, err := s.Store.Glance(ctx, 0, tag)
	g.Job = own.Job
	return g, err
}

// admit lets a person to his own units of practice alone. On them he is his own lead.
func (s *Site) admit(c *echo.Context, p *store.Person) error {
	if s.config.Admit == nil || c.Param("tag") == "" {
		return nil
	}
	who := actor(p)
	of, err := s.config.Admit(c.Request().Context(), who, c.Param("tag"))
	if err != nil {
		return err
	}
	if who.May(people.RoleTechnician) {
		who.Role = people.RoleLead
	}
	c.Set("person", who)
	SetPractice(c, of)
	return nil
}

// watchRest notes when the bench is at work, and that it rested for long.
func (s *Site) watchRest(ctx context.Context) {
	now := s.Jobs.Now()
	rested := now.Sub(time.Unix(s.Sessions.GetInt64(ctx, keySeen), 0))
	if rested > IdleAfter {
		s.Sessions.Put(ctx, keyIdle, true)
	}
	if rested > seenEvery {
		s.Sessions.Put(ctx, keySeen, now.Unix())
	}
}

// Signed is a handler of an act that somebody stands for: it asks who is there
// when the bench has rested. A plain form is asked on a page of its own, which
// carries what was typed on.
func (s *Site) Signed(act echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		err := s.RequireReauth(c)
		if err != nil && !wantsJSON(c) && statusOf(err) < 500 {
			return s.askAgain(c, err)
		}
		if err != nil {
			return err
		}
		return act(c)
	}
}

// RequireReauth reports whether the person at the bench is known to be the one signed in,
// or says so with this very request.
func (s *Site) RequireReauth(c *echo.Context) error {
	if !s.Sessions.GetBool(c.Request().Context(), keyIdle) {
		return nil
	}
	if secret := c.FormValue(againName); secret != "" {
		return s.stillThere(c, secret)
	}
	return errAskAgain
}

func actor(p *store.Person) people.Actor {
	return people.Actor{ID: p.ID, Name: p.Name, Initials: p.Initials, Role: p.Role}
}

// Who is the person of a request; nobody, with number 0, where none is signed in.
func Who(c *echo.Context) people.Actor {
	a, _ := c.Get("person").(people.Actor)
	return a
}

// requireRole lets only people of at least the route's role through.
func (s *Site) requireRole(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		r, _ := s.routeOf(c)
		if r.Role == Open {
			return next(c)
		}
		a := Who(c)
		if a.ID == 0 {
			if wantsJSON(c) || c.Request().Method != http.MethodGet {
				return echo.NewHTTPError(http.StatusUnauthorized, "sign in again")
			}
			return c.Redirect(http.StatusSeeOther, "/sign-in?next="+url.QueryEscape(c.Request().URL.Path))
		}
		if !a.May(r.Role) {
			return people.ErrForbidden
		}
		return next(c)
	}
}

// checkCSRF lets only writes through that come from a page of our own, and of this
// very session: its token is made when somebody signs in and lives as long.
func (s *Site) checkCSRF(next echo.HandlerFunc) echo.HandlerFunc {
	const old = "This page is older than who is signed in; load it again. What you typed is kept."
	return func(c *echo.Context) error {
		// Calculators and written cases keep no state and know nobody, so there is nothing to forge.
		if strings.HasPrefix(c.Path(), apiPath) {
			return next(c)
		}
		if crossSite(c.Request()) {
			return echo.NewHTTPError(http.StatusForbidden, "This came from a page of another site.")
		}
		switch c.Request().Method {
		case http.MethodGet, http.MethodHead, http.MethodOptions:
			return next(c)
		}
		token, signedIn := c.Get("csrf").(string)
		if !signedIn {
			return next(c) // only what is open to everybody comes this far
		}
		sent := c.Request().Header.Get("X-CSRF-Token")
		if sent == "" {
			sent = c.Request().PostFormValue("csrf") // never of the address, which others may read
		}
		if token == "" || subtle.ConstantTimeCompare([]byte(sent), []byte(token)) != 1 {
			return echo.NewHTTPError(http.StatusForbidden, old)
		}
		return next(c)
	}
}

var origin = http.NewCrossOriginProtection()

// crossSite reports that a browser sent a write from a page of another site.
func crossSite(r *http.Request) bool { return origin.Check(r) != nil }

// OwnPath is where to go next: a path of our own, never another site's address.
func OwnPath(next string) string {
	const home = "/jobs"
	if !strings.HasPrefix(next, "/") || strings.HasPrefix(next, "//") || len(next) > 2000 ||
		strings.ContainsFunc(next, func(r rune) bool { return r <= ' ' || r == '\\' || r == 0x7f || r > 0xffff }) {
		return home
	}
	u, err := url.Parse(next)
	if err != nil || u.Host != "" || u.Scheme != "" || strings.HasPrefix(u.Path, "//") {
		return home
	}
	return next
}
