package jobpages

import (
	"net/http"
	"net/url"
	"strings"
	"time"

	"corvek/core/entry"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
	"golang.org/x/sync/errgroup"
)

// How many jobs the board shows: of each group, of one that was opened, and of
// the closed ones.
const (
	eachGroup   = 8
	openedGroup = 200
	closedShown = 12
	closedFound = 100
)

// Group is the jobs that wait for one thing.
type Group struct {
	Code, Name string
	Jobs       []BoardJob
	Total      int
	More       string // address that opens the group further, "" when all is shown
}

// BoardJob is a job on the board.
type BoardJob struct {
	store.Card
	Promise, Timer string
	Ends           string // how it ends, where that is not rebuilt
	Late           bool
}

// BoardPage is the page of all jobs.
type BoardPage struct {
	site.Reader
	Find   string
	Groups []Group
	Done   []BoardJob
	Month  string
	Months []store.Month
	Empty  bool
	Due    []BackRow // asked back and due, with no answer yet
}

// board shows the jobs by what they wait for; ?find narrows them, ?open shows one
// group whole, ?month the closed jobs of a month.
func (s *Pages) board(c *echo.Context) error {
	ctx := c.Request().Context()
	v := BoardPage{Reader: s.Reader(c), Find: strings.TrimSpace(c.QueryParam("find")), Month: c.QueryParam("month")}
	open := c.QueryParam("open")
	limit := closedShown
	if v.Find != "" || v.Month != "" {
		limit = closedFound
	}
	var groups map[string]*store.Group
	var done []store.Card
	var reads errgroup.Group
	reads.Go(func() (err error) {
		groups, err = s.Store.InHand(ctx, v.Find, eachGroup, open, openedGroup)
		return err
	})
	reads.Go(func() (err error) {
		done, err = s.Store.Closed(ctx, v.Find, v.Month, limit)
		return err
	})
	reads.Go(func() error {
		today := unit.DateOf(s.Jobs.Now())
		due, err := s.Store.FollowUpsDue(ctx, today)
		v.Due = dueRows(due, today)
		return err
	})
	reads.Go(func() (err error) {
		v.Months, err = s.Store.ClosedMonths(ctx)
		return err
	})
	if err := reads.Wait(); err != nil {
		return err
	}
	now := s.Jobs.Now()
	for _, code := range entry.Waits {
		g := groups[code]
		if g == nil {
			continue
		}
		out := Group{Code: code, Name: wording.Choice(unit.ScopeJob, "waiting", code), Total: g.Total,
			Jobs: boardJobs(g.Cards, now)}
		if g.Total > len(g.Cards) && code != open {
			out.More = "/jobs?open=" + code
			if v.Find != "" {
				out.More += "&find=" + url.QueryEscape(v.Find)
			}
		}
		v.Groups = append(v.Groups, out)
	}
	v.Done = boardJobs(done, now)
	v.Empty = len(v.Groups) == 0 && len(v.Done) == 0
	return s.RenderOK(c, "board", "Jobs board", v)
}

func boardJobs(cards []store.Card, now time.Time) []BoardJob {
	var out []BoardJob
	for _, card := range cards {
		j := BoardJob{Card: card, Timer: timerWords(card.TimerUntil, now)}
		var ends []string
		for _, code := range strings.Fields(card.Ending) {
			ends = append(ends, wording.Choice(unit.ScopeUnit, "ending", code))
		}
		j.Ends = strings.Join(ends, ", ")
		promised := time.Time{}
		if card.PromisedOn != nil {
			promised = *card.PromisedOn
		}
		j.Promise = daysLeft(promised, now)
		j.Late = strings.Contains(j.Promise, "late")
		out = append(out, j)
	}
	return out
}

// customers answers with the customers whose name holds what is typed.
func (s *Pages) customers(c *echo.Context) error {
	part := strings.TrimSpace(c.QueryParam("find"))
	names := []string{}
	if part != "" {
		found, err := s.Store.Customers(c.Request().Context(), part)
		if err != nil {
			return err
		}
		for _, k := range found {
			names = append(names, k.Name)
		}
	}
	return c.JSON(http.StatusOK, map[string]any{"customers": names})
}
