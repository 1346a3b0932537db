package plan

import (
	"cmp"
	"slices"
)

// tabu is a search that goes to the best neighbour again and again and does not go back for a while (Nowicki and
// Smutnicki, A fast taboo search algorithm for the job shop problem, 1996), run from the ways between good plans that
// it found (Peng, Lü and Cheng, A tabu search/path relinking algorithm to solve the job shop scheduling problem,
// 2015).
type tabu struct {
	*changer
	best    *layout // of the climb
	until   []int64 // by slot: to which round a change may not be made
	round   int64
	changes []change
	effort  int // how many tasks may still be laid out
	stop    func() bool
}

// Settings of the search, found on published and on drawn problems.
const (
	slots      = 1 << 16
	tenureLow  = 8    // rounds for which what was turned round stays so, at least,
	tenureSpan = 5    // and by how many more at most
	patience   = 1500 // rounds without a better plan before a climb ends
	family     = 8    // plans between which ways are gone
	most       = 24   // neighbours looked at in a round, of a plan of many tasks
	many       = 200  // tasks are many
	perRound   = 8    // tasks that could be laid out while neighbours are looked for
	anyChanges = 3    // changes of any task beside those of the path, in a round
	fresh      = 20   // one climb in so many is kept whatever it found
	shaken     = 3    // changes for each task that make a plan another one, to begin with
)

func (s *shop) tabu(seed uint64, effort int, stop func() bool) *tabu {
	return &tabu{changer: s.changer(seed), best: s.newLayout(), until: make([]int64, slots),
		effort: effort, stop: stop}
}

// movedWeight and finishWeight are what a task that is moved and a minute of a job's end weigh against a thousandth
// of money where neighbours are compared; which of two plans is kept is told by Cost.Less.
const (
	movedWeight  = 50
	finishWeight = 0.01
	brokenWeight = 1e12
)

func (c Cost) energy() float64 {
	return brokenWeight*float64(c.Broken) + float64(c.Late) + movedWeight*float64(c.Moved) +
		finishWeight*float64(c.Finish)
}

// spent reports that the effort is.
func (t *tabu) spent() bool { return t.effort <= 0 || t.stop() }

// search gives the best plan that it finds from some to begin with.
func (t *tabu) search(from []*layout) *layout {
	best := t.newLayout()
	best.take(from[0])
	var kept []*layout
	for first := true; first || !t.spent(); first = false {
		switch {
		case len(kept) < len(from):
			t.beginWith(from[len(kept)])
		case len(kept) < family:
			t.beginWith(from[t.random.IntN(len(from))])
			t.shake()
		default:
			x := t.random.IntN(family)
			t.between(kept[x], kept[(x+1+t.random.IntN(family-1))%family])
		}
		t.climb()
		if t.best.cost.Less(best.cost) {
			best.take(t.best)
		}
		kept = t.keepOf(kept)
	}
	return best
}

// keepOf puts the best of the climb among those that are kept, in the place of the worst, unless it is there already.
func (t *tabu) keepOf(kept []*layout) []*layout {
	found := t.newLayout()
	found.take(t.best)
	if len(kept) < family {
		return append(kept, found)
	}
	worst := 0
	for k, l := range kept {
		if slices.Equal(l.start, found.start) {
			return kept
		}
		if kept[worst].cost.Less(l.cost) {
			worst = k
		}
	}
	if found.cost.Less(kept[worst].cost) || t.random.IntN(fresh) == 0 {
		kept[worst] = found
	}
	return kept
}

// shake makes another plan of the one that is searched.
func (t *tabu) shake() {
	for range shaken * min(len(t.now.list), many) {
		t.neighbours()
		t.anyOf()
	}
}

// anyOf makes any of the changes, where it can be made.
func (t *tabu) anyOf() {
	if len(t.changes) == 0 {
		return
	}
	can := t.try(t.changes[t.random.IntN(len(t.changes))])
	t.effort -= int(t.upto - t.from + 1)
	if can {
		t.keep()
	} else {
		t.drop()
	}
}

// between goes a part of the way from one plan to another: what both have in the same order stays so.
func (t *tabu) between(x, y *layout) {
	share := 0.3 + 0.4*t.random.Float64()
	key := make([]float64, t.n)
	for _, i := range x.list {
		key[i] = (1-share)*float64(x.at[i]) + share*float64(y.at[i])
	}
	l := t.newLayout()
	l.take(x)
	slices.SortStableFunc(l.list, func(a, b int32) int { return cmp.Compare(key[a], key[b]) })
	for _, i := range x.list {
		if t.random.Float64() < share {
			l.mode[i], l.hold[i] = y.mode[i], y.hold[i]
		}
	}
	t.lay(l)
	t.beginWith(l)
}

// climb goes from neighbour to neighbour until it has found nothing better for long.
func (t *tabu) climb() {
	clear(t.until)
	t.best.take(t.now)
	for since := 0; since < patience && !t.spent(); since++ {
		t.round++
		t.neighbours()
		x, is := t.bestNeighbour()
		if !is {
			t.anyOf()
		} else {
			t.forbid(x)
			t.try(x)
			t.keep()
		}
		if t.now.cost.Less(t.best.cost) {
			t.best.take(t.now)
			since = 0
		}
	}
}

// neighbours are the changes that are tried in a round.
func (t *tabu) neighbours() {
	t.effort -= perRound
	t.critical(t.someJob())
	t.changes = t.pathChanges(t.changes[:0])
	if n := len(t.changes); n > most && len(t.now.list) > many {
		t.random.Shuffle(n, func(a, b int) { t.changes[a], t.changes[b] = t.changes[b], t.changes[a] })
		t.changes = t.changes[:most]
	}
	if len(t.stood) == 0 && len(t.Jobs) == 1 {
		return
	}
	for range anyChanges {
		if x, is := t.any(); is {
			t.changes = append(t.changes, x)
		}
	}
}

// bestNeighbour is the change to the best neighbour that is not forbidden; one that is better than all is never
// forbidden. Of several it is one at random.
func (t *tabu) bestNeighbour() (best change, is bool) {
	least, ties := 0.0, 0
	for _, x := range t.changes {
		forbidden := t.forbidden(x)
		can := t.try(x)
		t.effort -= int(t.upto - t.from + 1)
		cost := t.trial.cost
		t.drop()
		if !can || forbidden && !cost.Less(t.best.cost) {
			continue
		}
		energy := cost.energy()
		switch {
		case !is || energy < least:
			ties = 0
		case energy == least:
			if ties++; t.random.IntN(ties+1) != 0 {
				continue
			}
		default:
			continue
		}
		best, least, is = x, energy, true
	}
	return best, is
}

// slot is where it is kept until when two things may not be turned round. Two that meet in one slot forbid each other
// now and then, which does no harm.
func slot(a, b int32) int { return int((uint32(a)*2654435761 ^ uint32(b)*40503) >> 7 % slots) }

// turned calls with each pair that v put before u turns round: v comes to stand before the other.
func (t *tabu) turned(x change, with func(other int32)) {
	for k := t.now.at[x.u]; k < t.now.at[x.v]; k++ {
		if w := t.now.list[k]; has(t.modes[w][t.now.mode[w]].on, int(x.r)) {
			with(w)
		}
	}
}

// place of a change that turns no pair round, among the slots.
const ofChange = 1 << 20

func (t *tabu) forbidden(x change) (is bool) {
	switch x.kind {
	case putBefore:
		t.turned(x, func(other int32) { is = is || t.until[slot(x.v, other)] > t.round })
		return is
	case setMode:
		return t.until[slot(x.u, ofChange+x.v)] > t.round
	}
	return t.until[slot(x.u, 2*ofChange+int32(x.kind))] > t.round
}

// forbid keeps from being turned back what a change turns round.
func (t *tabu) forbid(x change) {
	until := t.round + tenureLow + t.random.Int64N(tenureSpan)
	switch x.kind {
	case putBefore:
		t.turned(x, func(other int32) { t.until[slot(other, x.v)] = until })
	case setMode:
		t.until[slot(x.u, ofChange+t.now.mode[x.u])] = until
	default:
		t.until[slot(x.u, 2*ofChange+int32(x.kind))] = until
	}
}
