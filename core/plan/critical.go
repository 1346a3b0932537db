package plan

// step is a task of a critical path, with the resource for which it waited for the task before it, −1 where it waited
// for something else.
type step struct {
	task, on int32
}

// critical is the path that a job's end hangs on, from its last task to the first: each waited for the next one of
// it.
func (c *changer) critical(j int) {
	c.path = c.path[:0]
	last := int32(-1)
	for _, i := range c.lasts[j] {
		if c.free[i] && (last < 0 || c.now.end[i] > c.now.end[last]) {
			last = i
		}
	}
	for last >= 0 {
		next, on := c.waitedFor(last)
		c.path = append(c.path, step{last, on})
		last = next
	}
}

// waitedFor is the task that one waited for, and the resource if it was for that; −1 where it waited for none. Of
// several it is one at random.
func (c *changer) waitedFor(i int32) (next, on int32) {
	l := c.now
	latest := c.base(l, i)
	m := &c.modes[i][l.mode[i]]
	for k := range m.on {
		if p := l.prev[i][k]; p >= 0 {
			latest = max(latest, l.end[p])
		}
	}
	next, on = -1, -1
	found := 0
	for k, r := range m.on {
		if p := l.prev[i][k]; p >= 0 && l.end[p] == latest {
			if found++; c.random.IntN(found) == 0 {
				next, on = p, r
			}
		}
	}
	for _, b := range c.before[i] {
		if c.free[b.Task] && l.end[b.Task]+b.Wait == latest {
			if found++; c.random.IntN(found) == 0 {
				next, on = int32(b.Task), -1
			}
		}
	}
	return next, on
}

// someJob is a job that is late and need not be, the costlier the likelier; now and then, and where none is, any one.
func (c *changer) someJob() int {
	if c.random.IntN(anyJob) > 0 {
		total := int64(0)
		for j := range c.Jobs {
			total += c.needless(j)
		}
		if total > 0 {
			pick := c.random.Int64N(total)
			for j := range c.Jobs {
				if pick -= c.needless(j); pick < 0 {
					return j
				}
			}
		}
	}
	return c.Tasks[c.anyTask()].Job
}

// anyJob is how often a job is taken that need not be late.
const anyJob = 4

// needless is what a job costs more by its lateness than if it were alone in the shop.
func (c *changer) needless(j int) int64 {
	return c.lateness(j, c.now.ends[j]) - c.lateness(j, c.alone[j])
}

// pathChanges adds the changes of the path. In a block of it each task waits for the hands of the one before; the end
// comes sooner only where another task is first or last in one, so that its first two and its last two are turned
// round (Nowicki and Smutnicki). Each task is given other hands, and let go from the day it was held to.
func (c *changer) pathChanges(out []change) []change {
	p := c.path
	for lo := 0; lo < len(p)-1; {
		r, hi := p[lo].on, lo+1
		if r < 0 {
			lo++
			continue
		}
		for hi < len(p)-1 && p[hi].on == r {
			hi++
		}
		out = append(out, change{putBefore, p[lo+1].task, p[lo].task, r})
		if hi-lo > 1 {
			out = append(out, change{putBefore, p[hi].task, p[hi-1].task, r})
		}
		lo = hi
	}
	for _, s := range p {
		i := s.task
		for m := range c.modes[i] {
			if int32(m) != c.now.mode[i] {
				out = append(out, change{kind: setMode, u: i, v: int32(m)})
			}
		}
		if c.now.hold[i] {
			out = append(out, change{kind: setHold, u: i})
		}
	}
	return out
}
