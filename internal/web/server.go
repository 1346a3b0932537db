// Package web serves the pages and the HTTP interface. Handlers are thin: they
// read the request, call the job service and render what it computed.
package web

import (
	"log/slog"
	"net"
	"net/http"
	"time"

	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/stand"
	"corvek/internal/store"

	"github.com/alexedwards/scs/v2"
	"github.com/klauspost/compress/gzhttp"
	"github.com/klauspost/compress/gzip"
	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"
)

// Config is what a server is made of.
type Config struct {
	Jobs   *job.Service
	Demo   bool // offer the demo sign-ins on the sign-in page
	Secure bool // served over TLS: cookies say so
	First  *FirstStart
	Copies *store.Keeper // of the store; nil where none are made
	// HashCost is how much work hashing a password is, as bcrypt counts it; 0 for the
	// usual. Tests take less.
	HashCost int
	// Pace is how many seconds of a program pass in one on the simulated stand, 0 for one.
	// Tests take more.
	Pace float64
	// Proxies are trusted to tell the address that a request came from.
	Proxies []*net.IPNet
}

// Server holds what handlers need.
type Server struct {
	jobs     *job.Service
	store    *store.Store
	sessions *scs.SessionManager
	views    *views
	assets   *assets
	demo     bool
	roles    map[string]string // the least role for a method and path; "" is open to everybody
	people   *people.Service
	first    *FirstStart
	copies   *store.Keeper
	metrics  *metrics
	desk     *stand.Desk
	changes  *changes
	drawings *drawings
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

// New builds the web application.
func New(cfg Config) (*echo.Echo, *Server, error) {
	a, err := loadAssets()
	if err != nil {
		return nil, nil, err
	}
	v, err := loadViews(a)
	if err != nil {
		return nil, nil, err
	}
	s := &Server{roles: map[string]string{}, jobs: cfg.Jobs, store: cfg.Jobs.Store, views: v, assets: a, demo: cfg.Demo,
		people: &people.Service{Store: cfg.Jobs.Store, Now: cfg.Jobs.Now, Cost: cfg.HashCost, Demo: cfg.Demo},
		first:  cfg.First, copies: cfg.Copies, desk: stand.NewDesk(cfg.Jobs, cfg.Pace)}
	if s.copies == nil {
		s.copies = &store.Keeper{Store: s.store}
	}
	s.changes = newChanges(s.store)
	if s.drawings, err = newDrawings(); err != nil {
		return nil, nil, err
	}
	s.metrics = newMetrics(s.store, s.copies)
	s.sessions = scs.New()
	s.sessions.Store = s.store.Sessions()
	s.sessions.Lifetime = 14 * 24 * time.Hour
	s.sessions.Cookie.Name = sessionCookie
	s.sessions.Cookie.HttpOnly = true
	s.sessions.Cookie.SameSite = http.SameSiteLaxMode
	s.sessions.Cookie.Secure = cfg.Secure
	s.sessions.ErrorFunc = s.sessionFault

	e := echo.New()
	e.HTTPErrorHandler = s.fail
	e.IPExtractor = addresses(cfg.Proxies)
	e.Use(middleware.Recover())
	e.Use(s.log)
	e.Use(middleware.SecureWithConfig(middleware.SecureConfig{
		XFrameOptions: "DENY", ContentTypeNosniff: "nosniff", ReferrerPolicy: "same-origin",
		ContentSecurityPolicy: contentPolicy, HSTSMaxAge: secureFor(cfg.Secure), HSTSExcludeSubdomains: true,
	}))
	e.Use(s.bounded)
	// Static files know nobody: they are answered before a session is asked for.
	e.GET("/static/*", a.serve)
	e.HEAD("/static/*", a.serve)
	e.Use(unlessStatic(echo.WrapMiddleware(s.sessions.LoadAndSave)))
	e.Use(unlessStatic(s.answered))
	e.Use(unlessStatic(s.identify))
	// Who may not come in is told so before anything that he sends is read.
	e.Use(unlessStatic(s.requireRole))
	e.Use(unlessStatic(s.checkCSRF))
	e.Use(unlessStatic(s.once))
	e.Use(unlessStatic(s.shown(e)))
	for _, r := range s.routes() {
		e.Add(r.method, r.path, r.handle)
		s.roles[r.method+" "+r.path] = r.role
	}
	return e, s, nil
}

// addresses tells where a request comes from: the other end of its connection,
// or what a trusted proxy there says.
func addresses(proxies []*net.IPNet) echo.IPExtractor {
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
func (s *Server) log(next echo.HandlerFunc) echo.HandlerFunc {
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
