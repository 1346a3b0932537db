// Package site is what the rooms of the pages have in common: who is there and what he may do, how a
// page is laid out and laid over, how a fault is told, static files. It knows no room.
package site

import (
	"context"
	"html/template"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"time"

	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store"

	"github.com/alexedwards/scs/v2"
	"github.com/klauspost/compress/gzhttp"
	"github.com/klauspost/compress/gzip"
	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"
)

// Config is what a site is made of.
type Config struct {
	Jobs   *job.Service
	Demo   bool          // offer the demo sign-ins on the sign-in page
	Secure bool          // served over TLS: cookies say so
	Copies *store.Keeper // of the store; nil where none are made
	// HashCost is how much work hashing a password is, as bcrypt counts it; 0 for the
	// usual. Tests take less.
	HashCost int
	// LookTime is how long a page may take, 0 for the usual. Tests take more: they share their machine.
	LookTime time.Duration
	// Proxies are trusted to tell the address that a request came from.
	Proxies []*net.IPNet
	// House keeps people and sessions where the jobs are units of practice; nil where jobs and people are in one store.
	House *store.Store
	// Admit lets a person to a unit of practice, and tells what stands about it on each of its pages; nil for a shop's
	// own jobs.
	Admit func(ctx context.Context, who people.Actor, tag string) (*Practice, error)
}

// Site is what all rooms have in common: who is there, what may be asked, how a page is laid out,
// how a fault is told. Its handlers are called concurrently.
type Site struct {
	Jobs     *job.Service
	Store    *store.Store
	Sessions *scs.SessionManager
	People   *people.Service
	Copies   *store.Keeper
	Demo     bool
	Views    *views
	config   Config
	house    *store.Store // of people and sessions
	assets   *assets
	routes   map[string]Route // by method and path
	metrics  *metrics
}

// Room is a part of the pages that a reader looks for by one word.
type Room struct {
	Routes []Route
	// Files are its templates (templates/pages, each a page by its name, and templates/parts, which
	// these share) and its style sheets (css); nil for a room that shows no page.
	Files fs.FS
	Funcs template.FuncMap // that its templates call besides those of all
}

// contentPolicy lets nothing in that the application does not ship itself.
const contentPolicy = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; " +
	"font-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'; manifest-src " +
	"'self'"

// secureFor is how many seconds a browser asks for nothing but TLS, once it was served so.
func secureFor(secure bool) int {
	if secure {
		return int((365 * 24 * time.Hour).Seconds())
	}
	return 0
}

// New makes a site with no room in it yet.
func New(cfg Config) *Site {
	house := cfg.House
	if house == nil {
		house = cfg.Jobs.Store
	}
	s := &Site{config: cfg, Jobs: cfg.Jobs, Store: cfg.Jobs.Store, house: house, Copies: cfg.Copies, Demo: cfg.Demo,
		People: &people.Service{Store: house, Now: cfg.Jobs.Now, Cost: cfg.HashCost, Demo: cfg.Demo},
		routes: map[string]Route{}}
	if s.Copies == nil {
		s.Copies = &store.Keeper{Store: s.Store}
	}
	s.metrics = newMetrics(s.Store, s.Copies)
	s.Sessions = scs.New()
	s.Sessions.Store = house.Sessions()
	s.Sessions.Lifetime = 14 * 24 * time.Hour
	s.Sessions.Cookie.Name = sessionCookie
	s.Sessions.Cookie.HttpOnly = true
	s.Sessions.Cookie.SameSite = http.SameSiteLaxMode
	s.Sessions.Cookie.Secure = cfg.Secure
	s.Sessions.ErrorFunc = s.sessionFault
	return s
}

// Serve builds the web application of its rooms.
func (s *Site) Serve(rooms ...Room) (e *echo.Echo, err error) {
	if s.assets, s.Views, err = looks.of(rooms); err != nil {
		return nil, err
	}
	e = echo.New()
	e.HTTPErrorHandler = s.fail
	e.IPExtractor = Addresses(s.config.Proxies)
	e.Use(middleware.Recover())
	e.Use(s.log)
	e.Use(middleware.SecureWithConfig(middleware.SecureConfig{
		XFrameOptions: "DENY", ContentTypeNosniff: "nosniff", ReferrerPolicy: "same-origin",
		ContentSecurityPolicy: contentPolicy, HSTSMaxAge: secureFor(s.config.Secure), HSTSExcludeSubdomains: true,
	}))
	e.Use(s.bounded)
	// Static files know nobody: they are answered before a session is asked for.
	e.GET("/static/*", s.assets.serve)
	e.HEAD("/static/*", s.assets.serve)
	e.Use(unlessStatic(echo.WrapMiddleware(s.Sessions.LoadAndSave)))
	e.Use(unlessStatic(s.answered))
	e.Use(unlessStatic(s.identify))
	// Who may not come in is told so before anything that he sends is read.
	e.Use(unlessStatic(s.requireRole))
	e.Use(unlessStatic(s.checkCSRF))
	e.Use(unlessStatic(s.once))
	e.Use(unlessStatic(s.shown(e)))
	for _, room := range rooms {
		for _, r := range room.Routes {
			e.Add(r.Method, r.Path, r.Handle)
			s.routes[r.Method+" "+r.Path] = r
		}
	}
	return e, nil
}

// routeOf is the route that a request takes; ok is false where there is none.
func (s *Site) routeOf(c *echo.Context) (r Route, ok bool) {
	r, ok = s.routes[c.Request().Method+" "+c.Path()]
	return r, ok
}

// Addresses tells where a request comes from: the other end of its connection,
// or what a trusted proxy there says.
func Addresses(proxies []*net.IPNet) echo.IPExtractor {
	if len(proxies) == 0 {
		return echo.ExtractIPDirect()
	}
	trust := []echo.TrustOption{echo.TrustLoopback(false), echo.TrustLinkLocal(false), echo.TrustPrivateNet(false)}
	for _, p := range proxies {
		trust = append(trust, echo.TrustIPRange(p))
	}
	return echo.ExtractIPFromXFFHeader(trust...)
}

// Compressed packs what a handler sends. It stands around the whole application,
// so that pages of faults go through it too.
func Compressed(h http.Handler) (http.Handler, error) {
	pack, err := gzhttp.NewWrapper(gzhttp.MinSize(1024), gzhttp.CompressionLevel(gzip.BestSpeed))
	if err != nil {
		return nil, err
	}
	return pack(h), nil
}

// unlessStatic leaves a middleware out for static files.
func unlessStatic(m echo.MiddlewareFunc) echo.MiddlewareFunc {
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		with := m(next)
		return func(c *echo.Context) error {
			if c.Path() == "/static/*" {
				return next(c)
			}
			return with(c)
		}
	}
}

// log writes one structured line a request, without what was typed.
func (s *Site) log(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		began := time.Now()
		err := next(c)
		status := 0
		if r, uerr := echo.UnwrapResponse(c.Response()); uerr == nil {
			status = r.Status
		}
		level := slog.LevelInfo
		if err != nil && statusOf(err) >= 500 {
			level = slog.LevelError
		}
		took := time.Since(began)
		s.metrics.count(c, max(status, statusOf(err)), took)
		attrs := []slog.Attr{slog.String("method", c.Request().Method), slog.String("path", c.Request().URL.Path),
			slog.Int("status", max(status, statusOf(err))),
			slog.Duration("took", took.Round(10*time.Microsecond))}
		if who, ok := c.Get("person").(people.Actor); ok {
			attrs = append(attrs, slog.String("person", who.Initials))
		}
		if err != nil {
			attrs = append(attrs, slog.String("error", err.Error()))
		}
		slog.LogAttrs(c.Request().Context(), level, "request", attrs...)
		return err
	}
}
