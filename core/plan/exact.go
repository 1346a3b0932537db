package plan

import (
	"cmp"
	"slices"
)

// exact looks through all plans, in which tasks are taken in the order in which they begin, each as early as it can
// in one of its ways or on the day on which the plan that stands has it, and passes over those that cannot be
// better than the best: what is left is at least as long as it would be if everything were free at any time, and
// what needs one resource takes at least as long as its work in a row (Carlier, The one-machine sequencing problem,
// 1982).
type exact struct {
	*layer
	l       *layout
	best    *layout
	better  bool
	nodes   int // that may still be looked at
	depth   int
	waits   []int
	head    []Minute // by task: not before
	ends    []Minute // by job, at least
	choices [][]choice
	jps     []piece // scratch
}

// choice is a task in one of its ways.
type choice struct {
	task, mode int32
	hold       bool
	start, end Minute
}

// prove looks for a plan that is better than one, and reports that there is none, or gives the best there is. With
// more nodes than are allowed it proves nothing.
func (s *shop) prove(best *layout, nodes int) (found *layout, proved bool) {
	x := &exact{layer: s.layer(), l: s.newLayout(), best: best, nodes: nodes, waits: make([]int, s.n),
		head: make([]Minute, s.n), ends: make([]Minute, len(s.Jobs)), choices: make([][]choice, len(s.order)+1)}
	x.begin(x.l)
	for _, i := range s.order {
		for _, b := range s.before[i] {
			if s.free[b.Task] {
				x.waits[i]++
			}
		}
	}
	done := x.branch(0)
	if !x.better {
		return nil, done
	}
	return x.best, done
}

// branch goes on from the tasks that are taken, and reports that it looked at all.
func (x *exact) branch(from Minute) bool {
	if x.nodes--; x.nodes < 0 {
		return false
	}
	if x.depth == len(x.order) {
		x.reckon(x.l)
		if x.l.cost.Less(x.best.cost) {
			if !x.better {
				x.best, x.better = x.newLayout(), true
			}
			x.best.take(x.l)
		}
		return true
	}
	if !x.leastCost().Less(x.best.cost) {
		return true
	}
	for _, c := range x.open(from) {
		if !x.goOn(c) {
			return false
		}
	}
	return true
}

// goOn takes a choice, goes on, and takes it back.
func (x *exact) goOn(c choice) bool {
	i := c.task
	on := x.modes[i][c.mode].on
	var until [mostNeeds]Minute
	var last [mostNeeds]int32
	for k, r := range on {
		until[k], last[k] = x.until[r], x.last[r]
		x.l.prev[i][k] = x.last[r]
		x.until[r], x.last[r] = c.end, i
	}
	x.l.list[x.depth], x.l.at[i] = i, int32(x.depth)
	x.l.mode[i], x.l.hold[i], x.l.start[i], x.l.end[i] = c.mode, c.hold, c.start, c.end
	x.waits[i] = -1
	for _, j := range x.after[i] {
		x.waits[j]--
	}
	x.depth++
	all := x.branch(c.start)
	x.depth--
	for _, j := range x.after[i] {
		x.waits[j]++
	}
	x.waits[i] = 0
	for k, r := range on {
		x.until[r], x.last[r] = until[k], last[k]
	}
	return all
}

// open are the choices from which the next task is taken: those that begin before any task would be finished
// whichever way it is done. In a plan in which none of them came next, that task could still be done before.
func (x *exact) open(from Minute) []choice {
	out := x.choices[x.depth][:0]
	first, its := never+1, int32(-1)
	for _, i := range x.order {
		if x.waits[i] != 0 {
			continue
		}
		latest := 0
		for k := range x.modes[i] {
			x.l.hold[i] = false
			base := x.base(x.l, i)
			c := choice{task: i, mode: int32(k)}
			c.start, c.end = x.placed(i, c.mode, base)
			out = append(out, c)
			latest = max(latest, c.end)
			if x.wasMode[i] != int32(k) || c.start >= x.wasDay[i] {
				continue
			}
			c.hold = true
			c.start, c.end = x.placed(i, c.mode, max(base, x.wasDay[i]))
			out = append(out, c)
			latest = max(latest, c.end)
		}
		if latest < first {
			first, its = latest, i
		}
	}
	out = slices.DeleteFunc(out, func(c choice) bool {
		return c.start < from || c.end >= never || c.start >= first && c.task != its
	})
	slices.SortFunc(out, func(a, b choice) int {
		return cmp.Or(cmp.Compare(a.start-x.tail[a.task], b.start-x.tail[b.task]), cmp.Compare(a.end, b.end))
	})
	x.choices[x.depth] = out
	return out
}

// leastCost is what the plan costs at least, however it goes on.
func (x *exact) leastCost() (c Cost) {
	clear(x.ends)
	for _, i := range x.running {
		x.ends[x.Tasks[i].Job] = max(x.ends[x.Tasks[i].Job], x.ended[i])
	}
	for _, i := range x.order {
		head, end := x.l.start[i], x.l.end[i]
		if x.waits[i] >= 0 {
			head, end = x.earliest(i)
			x.l.end[i] = end // for those that wait for it; it is written anew when the task is taken
		}
		x.head[i] = head
		j := x.Tasks[i].Job
		x.ends[j] = max(x.ends[j], end)
		if x.isPinned[i] && (head > x.Tasks[i].Pin.Start && x.Tasks[i].Pin.Start != Anytime ||
			!hasAll(x.modes[i][0].on, x.Tasks[i].Pin.On)) { // all its ways have what it is pinned to, or none
			c.Broken++
		}
	}
	for _, i := range x.stood {
		switch {
		case x.waits[i] < 0 && x.moved(i, x.l.mode[i], x.l.start[i]):
			c.Moved++
		case x.waits[i] >= 0 && (x.wasMode[i] < 0 || x.head[i] >= x.wasDay[i]+day):
			c.Moved++
		}
	}
	x.inARow()
	for j, end := range x.ends {
		if end >= never {
			c.Broken++
		}
		c.Late += x.lateness(j, end)
		c.Finish += int64(end)
	}
	return c
}

// earliest is when a task that is not taken could run at the earliest.
func (x *exact) earliest(i int32) (start, end Minute) {
	x.l.hold[i] = false
	base := x.base(x.l, i)
	start, end = never, never
	for k := range x.modes[i] {
		if s, e := x.placed(i, int32(k), base); e < end {
			end = e
			start = min(start, s)
		}
	}
	return start, end
}

// piece is a task on one resource: not before, how long, and how long what hangs on it takes after it.
type piece struct{ head, work, tail, left Minute }

// inARow raises the ends of jobs to what the resources allow that some of their tasks need and nothing else.
func (x *exact) inARow() {
	for _, group := range x.rows {
		x.jps = x.jps[:0]
		for _, i := range group.tasks {
			if x.waits[i] >= 0 {
				x.jps = append(x.jps, piece{x.head[i], x.work[i], x.tail[i], x.work[i]})
			}
		}
		if len(x.jps) > 1 {
			x.ends[group.job] = max(x.ends[group.job], row(x.jps))
		}
	}
}

// row is when the last of some pieces is over at the earliest, if they go one at a time and any may be broken off for
// another (Jackson's preemptive schedule).
func row(pieces []piece) Minute {
	slices.SortFunc(pieces, func(a, b piece) int { return cmp.Compare(a.head, b.head) })
	now, out, k, open := 0, 0, 0, len(pieces)
	for open > 0 {
		best := -1
		for k < len(pieces) && pieces[k].head <= now {
			k++
		}
		for p := range k {
			if pieces[p].left > 0 && (best < 0 || pieces[p].tail > pieces[best].tail) {
				best = p
			}
		}
		if best < 0 {
			if k == len(pieces) {
				break
			}
			now = pieces[k].head
			continue
		}
		p := &pieces[best]
		run := p.left
		if k < len(pieces) {
			run = min(run, pieces[k].head-now)
		}
		now, p.left = now+run, p.left-run
		if p.left == 0 {
			open--
			out = max(out, now+p.tail)
		}
	}
	return out
}
