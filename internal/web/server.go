// Package web is the pages and the HTTP interface: a site, and the rooms in it. Handlers are thin:
// they read the request, call the job service and render what it computed.
package web

import (
	"net"
	"time"

	"corvek/internal/casebook"
	"corvek/internal/job"
	"corvek/internal/planning"
	"corvek/internal/stand"
	"corvek/internal/store"
	"corvek/internal/web/api"
	"corvek/internal/web/door"
	"corvek/internal/web/figurepages"
	"corvek/internal/web/jobpages"
	"corvek/internal/web/library"
	"corvek/internal/web/planpages"
	"corvek/internal/web/practicepages"
	"corvek/internal/web/shoppages"
	"corvek/internal/web/site"
	"corvek/internal/web/stockpages"
	"corvek/internal/web/toolbox"

	"github.com/labstack/echo/v5"
)

// Config is what a server is made of.
type Config struct {
	Jobs   *job.Service
	Bench  *job.Service // of units of practice; nil where there is no bench for them
	Demo   bool         // offer the demo sign-ins on the sign-in page
	Secure bool         // served over TLS: cookies say so
	First  *door.FirstStart
	Copies *store.Keeper     // of the store; nil where none are made
	Plans  *planning.Service // nil for one of the pages' own
	// HashCost is how much work hashing a password is, as bcrypt counts it; 0 for the
	// usual. Tests take less.
	HashCost int
	// LookTime is how long a page may take, 0 for the usual. Tests take more.
	LookTime time.Duration
	// Pace is how many seconds of a program pass in one on the simulated stand, 0 for one.
	// Tests take more.
	Pace float64
	// Proxies are trusted to tell the address that a request came from.
	Proxies []*net.IPNet
}

// Server is the site with its rooms.
type Server struct {
	*site.Site
	jobs  *jobpages.Pages
	bench *practiceBench // nil where there is none
	plans *planning.Service
	rooms []site.Room
}

// New builds the web application.
func New(cfg Config) (*echo.Echo, *Server, error) {
	at := site.New(site.Config{Jobs: cfg.Jobs, Demo: cfg.Demo, Secure: cfg.Secure, Copies: cfg.Copies,
		HashCost: cfg.HashCost, LookTime: cfg.LookTime, Proxies: cfg.Proxies})
	desk := stand.NewDesk(cfg.Jobs, cfg.Pace)
	plans := cfg.Plans
	if plans == nil {
		plans = planning.New(cfg.Jobs)
	}
	jobs, err := jobpages.New(at, desk, plans)
	if err != nil {
		return nil, nil, err
	}
	var book *casebook.Book
	if cfg.Bench != nil {
		if book, err = casebook.New(cfg.Jobs, cfg.Bench); err != nil {
			return nil, nil, err
		}
	}
	s := &Server{Site: at, jobs: jobs, plans: plans, rooms: []site.Room{jobs.Room(), shoppages.New(at, desk),
		planpages.New(at, plans), stockpages.New(at), figurepages.New(at), library.New(at),
		practicepages.New(at, book), toolbox.New(at), door.New(at, cfg.First), api.New(at)}}
	e, err := at.Serve(s.rooms...)
	if err != nil || book == nil {
		return e, s, err
	}
	if s.bench, err = newBench(cfg, book, s.rooms); err != nil {
		return nil, nil, err
	}
	e.Pre(s.bench.takes)
	return e, s, nil
}

// Close lets the pages go that listen, and all stands, and waits for the plan that is being made.
func (s *Server) Close() {
	s.jobs.Close()
	if s.bench != nil {
		s.bench.jobs.Close()
	}
	s.plans.Wait()
}
