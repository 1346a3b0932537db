package web

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
	idleAfter = 10 * time.Minute
	seenEvery = time.Minute
)

// errAskAgain says that the bench has rested, and the act needs its person.
var errAskAgain = echo.NewHTTPError(http.StatusForbidden, "Say that it is still you: this bench has rested.")

// enter begins a session of a person under a new name of the session, so that
// whatever was open before is not his.
func (s *Server) enter(ctx context.Context, p *store.Person) error {
	if err := s.sessions.RenewToken(ctx); err != nil {
		return err
	}
	s.sessions.Put(ctx, keyPerson, int(p.ID))
	s.sessions.Put(ctx, keyEntry, p.Entry)
	s.sessions.Put(ctx, keyToken, rand.Text())
	s.awake(ctx)
	return nil
}

// awake notes that the person was there just now.
func (s *Server) awake(ctx context.Context) {
	s.sessions.Put(ctx, keySeen, s.jobs.Now().Unix())
	s.sessions.Remove(ctx, keyIdle)
}

// identify puts the signed-in person into the context, and for a page what the
// store says of the shop and the job, asked once.
func (s *Server) identify(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		ctx := c.Request().Context()
		if id := s.sessions.GetInt(ctx, keyPerson); id != 0 {
			g, err := s.store.Glance(ctx, uint(id), c.Param("tag"))
			if err != nil {
				return err
			}
			if g.Person == nil || g.Person.Entry != s.sessions.GetInt64(ctx, keyEntry) {
				// Locked, or with another password or role since.
				if err := s.sessions.Destroy(ctx); err != nil {
					return err
				}
				return next(c)
			}
			c.Set("person", actor(g.Person))
			c.Set("csrf", s.sessions.GetString(ctx, keyToken))
			s.watchRest(ctx)
			if c.Request().Method == http.MethodGet {
				c.SetRequest(c.Request().WithContext(job.WithGlance(ctx, g)))
			}
		}
		return next(c)
	}
}

// watchRest notes when the bench is at work, and that it rested for long.
func (s *Server) watchRest(ctx context.Context) {
	now := s.jobs.Now()
	rested := now.Sub(time.Unix(s.sessions.GetInt64(ctx, keySeen), 0))
	if rested > idleAfter {
		s.sessions.Put(ctx, keyIdle, true)
	}
	if rested > seenEvery {
		s.sessions.Put(ctx, keySeen, now.Unix())
	}
}

// signed is a handler of an act that somebody stands for: it asks who is there
// when the bench has rested. A plain form is asked on a page of its own, which
// carries what was typed on.
func (s *Server) signed(act echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		err := s.requireReauth(c)
		if err != nil && !wantsJSON(c) && statusOf(err) < 500 {
			return s.askAgain(c, err)
		}
		if err != nil {
			return err
		}
		return act(c)
	}
}

// requireReauth reports whether the person at the bench is known to be the one signed in,
// or says so with this very request.
func (s *Server) requireReauth(c *echo.Context) error {
	if !s.sessions.GetBool(c.Request().Context(), keyIdle) {
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

func who(c *echo.Context) people.Actor {
	a, _ := c.Get("person").(people.Actor)
	return a
}

// requireRole lets only people of at least the route's role through.
func (s *Server) requireRole(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		role := s.roles[c.Request().Method+" "+c.Path()]
		if role == "" {
			return next(c)
		}
		a := who(c)
		if a.ID == 0 {
			if wantsJSON(c) || c.Request().Method != http.MethodGet {
				return echo.NewHTTPError(http.StatusUnauthorized, "sign in again")
			}
			return c.Redirect(http.StatusSeeOther, "/sign-in?next="+url.QueryEscape(c.Request().URL.Path))
		}
		if !a.May(role) {
			return people.ErrForbidden
		}
		return next(c)
	}
}

// checkCSRF lets only writes through that come from a page of our own, and of this
// very session: its token is made when somebody signs in and lives as long.
func (s *Server) checkCSRF(next echo.HandlerFunc) echo.HandlerFunc {
	const old = "This page is older than who is signed in; load it again. What you typed is kept."
	return func(c *echo.Context) error {
		// Calculators and written cases keep no state and know nobody, so there is nothing to forge.
		if c.Path() == apiCalcPath || c.Path() == apiExplainPath {
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

// ownPath is where to go next: a path of our own, never another site's address.
func ownPath(next string) string {
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
