// Package web serves the pages and the HTTP interface. Handlers are thin: they
// read the request, call the job service and render what it computed.
package web

import (
	"context"
	"errors"
	"log/slog"
	"net/http"
	"time"

	"corvek/core/field"
	"corvek/internal/job"
	"corvek/internal/store"

	"github.com/alexedwards/scs/pgxstore"
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
}

// Server holds what handlers need.
type Server struct {
	jobs     *job.Service
	store    *store.Store
	sessions *scs.SessionManager
	views    *views
	assets   *assets
	demo     bool
	slow     *middleware.RateLimiterMemoryStore
}

// contentPolicy lets nothing in that the application does not ship itself.
const contentPolicy = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; " +
	"font-src 'self'; connect-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'; manifest-src " +
	"'self'"

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
	s := &Server{jobs: cfg.Jobs, store: cfg.Jobs.Store, views: v, assets: a, demo: cfg.Demo,
		slow: middleware.NewRateLimiterMemoryStoreWithConfig(middleware.RateLimiterMemoryStoreConfig{Rate: 2,
			Burst: 20, ExpiresIn: 5 * time.Minute})}
	s.sessions = scs.New()
	s.sessions.Store = pgxstore.NewWithCleanupInterval(s.store.Pool, 30*time.Minute)
	s.sessions.Lifetime = 14 * 24 * time.Hour
	s.sessions.Cookie.Name = "corvek_session"
	s.sessions.Cookie.HttpOnly = true
	s.sessions.Cookie.SameSite = http.SameSiteLaxMode
	s.sessions.Cookie.Secure = cfg.Secure
	s.sessions.ErrorFunc = s.sessionFault

	e := echo.New()
	e.HTTPErrorHandler = s.fail
	e.Use(middleware.Recover())
	e.Use(s.log)
	e.Use(middleware.SecureWithConfig(middleware.SecureConfig{
		XFrameOptions: "DENY", ContentTypeNosniff: "nosniff", ReferrerPolicy: "same-origin",
		ContentSecurityPolicy: contentPolicy,
	}))
	e.Use(middleware.BodyLimit(24 << 20))
	// Static files know nobody: they are answered before a session is asked for.
	e.GET("/static/*", a.serve)
	e.HEAD("/static/*", a.serve)
	e.Use(unlessStatic(echo.WrapMiddleware(s.sessions.LoadAndSave)))
	e.Use(unlessStatic(s.identify))
	e.Use(unlessStatic(middleware.CSRFWithConfig(middleware.CSRFConfig{
		TokenLookup: "header:X-CSRF-Token,form:csrf", CookieName: "corvek_csrf", CookiePath: "/", CookieHTTPOnly: true,
		CookieSameSite: http.SameSiteLaxMode, CookieSecure: cfg.Secure,
		// Calculators and written cases keep no state and know nobody, so there is nothing to forge.
		Skipper: func(c *echo.Context) bool { return c.Path() == apiCalcPath || c.Path() == apiExplainPath },
	})))
	for _, r := range s.routes() {
		e.Add(r.method, r.path, r.handle, s.require(r.role))
	}
	return e, s, nil
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

// route is one entry of the table that routing and the authorization test share.
type route struct {
	method, path string
	role         string // the least role; "" is open to everybody
	handle       echo.HandlerFunc
}

const apiCalcPath = "/api/v1/calc/:name"

func (s *Server) routes() []route {
	const open, view, work, lead = "", job.RoleViewer, job.RoleTechnician, job.RoleLead
	return []route{
		{"GET", "/healthz", open, s.health},
		{"GET", "/sign-in", open, s.signInPage},
		{"POST", "/sign-in", open, s.signIn},
		{"POST", "/sign-out", view, s.signOut},
		{"GET", "/", view, s.home},
		{"GET", "/rack", view, s.rack},
		{"GET", "/customers", work, s.customers},
		{"GET", "/jobs/new", work, s.newJobPage},
		{"POST", "/jobs", work, s.createJob},
		{"POST", "/import", lead, s.importJob},
		{"GET", "/jobs/:tag", view, s.openJob},
		{"GET", "/jobs/:tag/record", view, s.record},
		{"GET", "/jobs/:tag/report", view, s.report},
		{"GET", "/jobs/:tag/dispute", view, s.dispute},
		{"GET", "/jobs/:tag/report.pdf", view, s.reportPDF},
		{"GET", "/jobs/:tag/start-up-card", view, s.card},
		{"GET", "/jobs/:tag/export", view, s.export},
		{"GET", "/jobs/:tag/line.svg", view, s.lineSVG},
		{"GET", "/jobs/:tag/line", view, s.lineLarge},
		{"GET", "/jobs/:tag/:station", view, s.station},
		{"POST", "/jobs/:tag/set", work, s.set},
		{"POST", "/jobs/:tag/receive/unit", work, s.addUnit},
		{"POST", "/jobs/:tag/receive/account", work, s.addAccount},
		{"GET", "/jobs/:tag/tag", view, s.tote},
		{"POST", "/jobs/:tag/strip/part", work, s.addPart},
		{"POST", "/jobs/:tag/strip/move", work, s.movePart},
		{"POST", "/jobs/:tag/strip/rest", work, s.takeOffRest},
		{"POST", "/jobs/:tag/strip/loose", work, s.addLoose},
		{"POST", "/jobs/:tag/kit/piece", work, s.addPiece},
		{"POST", "/jobs/:tag/prove/attempt", work, s.nextAttempt},
		{"POST", "/jobs/:tag/prove/stand", work, s.takeFromStand},
		{"POST", "/jobs/:tag/prove/close", work, s.closeAttempt},
		{"POST", "/jobs/:tag/prove/round", work, s.openRound},
		{"POST", "/jobs/:tag/caution", work, s.acknowledge},
		{"POST", "/jobs/:tag/pass", lead, s.passStop},
		{"POST", "/jobs/:tag/hand-over", work, s.handOver},
		{"GET", "/jobs/:tag/pictures", view, s.pictures},
		{"POST", "/jobs/:tag/pictures", work, s.addPicture},
		{"GET", "/jobs/:tag/pictures/:number", view, s.onePicture},
		{"GET", "/jobs/:tag/pictures/:number/file", view, s.picture},
		{"POST", "/jobs/:tag/pictures/:number/mark", work, s.addMark},
		{"POST", "/jobs/:tag/pictures/:number/unmark", work, s.dropMark},
		{"GET", "/library", view, s.library},
		{"GET", "/library/:code", view, s.familyPage},
		{"POST", "/library/:code", lead, s.saveFamily},
		{"GET", "/instruments", view, s.instruments},
		{"POST", "/instruments", work, s.saveInstrument},
		{"GET", "/toolbox", view, s.toolbox},
		{"GET", "/toolbox/:name", view, s.tool},
		{"POST", "/toolbox/:name/put", work, s.putFigure},
		{"GET", "/api/v1/calc", open, s.calcList},
		{"GET", "/api/v1/openapi.json", open, s.openAPI},
		{"POST", apiCalcPath, open, s.calc},
		{"POST", apiExplainPath, open, s.explainCase},
	}
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

func (s *Server) health(c *echo.Context) error {
	ctx, cancel := context.WithTimeout(c.Request().Context(), 2*time.Second)
	defer cancel()
	if err := s.store.Ping(ctx); err != nil {
		return c.JSON(http.StatusServiceUnavailable, map[string]string{"status": "the database does not answer"})
	}
	return c.JSON(http.StatusOK, map[string]string{"status": "ok"})
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
		attrs := []slog.Attr{slog.String("method", c.Request().Method), slog.String("path", c.Request().URL.Path),
			slog.Int("status", max(status, statusOf(err))),
			slog.Duration("took", time.Since(began).Round(10*time.Microsecond))}
		if who, ok := c.Get("person").(job.Actor); ok {
			attrs = append(attrs, slog.String("person", who.Initials))
		}
		if err != nil {
			attrs = append(attrs, slog.String("error", err.Error()))
		}
		slog.LogAttrs(c.Request().Context(), level, "request", attrs...)
		return err
	}
}

// statusOf maps what went wrong to a status.
func statusOf(err error) int {
	var fe *field.Error
	var conflict *job.Conflict
	var coder echo.HTTPStatusCoder
	switch {
	case err == nil:
		return 0
	case errors.As(err, &fe):
		return http.StatusUnprocessableEntity
	case errors.As(err, &conflict):
		return http.StatusConflict
	case errors.Is(err, store.ErrNotFound):
		return http.StatusNotFound
	case errors.Is(err, job.ErrForbidden):
		return http.StatusForbidden
	case store.UnfitText(err):
		return http.StatusBadRequest
	case store.Away(err):
		return http.StatusServiceUnavailable
	case errors.As(err, &coder):
		return coder.StatusCode()
	}
	return http.StatusInternalServerError
}

// fail answers an error: JSON to scripts, a page to people, never a panic's text.
func (s *Server) fail(c *echo.Context, err error) {
	if r, uerr := echo.UnwrapResponse(c.Response()); uerr == nil && r.Committed {
		return
	}
	status := statusOf(err)
	body := map[string]any{"text": http.StatusText(status)}
	var fe *field.Error
	var conflict *job.Conflict
	switch {
	case errors.As(err, &fe):
		body["field"], body["text"] = fe.Field, fe.Text
	case errors.As(err, &conflict):
		body["field"], body["text"] = conflict.Field, conflict.Error()
		body["theirs"], body["by"], body["at"] = conflict.Theirs, conflict.By, conflict.At.Format("15:04")
	case store.UnfitText(err):
		body["text"] = "There is a character in it that cannot be kept; type it again."
	case status == http.StatusServiceUnavailable:
		body["text"] = storeAway
		c.Response().Header().Set("Retry-After", "2")
	case status == http.StatusNotFound:
		body["text"] = "There is nothing at this address."
	case status == http.StatusForbidden:
		body["text"] = "Your role does not allow this."
	case status >= 500:
		body["text"] = "Something went wrong here. What you typed is kept; try again."
	}
	if wantsJSON(c) {
		_ = c.JSON(status, map[string]any{"error": body})
		return
	}
	page := s.page(c, http.StatusText(status))
	page.Body = body
	if rerr := s.render(c, status, "error", page); rerr != nil {
		_ = c.String(status, body["text"].(string))
	}
}

// storeAway is what is said while the database does not answer.
const storeAway = "The store is coming back. What you typed is kept."

// sessionFault answers when not even the session can be read: there is nobody to
// show a page to, so a plain one asks again by itself.
func (s *Server) sessionFault(w http.ResponseWriter, r *http.Request, err error) {
	status := http.StatusInternalServerError
	if store.Away(err) {
		status = http.StatusServiceUnavailable
		w.Header().Set("Retry-After", "2")
	}
	slog.Error("session", "status", status, "error", err)
	if r.Header.Get("X-Requested-With") == "corvek" {
		w.Header().Set("Content-Type", "application/json")
		w.WriteHeader(status)
		_, _ = w.Write([]byte(`{"error":{"text":"` + storeAway + `"}}`))
		return
	}
	w.Header().Set("Content-Type", "text/html; charset=utf-8")
	w.Header().Set("Cache-Control", "no-store")
	w.WriteHeader(status)
	_ = s.views.sets["away"].ExecuteTemplate(w, "away", storeAway)
}

func wantsJSON(c *echo.Context) bool {
	h := c.Request().Header
	return h.Get("X-Requested-With") == "corvek" || c.Path() == apiCalcPath || c.Path() == apiExplainPath
}
