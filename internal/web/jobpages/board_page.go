package jobpages

import (
	"context"
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"time"

	"corvek/core/entry"
	"corvek/core/stock"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/planning"
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
	Since          string // since when it waits for what it does
	Next           string // what the plan does next with it, with whom and when
	Who            string
	Tell           string // what whoever runs the machine is to be told, "" for nothing
	Looks          string // who has a page of it open
	Mine           bool   // it was handed to the reader, who has not read what is half done
	Ahead          string // what the plan says of its promise: late, or at risk
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
	site.Shops
	Due []BackRow // asked back and due, with no answer yet
}

// board shows the jobs by what they wait for; ?find narrows them, ?open shows one
// group whole, ?month the closed jobs of a month.
func (s *Pages) board(c *echo.Context) error {
	ctx := c.Request().Context()
	v := BoardPage{Reader: s.Reader(c), Find: strings.TrimSpace(c.QueryParam("find")), Month: c.QueryParam("month")}
	if to := s.scanned(ctx, v.Find); to != "" {
		return c.Redirect(http.StatusSeeOther, to)
	}
	open := c.QueryParam("open")
	limit := closedShown
	if v.Find != "" || v.Month != "" {
		limit = closedFound
	}
	var err error
	if v.Shops, err = s.Shops(c, "/jobs"); err != nil {
		return err
	}
	q := store.Sought{Find: v.Find, Site: v.Site, Month: v.Month}
	if v.Find != "" {
		q.Site = "" // any job is found
	}
	var looked map[string]string
	var groups map[string]*store.Group
	var done []store.Card
	var reads errgroup.Group
	reads.Go(func() (err error) {
		groups, err = s.Store.InHand(ctx, q, eachGroup, open, openedGroup)
		return err
	})
	reads.Go(func() (err error) {
		done, err = s.Store.Closed(ctx, q, limit)
		return err
	})
	reads.Go(func() error {
		today := unit.DateOf(s.Jobs.Now())
		due, err := s.Store.FollowUpsDue(ctx, today)
		v.Due = dueRows(due, today)
		return err
	})
	reads.Go(func() (err error) {
		looked, err = s.Store.LookedAtBy(ctx)
		return err
	})
	reads.Go(func() (err error) {
		v.Months, err = s.Store.ClosedMonths(ctx)
		return err
	})
	if err := reads.Wait(); err != nil {
		return err
	}
	now, plan := s.Jobs.Now(), s.plans.Glances()
	for _, code := range entry.Waits {
		g := groups[code]
		if g == nil {
			continue
		}
		out := Group{Code: code, Name: wording.Choice(unit.ScopeJob, "waiting", code), Total: g.Total,
			Jobs: boardJobs(g.Cards, now, plan)}
		for i := range out.Jobs {
			out.Jobs[i].team(looked, v.Person.Name)
		}
		if g.Total > len(g.Cards) && code != open {
			out.More = "/jobs?open=" + code
			if v.Find != "" {
				out.More += "&find=" + url.QueryEscape(v.Find)
			}
		}
		v.Groups = append(v.Groups, out)
	}
	v.Done = boardJobs(done, now, nil)
	v.Empty = len(v.Groups) == 0 && len(v.Done) == 0
	return s.RenderOK(c, "board", "Jobs board", v)
}

// tellWords say what whoever runs the machine is to be told, "" for nothing.
func tellWords(promised, told *time.Time, stands bool) string {
	day := func(t *time.Time) unit.Date {
		if t == nil {
			return ""
		}
		return unit.DateOf(*t)
	}
	switch {
	case !unit.ToTell(day(promised), day(told), stands):
		return ""
	case told == nil:
		return "the machine stands: tell its operator " + promised.Format("Mon 2 Jan")
	}
	return "was told " + told.Format("Mon 2 Jan") + ", now " + promised.Format("Mon 2 Jan") + ": tell him"
}

// team adds who has the job, and who looks at it.
func (j *BoardJob) team(looked map[string]string, reader string) {
	j.Looks = looked[j.Tag]
	j.Tell = tellWords(j.PromisedOn, j.ToldDay, j.Stands)
	j.Mine = unit.HandedTo(reader, j.HeldBy, j.HalfDone)
}

// scanned is where what was read off a code leads: the tag of a job or a lot of the stock, bare or as an address;
// "" for what is to be looked for.
func (s *Pages) scanned(ctx context.Context, text string) string {
	if code, is := stock.IsCode(text); is {
		if _, err := s.Store.ItemOfLot(ctx, code); err == nil {
			return "/stock/lots/" + code
		}
	}
	if _, path, is := strings.Cut(text, "://"); is {
		if _, tag, is := strings.Cut(path, "/jobs/"); is {
			tag, _, _ = strings.Cut(tag, "/")
			if taken, err := s.Store.TagTaken(ctx, tag); err == nil && taken {
				return "/jobs/" + url.PathEscape(tag)
			}
		}
	}
	return ""
}

// inHand adds to a card of a job in hand since when it waits, and what the plan says of it.
func (j *BoardJob) inHand(now time.Time, plan map[string]planning.Glance) {
	since := j.ReceivedOn
	if j.WaitsSince != nil {
		since = j.WaitsSince.In(now.Location())
	}
	j.Since = sinceWords(since, now)
	g, known := plan[j.Tag]
	if !known {
		return
	}
	switch {
	case g.Never:
		j.Ahead = "cannot be done as planned"
	case g.Late:
		j.Ahead = "late by plan: " + g.Ends.Format("Mon 2 Jan")
	case g.Risk:
		j.Ahead = "promise at risk"
	}
	if g.Next == "" {
		return
	}
	j.Next, j.Who = g.Next, g.Who
	if at := g.At; g.Wait && g.Who == "" {
		j.Who = "by " + dayOf(g.Until, now)
	} else {
		j.Who += " · " + dayOf(at, now) + at.Format(" 15:04")
	}
}

// dayOf says a day of the shop's clock: today, tomorrow, or which.
func dayOf(t, now time.Time) string {
	switch day, today := unit.DateOf(t), unit.DateOf(now); day {
	case today:
		return "today"
	case today.Add(1):
		return "tomorrow"
	}
	return t.Format("Mon 2 Jan")
}

// sinceWords says since when, and how long that is.
func sinceWords(since, now time.Time) string {
	days := int(unit.DateOf(now).Time().Sub(unit.DateOf(since).Time()).Hours() / 24)
	switch {
	case days <= 0:
		return "since today"
	case days == 1:
		return "since yesterday"
	}
	return fmt.Sprintf("since %s, %d days", since.Format("2 Jan"), days)
}

func boardJobs(cards []store.Card, now time.Time, plan map[string]planning.Glance) []BoardJob {
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
		if card.HandedOverAt == nil && card.WithdrawnAt == nil {
			j.inHand(now, plan)
		}
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
