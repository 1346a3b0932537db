// Package job is what can be done to a job: the commands, the stops that keep
// each station honest, and the computed state that the pages and reports show.
//
// State is a pure function of what is stored; nothing computed is kept. A
// changed reading therefore changes everything that rests on it at the next look.
package job

import (
	"context"
	"errors"
	"fmt"
	"time"

	"corvek/core/explain"
	"corvek/core/family"
	"corvek/internal/store"
)

// The roles of people.
const (
	RoleViewer     = "viewer"
	RoleTechnician = "technician"
	RoleLead       = "lead"
)

// Actor is who does something.
type Actor struct {
	ID       uint
	Name     string
	Initials string
	Role     string
}

// May reports that the actor's role reaches at least the given one.
func (a Actor) May(role string) bool {
	rank := map[string]int{RoleViewer: 1, RoleTechnician: 2, RoleLead: 3}
	return rank[a.Role] >= rank[role]
}

// ErrForbidden says that the role does not allow it.
var ErrForbidden = errors.New("your role does not allow this")

// Stations in the order of the work.
var Stations = []string{"receive", "strip", "measure", "explain", "decide", "kit", "build", "prove", "handover"}

// StationNames are the stations' names for people.
var StationNames = map[string]string{
	"receive": "Receive", "strip": "Strip", "measure": "Measure", "explain": "Explain", "decide": "Decide",
	"kit": "Kit", "build": "Build", "prove": "Prove", "handover": "Hand over",
}

// Waits are what a job can wait for, in the order the Rack groups them.
var Waits = []struct{ Code, Name string }{
	{"hands", "Hands"}, {"stand", "The stand"}, {"parts", "Parts"}, {"soak", "Soak or drain"},
	{"outside", "Outside work"}, {"customer", "Customer's word"}, {"ready", "Ready to go"},
}

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

	shelf shelf
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
	service := &Service{Store: s, Knowledge: base, Now: time.Now, shelf: shelf{shipped: lib}}
	service.shelf.now.Store(&catalog{lib: lib})
	return service, nil
}

// Load gives the computed state of one unit of a job; unit counts from 1.
func (s *Service) Load(ctx context.Context, tag string, unit int) (*State, error) {
	if err := s.RefreshFamilies(ctx); err != nil {
		return nil, err
	}
	j, err := s.Store.Job(ctx, tag)
	if err != nil {
		return nil, err
	}
	return s.Compute(j, unit)
}
