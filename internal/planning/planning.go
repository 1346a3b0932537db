// Package planning keeps the plan of the shop: what the jobs in hand still need, laid over hands, hours and places,
// and worked out anew when any of it changes. The same shop gives the same plan in every instance of the program.
package planning

import (
	"context"
	"fmt"
	"hash/fnv"
	"maps"
	"slices"
	"strings"
	"sync"
	"time"

	"corvek/core/bench"
	"corvek/core/handover"
	"corvek/core/partner"
	"corvek/core/plan"
	"corvek/core/remaining"
	"corvek/core/stock"
	"corvek/core/unit"
	"corvek/core/workshop"
	"corvek/internal/job"
	"corvek/internal/store"
)

// mostJobs are planned; the board lists the others.
const mostJobs = 2000

// perTask is how many tasks are laid out at most for each that there is: a small shop is planned at once.
const perTask = 8000

// manyEffort is the effort for more tasks than manyTasks: a first plan of 300 jobs then takes two seconds of two
// processors. The plans of the days after begin with that of the day before, and mend what this one left.
const (
	manyTasks  = 3000
	manyEffort = 4_000_000
)

// quarter is how far apart the moments are from which a plan is made: it is not another with every look.
const quarter = 15 * time.Minute

// Service makes the plan.
type Service struct {
	Jobs     *job.Service
	Guidance *remaining.Guidance

	glances glances

	turn sync.Mutex // one works the plan out, the others take it
	kept *Planned
	work map[string]jobWork // by tag
}

// New makes the service.
func New(jobs *job.Service) *Service {
	return &Service{Jobs: jobs, Guidance: remaining.Usual(), work: map[string]jobWork{}}
}

// Planned is a plan with all that it rests on. It is read only.
type Planned struct {
	basis basis

	Laid    *workshop.Laid
	Plan    *plan.Plan
	Shop    *workshop.Workshop
	Pins    []store.PlanPin
	Stood   []workshop.Spot // the plan that the day before began with
	Learned *workshop.Learned
	From    time.Time // the moment from which it is made
	Left    []string  // jobs that could not be read, which are not in it

	partners partner.Partners

	chances func() (*plan.Chances, error)
	effort  int // that it was made with
}

// basis is what a plan rests on.
type basis struct {
	from           time.Time
	shop, workshop int64
	jobs           uint64 // of all tags, versions, and what of the stock is promised to them
}

// jobWork is what one job still needs, as of a version of it.
type jobWork struct {
	version, shop int64
	booked        string // of the stock, promised to it
	day           unit.Date
	job           workshop.Job
}

// Now gives the plan from now on.
func (s *Service) Now(ctx context.Context) (*Planned, error) {
	s.turn.Lock()
	defer s.turn.Unlock()
	from := s.Jobs.Now().Truncate(quarter)
	tags, versions, err := s.Jobs.Store.InHandTags(ctx, mostJobs)
	if err != nil {
		return nil, err
	}
	drawers, err := s.Jobs.Store.Stock(ctx)
	if err != nil {
		return nil, err
	}
	b := basis{from: from, jobs: sumOf(tags, versions, drawers.Booked())}
	if b.workshop, err = s.Jobs.Store.WorkshopVersion(ctx); err != nil {
		return nil, err
	}
	if b.shop, err = s.Jobs.Store.ShopVersion(ctx); err != nil {
		return nil, err
	}
	if s.kept != nil && s.kept.basis == b {
		return s.kept, nil
	}
	p, err := s.make(ctx, b, tags, versions, drawers)
	if err != nil {
		return nil, err
	}
	s.kept = p
	return p, nil
}

func sumOf(tags []string, versions []int64, booked map[string]string) uint64 {
	sum := fnv.New64a()
	for i, tag := range tags {
		fmt.Fprintln(sum, tag, versions[i], booked[tag])
	}
	return sum.Sum64()
}

func (s *Service) make(ctx context.Context, b basis, tags []string, versions []int64, drawers *stock.Stock) (
	*Planned, error) {
	today := unit.DateOf(b.from)
	p := &Planned{basis: b, From: b.from}
	var err error
	if p.Shop, err = s.Jobs.Store.Workshop(ctx, today); err != nil {
		return nil, err
	}
	p.Shop.Hands = slices.DeleteFunc(p.Shop.Hands, func(h workshop.Hands) bool { return len(h.Skills) == 0 })
	if p.Pins, err = s.Jobs.Store.PlanPins(ctx); err != nil {
		return nil, err
	}
	before, err := s.Jobs.Store.PlanBefore(ctx, today)
	if err != nil {
		return nil, err
	}
	if before != nil {
		p.Stood = before.Spots
	}
	if p.partners, err = s.Jobs.Store.Partners(ctx); err != nil {
		return nil, err
	}
	if p.Learned, err = s.Learned(ctx, p.partners); err != nil {
		return nil, err
	}
	jobs, err := s.jobs(ctx, p, b, tags, versions, drawers)
	if err != nil {
		return nil, err
	}
	p.Laid = p.Shop.Lay(jobs, b.from, spots(p.Pins), p.Stood, p.Learned)
	if err := s.run(ctx, p); err != nil {
		return nil, err
	}
	effort := plan.Usual
	if len(p.Stood) > 0 {
		effort = plan.Replan
	}
	if len(p.Laid.Tasks) > manyTasks {
		effort = min(effort, manyEffort)
	}
	p.effort = max(1, min(effort, perTask*len(p.Laid.Tasks)))
	p.Plan, err = plan.Make(p.Laid.Problem, plan.Options{Effort: p.effort})
	p.chances = sync.OnceValues(p.simulate)
	return p, err
}

// Learned is guidance as the shop's own past has moved it: hours, first tests, and how long it waited for others.
func (s *Service) Learned(ctx context.Context, partners partner.Partners) (*workshop.Learned, error) {
	past, tests, failed, err := s.Jobs.Store.Past(ctx)
	if err != nil {
		return nil, err
	}
	over, err := s.Jobs.Store.Waited(ctx)
	if err != nil {
		return nil, err
	}
	l := workshop.Learn(s.Guidance, past, tests, failed)
	l.LearnWaits(over, partners)
	return l, nil
}

// spots are pins as the planner takes them.
func spots(pins []store.PlanPin) []workshop.Spot {
	out := make([]workshop.Spot, len(pins))
	for i := range pins {
		out[i] = pins[i].Spot
	}
	return out
}

// jobs is what all jobs in hand still need; of those that did not change it is known.
func (s *Service) jobs(ctx context.Context, p *Planned, b basis, tags []string, versions []int64,
	drawers *stock.Stock) (out []workshop.Job, err error) {
	day := unit.DateOf(b.from)
	seen := make(map[string]jobWork, len(tags))
	booked := drawers.Booked()
	var stale []string
	var at []int64
	for i, tag := range tags {
		w, known := s.work[tag]
		if known && w.version == versions[i] && w.shop == b.shop && w.booked == booked[tag] && w.day == day {
			seen[tag] = w
			continue
		}
		stale, at = append(stale, tag), append(at, versions[i])
	}
	var mu sync.Mutex
	for len(stale) > 0 {
		n := min(len(stale), atOnce)
		faulty, err := s.Jobs.LoadMany(ctx, stale[:n], at[:n], func(states []*bench.State) {
			j := states[0].Job
			w := jobWork{version: j.Version, shop: b.shop, booked: booked[j.Tag], day: day,
				job: s.workOf(ctx, states, drawers, p.partners)}
			mu.Lock()
			defer mu.Unlock()
			seen[j.Tag] = w
		})
		if err != nil {
			maps.Copy(s.work, seen) // who looks next does not begin anew
			return nil, err
		}
		p.Left = append(p.Left, faulty...)
		stale, at = stale[n:], at[n:]
	}
	for _, tag := range tags {
		if w, known := seen[tag]; known { // others are handed over or withdrawn meanwhile, or left out
			out = append(out, w.job)
		}
	}
	s.work = seen
	return out, nil
}

// atOnce is how many jobs are read at one time.
const atOnce = 40

// workOf is what a job still needs.
func (s *Service) workOf(ctx context.Context, states []*bench.State, drawers *stock.Stock,
	partners partner.Partners) workshop.Job {
	j := states[0].Job
	out := workshop.Job{Tag: j.Tag, Title: j.Title, Customer: j.Customer.Name, Promised: j.PromisedOn,
		Site: j.Site, HeldBy: j.HeldBy, Stands: j.Stands}
	out.Down, _ = j.DowntimeCost.Known()
	if !j.TimerUntil.IsZero() {
		until := j.TimerUntil.In(s.Jobs.Now().Location())
		out.Ready = &until
	}
	for _, st := range states {
		signed := func() bool {
			s, err := handover.SignedOff(j, st.Unit.Number, s.Jobs.Store.Lines(ctx, j.Tag))
			return err == nil && s.Holds()
		}
		promised := func(part string) int {
			_, n := drawers.BookedFor(j.Tag, st.Unit.Number, part)
			return n
		}
		out.Units = append(out.Units, workshop.UnitWork{Number: st.Unit.Number,
			Model: strings.ToLower(strings.TrimSpace(st.Unit.Maker + " " + st.Unit.Model)), Need: st.StandNeed(),
			Tasks: st.Remaining(s.Guidance, bench.ShopKnows{Signed: signed, Booked: promised, Partners: partners})})
	}
	return out
}

// lookForDay is how often it is asked whether the plan of the day is kept.
const lookForDay = 10 * time.Minute

// Run keeps the plan that each day begins with, against which the next is held, until the context ends.
func (s *Service) Run(ctx context.Context, failed func(error)) {
	for {
		if err := s.KeepDay(ctx); err != nil && ctx.Err() == nil {
			failed(err)
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(lookForDay):
		}
	}
}

// KeepDay keeps the plan of today, where none is kept of it yet.
func (s *Service) KeepDay(ctx context.Context) error {
	today := unit.DateOf(s.Jobs.Now())
	last, err := s.Jobs.Store.PlanBefore(ctx, today.Add(1))
	if err != nil || last != nil && last.Day == today {
		return err
	}
	p, err := s.Now(ctx)
	if err != nil || len(p.Shop.Hands) == 0 {
		return err
	}
	spots := p.Laid.Spots(p.Plan)
	if spots == nil {
		spots = []workshop.Spot{}
	}
	_, err = s.Jobs.Store.KeepPlan(ctx, &store.PlanDay{Day: today, Spots: spots})
	return err
}
