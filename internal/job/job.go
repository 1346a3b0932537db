// Package job is what can be done to a job: the commands, the stops that keep
// each station honest, and the computed state that the pages and reports show.
//
// What is worked out of a unit, bench.State, is kept in memory by the version of its job and
// then read by all. A command changes a copy of the job, never what was worked out.
package job

import (
	"context"
	"fmt"
	"sync/atomic"
	"time"

	"corvek/core/bench"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/unit"
	"corvek/internal/store"

	lru "github.com/hashicorp/golang-lru/v2"
)

// Conflict says that somebody else changed the same thing meanwhile.
type Conflict struct {
	Field  string
	Theirs string
	Yours  string
	By     string
	At     time.Time
}

func (c *Conflict) Error() string {
	return fmt.Sprintf("%s changed this to %q at %s; yours was %q", c.By, c.Theirs, c.At.Format("15:04"), c.Yours)
}

// Service does things to jobs.
type Service struct {
	Store     *store.Store
	Knowledge explain.Base
	Now       func() time.Time

	of     *Service // whose families, tools and lessons it goes by; nil for its own
	shelf  *shelf
	bench  atomic.Pointer[catalog] // of a bench of practice, as the shop's stands now
	states *states
	memo   *bench.Memo
	frozen *lru.Cache[handOver, *bench.Frozen]
}

// New makes a service with the shipped families and knowledge.
func New(s *store.Store) (*Service, error) {
	lib, err := family.Shipped()
	if err != nil {
		return nil, err
	}
	base, err := explain.Shipped()
	if err != nil {
		return nil, err
	}
	service, err := withMemory(s)
	if err != nil {
		return nil, err
	}
	service.Knowledge, service.Now, service.shelf = base, time.Now, &shelf{shipped: lib}
	service.shelf.now.Store(newCatalog(lib))
	return service, nil
}

// Practice makes a service over a store of practice, which goes by the families, tools and lessons of a shop and leaves
// them as they are.
func Practice(s *store.Store, of *Service) (*Service, error) {
	service, err := withMemory(s)
	if err != nil {
		return nil, err
	}
	service.Knowledge, service.shelf, service.of = of.Knowledge, of.shelf, of
	service.Now = func() time.Time { return of.Now() } // which may be set later
	return service, nil
}

// ForPractice reports that its jobs are units of practice.
func (s *Service) ForPractice() bool { return s.of != nil }

// withMemory is a service that has nothing in memory yet.
func withMemory(s *store.Store) (*Service, error) {
	states, err := newStates()
	if err != nil {
		return nil, err
	}
	memo, err := bench.NewMemo(2 * cachedStates)
	if err != nil {
		return nil, err
	}
	frozen, err := lru.New[handOver, *bench.Frozen](keptFrozen)
	if err != nil {
		return nil, err
	}
	return &Service{Store: s, states: states, memo: memo, frozen: frozen}, nil
}

type glanceKey struct{}

// WithGlance keeps what a request has asked the store already, so that loading
// the job need not ask again.
func WithGlance(ctx context.Context, g store.Glance) context.Context {
	return context.WithValue(ctx, glanceKey{}, g)
}

// ofNoJob forgets what the request asked of its own job, so that another can be loaded.
func ofNoJob(ctx context.Context) context.Context {
	return context.WithValue(ctx, glanceKey{}, nil)
}

// Load gives the computed state of one unit of a job; unit counts from 1. It
// comes from memory while nothing that it rests on has changed, and nobody may
// change it.
func (s *Service) Load(ctx context.Context, tag string, number int) (*bench.State, error) {
	g, ok := ctx.Value(glanceKey{}).(store.Glance)
	if !ok {
		var err error
		if g, err = s.Store.Glance(ctx, 0, tag); err != nil {
			return nil, err
		}
	}
	if err := s.refresh(ctx, g.Shop); err != nil {
		return nil, err
	}
	c := s.catalog()
	basis := s.basis(c, g.Job)
	if st := s.states.get(tag, number, basis); st != nil {
		return st, nil
	}
	j, err := s.Store.JobAt(ctx, tag, g.Job)
	if err != nil {
		return nil, err
	}
	st, err := s.stateOf(ctx, c, j, number)
	if err != nil {
		return nil, err
	}
	basis.version = j.Version
	s.states.keep(tag, number, basis, st)
	return st, nil
}

// LoadOther is Load for a page that is not of that job.
func (s *Service) LoadOther(ctx context.Context, tag string, number int) (*bench.State, error) {
	return s.Load(ofNoJob(ctx), tag, number)
}

// keptFrozen is how many hand-overs are held in memory, of some 300 kB each.
const keptFrozen = 64

// stateOf works the state of one unit out: of a job that was handed over by what was known
// then, of another with what the shop knows.
func (s *Service) stateOf(ctx context.Context, c *catalog, j *unit.Job, number int) (*bench.State, error) {
	f, err := s.Frozen(ctx, j)
	if err != nil {
		return nil, err
	}
	if f == nil || f.Unit(number) == nil {
		return s.compute(c, j, number)
	}
	b, err := f.Basis(j, number)
	if err != nil {
		return nil, err
	}
	b.Memo = s.memo
	return bench.Of(b)
}

// compute works the state of one unit out, counted from 1, with what the shop knows.
func (s *Service) compute(c *catalog, j *unit.Job, number int) (*bench.State, error) {
	if j.Unit(number) == nil {
		return nil, fmt.Errorf("job %s has no unit %d: %w", j.Tag, number, store.ErrNotFound)
	}
	return bench.Of(bench.Basis{Job: j, Number: number, Catalog: &c.Catalog, Knowledge: s.Knowledge,
		Day: unit.DateOf(s.moment()), Memo: s.memo})
}

// basis is what a state of a job's version rests on, worked out today with a catalog.
func (s *Service) basis(c *catalog, version int64) basis {
	return basis{version, c.Version, unit.DateOf(s.moment())}
}

// moment is now as the store keeps it: to the microsecond, in UTC. What is held
// in memory after a write must equal what is loaded later.
func (s *Service) moment() time.Time { return s.Now().UTC().Truncate(time.Microsecond) }
