package workshop

import (
	"slices"
	"time"

	"corvek/core/plan"
)

// AtWorkFor is for how long somebody counts as being at a unit after he wrote of it.
const AtWorkFor = 45 * time.Minute

// AtWork is what somebody is at just now, as the record tells.
type AtWork struct {
	Person, Tag string
	Unit        int    // 0 where the record does not say of which
	Stand       string // the place of the stand that is read for the job, "" for none
}

// Run tells the planner what was begun at the bench: of each job and unit the first task that nothing is left before
// and that he can do who is at it. It keeps him, and a place that is free for it; the newest comes first.
func (l *Laid) Run(now []AtWork) {
	busy := map[int]bool{}
	for _, w := range now {
		person, known := l.resources[w.Person]
		if !known || person >= l.people || busy[person] {
			continue
		}
		i := slices.IndexFunc(l.Keys, func(k Key) bool { return k.Tag == w.Tag && (w.Unit == 0 || k.Unit == w.Unit) })
		for ; i >= 0 && i < len(l.Keys) && l.Keys[i].Tag == w.Tag; i++ {
			t := &l.Problem.Tasks[i]
			if len(t.After) > 0 || t.Running != nil || (w.Unit != 0 && l.Keys[i].Unit != w.Unit) {
				continue
			}
			if on := l.hold(t, person, w.Stand, busy); on != nil {
				t.Running = &plan.Spot{Start: l.Problem.Now, On: on}
				for _, r := range on {
					busy[r] = true
				}
				break
			}
		}
	}
}

// hold is what a task has hold of that somebody is at: himself, and of each kind of place the one that he reads, the
// one that was planned, or another that is free. Nil where it is no work of his, or no place is free.
func (l *Laid) hold(t *plan.Task, person int, stand string, busy map[int]bool) (on []int) {
	his := false
	for _, need := range t.Needs {
		if slices.Contains(need, person) {
			on, his = append(on, person), true
			continue
		}
		if len(need) > 0 && need[0] < l.people {
			return nil
		}
		place, best := -1, -1
		for _, r := range need {
			if fits := l.fits(t, r, stand); !busy[r] && fits > best {
				place, best = r, fits
			}
		}
		if place < 0 {
			return nil
		}
		on = append(on, place)
	}
	if !his {
		return nil
	}
	return on
}

// fits is how well a place fits a task that was begun: the stand that is read for it goes before the place that was
// planned, and that before any other.
func (l *Laid) fits(t *plan.Task, place int, stand string) int {
	planned := func(s *plan.Spot) bool { return s != nil && slices.Contains(s.On, place) }
	switch {
	case stand != "" && l.Problem.Resources[place].Name == stand:
		return 2
	case planned(t.Was) || planned(t.Pin):
		return 1
	}
	return 0
}
