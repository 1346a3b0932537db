package web

import (
	"strings"

	"corvek/internal/casebook"
	"corvek/internal/job"
	"corvek/internal/planning"
	"corvek/internal/stand"
	"corvek/internal/web/jobpages"
	"corvek/internal/web/practicepages"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// practiceBench is the bench of practice: the pages of a job once more, over the units of practice. People and
// sessions are the shop's; everything else lies in a store of its own.
type practiceBench struct {
	book *casebook.Book
	echo *echo.Echo
	jobs *jobpages.Pages

	routes []site.Route // that are its own
}

// benchPace is how many seconds of a program pass in one on the stand of practice: nobody waits there for a hold of ten
// minutes.
const benchPace = 20

// newBench makes it; rooms are those of the shop, whose looks it has.
func newBench(cfg Config, book *casebook.Book, rooms []site.Room) (*practiceBench, error) {
	at := site.New(site.Config{Jobs: cfg.Bench, Demo: cfg.Demo, Secure: cfg.Secure, HashCost: cfg.HashCost,
		LookTime: cfg.LookTime, Proxies: cfg.Proxies, House: cfg.Jobs.Store, Admit: practicepages.Admit(book)})
	pace := cfg.Pace
	if pace == 0 {
		pace = benchPace
	}
	jobs, err := jobpages.New(at, stand.ForPractice(cfg.Bench, pace, book.Mounted), planning.New(cfg.Bench))
	if err != nil {
		return nil, err
	}
	own := jobs.Room()
	own.Routes = append(own.Routes, practicepages.NewBench(at, book).Routes...)
	served := []site.Room{own}
	for _, room := range rooms[1:] {
		room.Routes = nil // its looks alone
		served = append(served, room)
	}
	e, err := at.Serve(served...)
	return &practiceBench{book, e, jobs, own.Routes}, err
}

// takes sends what is asked of a unit of practice there.
func (b *practiceBench) takes(next echo.HandlerFunc) echo.HandlerFunc {
	return func(c *echo.Context) error {
		if strings.HasPrefix(c.Request().URL.Path, "/jobs/"+job.PracticePrefix) {
			b.echo.ServeHTTP(c.Response(), c.Request())
			return nil
		}
		return next(c)
	}
}
