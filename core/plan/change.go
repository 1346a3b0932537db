package plan

import "math/rand/v2"

// kind is what a change changes.
type kind byte

// The kinds of change.
const (
	putBefore kind = iota // v is put before u, both of which have hold of r
	setMode               // u is done in way v
	setHold               // u may begin before the day that the plan that stands has it on, or no more
	setPlace              // u is put at place v of the list
)

// change is a step from a plan to a neighbour.
type change struct {
	kind    kind
	u, v, r int32
}

// changer makes the neighbours of a plan.
type changer struct {
	relayer
	random *rand.Rand
	window []int32 // scratch, as all that follows
	wanted []bool  // by resource
	marked []bool  // by task
	path   []step
}

// seedStream tells our streams of random numbers from others of the same seed.
const seedStream = 17

func (s *shop) changer(seed uint64) *changer {
	return &changer{
		relayer: s.relayer(),
		random:  rand.New(rand.NewPCG(seed, seedStream)),
		wanted:  make([]bool, len(s.Resources)),
		marked:  make([]bool, s.n),
	}
}

// try lays a neighbour out into trial, and reports whether the change can be made. Whatever it reports, keep or drop
// must follow.
func (c *changer) try(x change) bool {
	from := c.now.at[x.u]
	upto := from
	c.from, c.upto, c.jobs = from, from, c.jobs[:0]
	switch x.kind {
	case putBefore:
		if upto = c.now.at[x.v]; !c.putBefore(x.v, x.u, x.r) {
			return false
		}
	case setMode:
		c.trial.mode[x.u] = x.v
	case setHold:
		c.trial.hold[x.u] = !c.now.hold[x.u]
	case setPlace:
		shift(c.trial.list, from, x.v)
		from, upto = min(from, x.v), max(from, x.v)
	}
	c.relay(from, upto)
	return true
}

func (c *changer) anyTask() int32 { return c.now.list[c.random.IntN(len(c.now.list))] }

// any is a change of any task; there may be none.
func (c *changer) any() (x change, is bool) {
	i := c.anyTask()
	switch pick := c.random.IntN(4); {
	case pick == 0 && c.wasMode[i] >= 0 && c.now.mode[i] != c.wasMode[i]:
		return change{kind: setMode, u: i, v: c.wasMode[i]}, true
	case pick == 1 && c.wasMode[i] >= 0:
		return change{kind: setHold, u: i}, true
	case pick == 2 && len(c.modes[i]) > 1:
		return c.otherMode(i), true
	}
	return c.otherPlace(i)
}

// otherMode gives a task other hands.
func (c *changer) otherMode(i int32) change {
	n := int32(len(c.modes[i]))
	return change{kind: setMode, u: i, v: (c.now.mode[i] + 1 + c.random.Int32N(n-1)) % n}
}

// otherPlace puts a task somewhere else in the list, between those that it waits for and those that wait for it.
func (c *changer) otherPlace(i int32) (x change, is bool) {
	from, to := int32(0), int32(len(c.now.list)-1)
	for _, b := range c.before[i] {
		if c.free[b.Task] {
			from = max(from, c.now.at[b.Task]+1)
		}
	}
	for _, j := range c.after[i] {
		if c.free[j] {
			to = min(to, c.now.at[j]-1)
		}
	}
	if from >= to {
		return x, false
	}
	at := from + c.random.Int32N(to-from+1)
	return change{kind: setPlace, u: i, v: at}, at != c.now.at[i]
}

// shift moves what stands at one place of a list to another.
func shift(list []int32, from, to int32) {
	i := list[from]
	if from < to {
		copy(list[from:to], list[from+1:to+1])
	} else {
		copy(list[to+1:from+1], list[to:from])
	}
	list[to] = i
}

// putBefore puts v before u in the list of the trial, with all that v waits for; every other order stays as it is. It
// reports that this can be.
func (c *changer) putBefore(v, u, r int32) bool {
	list := c.trial.list
	from, to := c.now.at[u], c.now.at[v]
	c.mark(v, r)
	for k := to - 1; k >= from; k-- {
		if w := list[k]; c.uses(w) || c.waitsFor(w) {
			c.mark(w, -1)
		}
	}
	possible := !c.marked[u]
	c.part(from, to, possible)
	return possible
}

// part writes what is marked between two places of the list before the rest, where it is to be written, and takes the
// marks off.
func (c *changer) part(from, to int32, write bool) {
	list := c.trial.list
	if write {
		c.window = c.window[:0]
		for _, first := range [2]bool{true, false} {
			for k := from; k <= to; k++ {
				if c.marked[list[k]] == first {
					c.window = append(c.window, list[k])
				}
			}
		}
	}
	for k := from; k <= to; k++ {
		c.marked[list[k]] = false
	}
	clear(c.wanted)
	if write {
		copy(list[from:to+1], c.window)
	}
}

// mark marks a task and what it has hold of, but for one resource.
func (c *changer) mark(i, but int32) {
	c.marked[i] = true
	for _, r := range c.modes[i][c.now.mode[i]].on {
		if r != but {
			c.wanted[r] = true
		}
	}
}

// uses reports that a task has hold of what a marked one has hold of.
func (c *changer) uses(i int32) bool {
	for _, r := range c.modes[i][c.now.mode[i]].on {
		if c.wanted[r] {
			return true
		}
	}
	return false
}

// waitsFor reports that a marked task waits for this one.
func (c *changer) waitsFor(i int32) bool {
	for _, j := range c.after[i] {
		if c.marked[j] {
			return true
		}
	}
	return false
}
