package plan

import (
	"cmp"
	"slices"
)

// rule tells how pressing a task is, the less the more, when hands that several wait for come free.
type rule func(y *layer, i int32, start, end Minute) float64

// rules make the plans that a search begins with.
var rules = []rule{byDue, byCost, bySlack, byWork}

// byDue takes first what is due first.
func byDue(y *layer, i int32, _, end Minute) float64 {
	job := &y.Jobs[y.Tasks[i].Job]
	if !job.HasDue {
		return float64(never) + float64(end)
	}
	return float64(job.Due)
}

// byCost takes first what costs most a day late for the work that is left of it.
func byCost(y *layer, i int32, _, end Minute) float64 {
	job := &y.Jobs[y.Tasks[i].Job]
	if !job.HasDue {
		return float64(end)
	}
	return -float64(job.Cost) / float64(1+y.tail[i])
}

// bySlack takes first what has least time to spare until it is due.
func bySlack(y *layer, i int32, start, end Minute) float64 {
	job := &y.Jobs[y.Tasks[i].Job]
	if !job.HasDue {
		return float64(never) + float64(end)
	}
	return float64(job.Due - start - y.tail[i])
}

// pressed is with how little time to spare a job is pressed.
const pressed = 5 * day

// byWork takes first what is pressed, and of the rest what has least work left, so that most are finished soon.
func byWork(y *layer, i int32, start, end Minute) float64 {
	if slack := bySlack(y, i, start, end); slack < pressed {
		return slack - float64(never)
	}
	return float64(y.tail[i] + end - start)
}

// dispatch makes a plan by a rule: of the tasks that could go on before any of them could be finished, the most
// pressing is taken (Giffler and Thompson, Algorithms for solving production-scheduling problems, 1960).
func (y *layer) dispatch(r rule) *layout {
	l := y.newLayout()
	list := l.list[:0]
	y.begin(l)
	waits := make([]int, y.n)
	var ready []int32
	for _, i := range y.order {
		for _, b := range y.before[i] {
			if y.free[b.Task] {
				waits[i]++
			}
		}
		if waits[i] == 0 {
			ready = append(ready, i)
		}
	}
	for len(ready) > 0 {
		k := y.pick(l, ready, r)
		i := ready[k]
		ready = slices.Delete(ready, k, k+1)
		mode, start, end := y.soonest(l, i)
		l.mode[i], l.start[i], l.end[i] = mode, start, end
		for _, o := range y.modes[i][mode].on {
			y.until[o] = end
		}
		list = append(list, i)
		for _, j := range y.after[i] {
			if waits[j]--; waits[j] == 0 && y.free[j] {
				ready = append(ready, j)
			}
		}
	}
	l.list = list
	y.lay(l)
	return l
}

// pick is which of the tasks is taken next.
func (y *layer) pick(l *layout, ready []int32, r rule) int {
	first := never + 1
	starts, ends := make([]Minute, len(ready)), make([]Minute, len(ready))
	for k, i := range ready {
		_, starts[k], ends[k] = y.soonest(l, i)
		first = min(first, ends[k])
	}
	best, least := -1, 0.0
	for k, i := range ready {
		if starts[k] >= first && ends[k] > first {
			continue
		}
		if p := r(y, i, starts[k], ends[k]); best < 0 || p < least {
			best, least = k, p
		}
	}
	return best
}

// soonest is the way in which a task is finished first.
func (y *layer) soonest(l *layout, i int32) (mode int32, start, end Minute) {
	base := y.base(l, i)
	end = never + 1
	for k := range y.modes[i] {
		if s, e := y.placed(i, int32(k), base); e < end {
			mode, start, end = int32(k), s, e
		}
	}
	return mode, start, end
}

// placed is when a task would run in one of its ways, from a minute on, by who has hold of what now.
func (y *layer) placed(i, mode int32, from Minute) (start, end Minute) {
	m := &y.modes[i][mode]
	for _, r := range m.on {
		from = max(from, y.until[r])
	}
	return m.cal.place(from, y.work[i], y.cut[i])
}

// standing is the plan that stands, as far as it goes, with what is new in it where it can be begun; nil where none
// stands.
func (y *layer) standing() *layout {
	if len(y.stood) == 0 {
		return nil
	}
	l := y.newLayout()
	key := make([]Minute, y.n)
	for _, i := range y.order {
		key[i] = y.early[i]
		if y.wasMode[i] >= 0 {
			key[i] = y.Tasks[i].Was.Start
			l.mode[i], l.hold[i] = y.wasMode[i], true
		}
		for _, b := range y.before[i] {
			key[i] = max(key[i], key[b.Task])
		}
	}
	slices.SortStableFunc(l.list, func(a, b int32) int { return cmp.Compare(key[a], key[b]) })
	y.lay(l)
	return l
}
