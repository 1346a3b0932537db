package job

import (
	"sync"

	"corvek/core/bench"
	"corvek/core/unit"

	lru "github.com/hashicorp/golang-lru/v2"
)

// basis is everything beside its code that a computed state rests on.
type basis struct {
	version, shop int64
	day           unit.Date
}

// cachedStates is how many computed units are held in memory.
const cachedStates = 256

// states are the computed units in memory, one of each: what an older version of a
// busy job was is not held on to.
type states struct {
	sync.Mutex // two who write take turns, so that the newer stays
	kept       *lru.Cache[ofJob, stated]
}

// ofJob is a unit of a job.
type ofJob struct {
	tag  string
	unit int
}

type stated struct {
	on basis
	st *bench.State
}

func newStates() (*states, error) {
	kept, err := lru.New[ofJob, stated](cachedStates)
	return &states{kept: kept}, err
}

// get gives the state of a unit as it is on the basis, nil where there is none.
func (s *states) get(tag string, number int, on basis) *bench.State {
	if x, ok := s.kept.Get(ofJob{tag, number}); ok && x.on == on {
		return x.st
	}
	return nil
}

// keep holds a state, unless one of a newer version is held already.
func (s *states) keep(tag string, number int, on basis, st *bench.State) {
	s.Lock()
	defer s.Unlock()
	at := ofJob{tag, number}
	if x, ok := s.kept.Peek(at); ok && x.on.version > on.version {
		return
	}
	s.kept.Add(at, stated{on, st})
}
