package plan

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// judge goes through all plans of a drawn shop hour by hour, without a thought of how the search works: every task at
// every hour in every choice of hands, passing over only what already costs at least as much as the plan to be
// beaten.
type judge struct {
	p     *Problem
	plan  *Plan
	todo  []int
	start []int
	end   []int
	on    [][]int
	least Cost
	found bool
	nodes int

	hands [][][]int // by task: its choices
	runs  [][][]int // by task, choice and hour: when it ends if it starts then, 0 where it cannot
	soon  [][]int   // by task and hour: when it ends at the earliest if it does not start before
}

// hours are as many as are looked at.
const hours = 10 * 24

// begin works out when each task ends that starts at an hour.
func (j *judge) begin() {
	for i := range j.p.Tasks {
		t := &j.p.Tasks[i]
		soon := make([]int, hours+1)
		for h := range soon {
			soon[h] = 10 * day
		}
		var runs [][]int
		hands := j.choices(t)
		for _, on := range hands {
			ends := make([]int, hours)
			for h := range hours - 24 {
				if end, can := j.run(t, on, h*hour); can {
					ends[h] = end
					soon[h] = min(soon[h], end)
				}
			}
			runs = append(runs, ends)
		}
		for h := hours - 1; h >= 0; h-- {
			soon[h] = min(soon[h], soon[h+1])
		}
		j.hands, j.runs, j.soon = append(j.hands, hands), append(j.runs, runs), append(j.soon, soon)
	}
}

func (j *judge) there(on []int, at int) bool {
	for _, r := range on {
		c := j.p.Resources[r].Works
		if c != nil && len(c.Spans(at, at+hour)) == 0 {
			return false
		}
	}
	return true
}

// run gives the end of a task that starts at an hour, and whether it can.
func (j *judge) run(t *Task, on []int, start int) (end int, can bool) {
	end = start
	for left := t.Work; left > 0; end += hour {
		switch {
		case end > 9*day:
			return 0, false
		case j.there(on, end):
			left -= hour
		case !t.Cut || end == start:
			return 0, false
		}
	}
	return end, true
}

// apart reports that nothing else has hold of the same at the same time.
func (j *judge) apart(on []int, start, end int) bool {
	for i := range j.p.Tasks {
		for _, r := range j.on[i] {
			for _, o := range on {
				if r == o && start < j.end[i] && j.start[i] < end {
					return false
				}
			}
		}
	}
	return true
}

// early is the first hour at which a task may begin by what it waits for.
func (j *judge) early(i int) int {
	t := &j.p.Tasks[i]
	at := max(j.p.Now, t.Release)
	for _, a := range t.After {
		at = max(at, j.end[a.Task]+a.Wait)
	}
	if t.Pin != nil && t.Pin.Start != Anytime {
		at = max(at, t.Pin.Start)
	}
	return at
}

func (j *judge) choices(t *Task) [][]int {
	out := [][]int{nil}
	for _, need := range t.Needs {
		var next [][]int
		for _, on := range out {
			for _, r := range need {
				next = append(next, append(append([]int(nil), on...), r))
			}
		}
		out = next
	}
	return out
}

func sameHands(a, b []int) bool {
	if len(a) != len(b) {
		return false
	}
	for _, x := range a {
		found := false
		for _, y := range b {
			found = found || x == y
		}
		if !found {
			return false
		}
	}
	return true
}

// cost is what the tasks that have their place cost, and at least what those cost that have not: each as early as
// what it waits for lets it, in the best of its choices.
func (j *judge) cost(done int) (c Cost) {
	var ends [3]int
	var save [8]int
	copy(save[:], j.end)
	for k, i := range j.todo {
		t := &j.p.Tasks[i]
		if k >= done {
			early := j.early(i)
			j.end[i] = j.soon[i][min(hours, early/hour)]
			if t.Pin != nil && t.Pin.Start != Anytime && early > t.Pin.Start {
				c.Broken++
			}
			if t.Was != nil && early/day > t.Was.Start/day {
				c.Moved++
			}
		} else {
			if t.Pin != nil && t.Pin.Start != Anytime && j.start[i] != t.Pin.Start {
				c.Broken++
			}
			if t.Was != nil && (!sameHands(j.on[i], t.Was.On) || j.start[i]/day != t.Was.Start/day) {
				c.Moved++
			}
		}
	}
	for i := range j.p.Tasks {
		job := j.p.Tasks[i].Job
		ends[job] = max(ends[job], j.end[i])
	}
	copy(j.end, save[:])
	for k := range j.p.Jobs {
		job := &j.p.Jobs[k]
		if job.HasDue && ends[k] > job.Due {
			c.Late += int64(ends[k]-job.Due) * job.Cost
		}
		if room := job.Due - job.Safe; job.HasDue && ends[k] > room {
			c.Late += int64(min(ends[k], job.Due)-room) * job.Cost / 4
		}
		c.Finish += int64(ends[k])
	}
	return c
}

func (j *judge) place(done int) {
	j.nodes++
	if c := j.cost(done); !c.Less(j.least) {
		return
	} else if done == len(j.todo) {
		j.least, j.found = c, true
		return
	}
	i := j.todo[done]
	t := &j.p.Tasks[i]
	for c, on := range j.hands[i] {
		if t.Pin != nil && len(t.Pin.On) > 0 && !sameHands(on, t.Pin.On) {
			continue
		}
		for at := j.early(i); at < 9*day; at += hour {
			end := j.runs[i][c][at/hour]
			if end == 0 || !j.apart(on, at, end) {
				continue
			}
			j.start[i], j.end[i], j.on[i] = at, end, on
			worse := !j.cost(done + 1).Less(j.least)
			if !worse {
				j.place(done + 1)
			}
			j.start[i], j.end[i], j.on[i] = 0, 0, nil
			if worse && (t.Was == nil || at/day > t.Was.Start/day) && (t.Pin == nil || at > t.Pin.Start) {
				break // later is no better
			}
			if len(on) == 0 && t.Pin == nil && (t.Was == nil || at/day >= t.Was.Start/day) {
				break // nothing that it has hold of could be free later
			}
		}
	}
}

// Two hundred shops of up to eight tasks with calendars, skills, waits, pins and a plan that stands: nobody finds a
// better plan than the one that is said to be proved.
func TestSmallPlansAreTheBest(t *testing.T) {
	judged, nodes := 0, 0
	for seed := uint64(1); judged < 200; seed++ {
		p := drawn(seed, 4+int(seed%5))
		plan, err := Make(p, Options{Seed: seed, Effort: 20_000})
		require.NoError(t, err)
		j := &judge{
			p:     p,
			plan:  plan,
			least: plan.Cost,
			start: make([]int, len(p.Tasks)),
			end:   make([]int, len(p.Tasks)),
			on:    make([][]int, len(p.Tasks)),
		}
		whole := true
		for i, at := range plan.Tasks {
			whole = whole && at.Nowhere == ""
			if p.Tasks[i].Running != nil {
				j.start[i], j.end[i], j.on[i] = at.Start, at.End, at.On
			} else {
				j.todo = append(j.todo, i)
			}
		}
		if !whole {
			continue
		}
		require.True(t, plan.Proved, "seed %d", seed)
		judged++
		s := ready(p)
		found, _ := s.prove(s.layer().dispatch(byCost), usualNodes) // without the help of the search
		if found != nil {
			assert.Equal(t, plan.Cost, found.cost, "seed %d", seed)
		}
		j.begin()
		j.place(0)
		nodes += j.nodes
		assert.False(t, j.found, "seed %d: %+v, and there is %+v", seed, plan.Cost, j.least)
	}
	t.Logf("%d plans gone through", nodes)
}
