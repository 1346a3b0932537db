package plan

import (
	"errors"
	"fmt"
	"sort"
	"sync"
)

// Options say how long a plan is looked for.
type Options struct {
	Seed   uint64
	Effort int         // how many tasks the search may lay out, 0 for as many as Usual
	Nodes  int         // how many part plans the proof may look at, 0 for as many as is usual, less than 0 for no proof
	Stop   func() bool // asked now and then; nil for never
	Hands  int         // searches at work beside each other, 0 for one
}

// What is usual.
const (
	Usual      = 8_000_000
	usualNodes = 300_000
	mostProved = 60 // tasks of a plan that a proof is looked for

	// Replan is the effort for a plan that stands and in which little changed.
	Replan = 800_000
)

// Make plans a problem: small ones exactly, larger ones by search. The same problem and options give the same plan,
// unless Stop breaks the search off.
func Make(p *Problem, o Options) (*Plan, error) {
	if err := p.check(); err != nil {
		return nil, err
	}
	s := ready(p)
	if len(s.order) == 0 {
		nothing := s.newLayout()
		s.layer().lay(nothing)
		return s.result(nothing, true), nil
	}
	if o.Effort == 0 {
		o.Effort = Usual
	}
	if o.Nodes == 0 {
		o.Nodes = usualNodes
	}
	if o.Stop == nil {
		o.Stop = func() bool { return false }
	}
	small := len(s.order) <= mostProved && o.Nodes > 0
	effort := o.Effort
	if small {
		effort = min(effort, quick)
	}
	best := s.searched(o, effort, s.firsts())
	if small {
		found, proved := s.prove(best, o.Nodes)
		if found != nil {
			best = found
		}
		if proved {
			return s.result(best, true), nil
		}
		best = s.searched(o, o.Effort-effort, []*layout{best})
	}
	return s.result(best, false), nil
}

// searched is the best of what some searches find beside each other, each with the whole effort.
func (s *shop) searched(o Options, effort int, from []*layout) *layout {
	found := make([]*layout, max(1, o.Hands))
	var all sync.WaitGroup
	for k := range found {
		all.Go(func() { found[k] = s.tabu(o.Seed+uint64(k), effort, o.Stop).search(from) })
	}
	all.Wait()
	best := found[0]
	for _, l := range found[1:] {
		if l.cost.Less(best.cost) {
			best = l
		}
	}
	return best
}

// quick is how many tasks are laid out before a proof is tried.
const quick = 1_000_000

// firsts are the plans that a search begins with.
func (s *shop) firsts() (out []*layout) {
	y := s.layer()
	if l := y.standing(); l != nil {
		return []*layout{l}
	}
	for _, r := range rules {
		out = append(out, y.dispatch(r))
	}
	sort.SliceStable(out, func(a, b int) bool { return out[a].cost.Less(out[b].cost) })
	return out
}

// result is a layout as the caller asked for it.
func (s *shop) result(l *layout, proved bool) *Plan {
	out := &Plan{
		Tasks:  make([]Placed, s.n),
		Ends:   l.ends,
		Late:   make([]Minute, len(s.Jobs)),
		Undone: make([]bool, len(s.Jobs)),
		Cost:   l.cost,
		Proved: proved,
	}
	for i := range s.Tasks {
		t := &out.Tasks[i]
		if s.nowhere[i] != "" {
			t.Nowhere = s.nowhere[i]
			out.Cost.Broken++
			out.Undone[s.Tasks[i].Job] = true
			continue
		}
		t.Start, t.End = l.start[i], l.end[i]
		for _, r := range s.modes[i][l.mode[i]].on {
			t.On = append(t.On, int(r))
		}
		if t.Start == never {
			*t = Placed{Nowhere: NoWindow}
			out.Undone[s.Tasks[i].Job] = true
		}
	}
	for _, i := range s.stood {
		out.Tasks[i].Moved = s.moved(i, l.mode[i], l.start[i])
	}
	for _, i := range s.pinned {
		out.Tasks[i].PinBroken = s.broken(i, l.mode[i], l.start[i])
	}
	for j := range s.Jobs {
		if out.Undone[j] {
			out.Ends[j] = 0
		} else if s.Jobs[j].HasDue {
			out.Late[j] = max(0, l.ends[j]-s.Jobs[j].Due)
		}
	}
	return out
}

// Bounds of what is planned.
const (
	mostTasks     = 50_000
	mostResources = 1000
	mostMinutes   = 10 * 366 * day
)

// check refuses what cannot be planned because it is not put rightly.
func (p *Problem) check() error {
	if len(p.Tasks) > mostTasks || len(p.Resources) > mostResources {
		return fmt.Errorf(
			"%d tasks and %d resources: at most %d and %d can be planned",
			len(p.Tasks),
			len(p.Resources),
			mostTasks,
			mostResources,
		)
	}
	for i := range p.Tasks {
		if err := p.checkTask(&p.Tasks[i]); err != nil {
			return fmt.Errorf("task %d, %s: %w", i, p.Tasks[i].Name, err)
		}
	}
	return nil
}

func (p *Problem) checkTask(t *Task) error {
	if t.Job < 0 || t.Job >= len(p.Jobs) {
		return errors.New("it is of no job")
	}
	if t.Work < 0 || t.Work > mostMinutes {
		return fmt.Errorf("%d minutes of work", t.Work)
	}
	if len(t.Needs) > mostNeeds {
		return fmt.Errorf("it needs %d things at once, at most %d can be planned", len(t.Needs), mostNeeds)
	}
	on := t.Needs
	for _, at := range []*Spot{t.Running, t.Pin, t.Was} {
		if at != nil {
			on = append(on[:len(on):len(on)], at.On)
		}
	}
	for _, some := range on {
		for _, r := range some {
			if r < 0 || r >= len(p.Resources) {
				return errors.New("it needs what is not there")
			}
		}
	}
	if t.Running != nil && len(t.Running.On) > mostNeeds {
		return fmt.Errorf("it has hold of %d things at once", len(t.Running.On))
	}
	for _, a := range t.After {
		if a.Task < 0 || a.Task >= len(p.Tasks) || a.Wait < 0 {
			return errors.New("it waits for what is not there")
		}
	}
	return nil
}
