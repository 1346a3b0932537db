package plan

// relayer lays a plan out anew from a change on, as far as the change reaches: where hands come free at the same
// minute as before and all that waited is as it was, the rest of the plan is too.
type relayer struct {
	*layer
	now, trial *layout // the plan, and its neighbour: the same between one try and the next

	turn    int64   // of the try
	held    []int64 // by resource: the turn in which until and last say who has hold of it
	was     []int32 // by resource that is held: who has hold of it in the plan behind the part that differs
	holds   []int32 // resources that the part has hold of
	pending []int64 // by task: the turn in which something that it waits for changed
	waiting int     // tasks that are pending and not yet laid
	open    int     // resources that are held by another or for another time than in the plan
	from    int32   // the part of the list that differs
	upto    int32
	job     []int64 // by job: the turn in which a task of it changed
	jobs    []int32
}

func (s *shop) relayer() relayer {
	return relayer{layer: s.layer(), now: s.newLayout(), trial: s.newLayout(), held: make([]int64, len(s.Resources)),
		was: make([]int32, len(s.Resources)), pending: make([]int64, s.n), job: make([]int64, len(s.Jobs))}
}

// beginWith takes a plan to go on from.
func (y *relayer) beginWith(l *layout) {
	y.now.take(l)
	y.trial.take(l)
}

// keep goes on from the neighbour.
func (y *relayer) keep() { y.copyPart(y.now, y.trial) }

// drop forgets the neighbour.
func (y *relayer) drop() { y.copyPart(y.trial, y.now) }

func (y *relayer) copyPart(to, from *layout) {
	copy(to.list[y.from:y.upto+1], from.list[y.from:y.upto+1])
	for _, i := range from.list[y.from : y.upto+1] {
		to.at[i], to.mode[i], to.hold[i] = from.at[i], from.mode[i], from.hold[i]
		to.start[i], to.end[i], to.prev[i] = from.start[i], from.end[i], from.prev[i]
	}
	for _, j := range y.jobs {
		to.ends[j] = from.ends[j]
	}
	to.cost = from.cost
}

// relay lays out the neighbour, whose list differs from the plan's between two places.
func (y *relayer) relay(from, upto int32) {
	y.turn++
	y.from, y.upto = from, upto
	y.waiting, y.open = 0, 0
	y.jobs = y.jobs[:0]
	y.trial.cost = y.now.cost
	y.holdFrom(from, upto)
	for k := from; k <= upto; k++ {
		i := y.trial.list[k]
		y.trial.at[i] = k
		y.layOne(i)
	}
	y.compare()
	for k := upto + 1; int(k) < len(y.trial.list) && (y.open > 0 || y.waiting > 0); k++ {
		i := y.trial.list[k]
		if !y.affected(i) {
			continue
		}
		y.upto = k
		y.layOne(i)
		y.settle(i)
	}
	for _, j := range y.jobs {
		end := y.lastOf(y.trial, int(j))
		y.countJob(&y.trial.cost, int(j), y.trial.ends[j], -1)
		y.countJob(&y.trial.cost, int(j), end, 1)
		y.trial.ends[j] = end
	}
}

// holdFrom finds who has hold of what before a part of the list, of all that the part has hold of in plan or
// neighbour, and of what in the plan at its end.
func (y *relayer) holdFrom(from, upto int32) {
	y.holds = y.holds[:0]
	for _, i := range y.now.list[from : upto+1] {
		for k, r := range y.modes[i][y.now.mode[i]].on {
			if y.held[r] != y.turn {
				y.hold(r, y.now.prev[i][k])
			}
			y.was[r] = i
		}
	}
	for _, i := range y.trial.list[from : upto+1] {
		if y.trial.mode[i] == y.now.mode[i] {
			continue
		}
		for _, r := range y.modes[i][y.trial.mode[i]].on {
			if y.held[r] != y.turn {
				y.hold(r, y.lastBefore(from, r))
				y.was[r] = -1
			}
		}
	}
}

// hold says that a task has hold of a resource, −1 for what runs or nobody.
func (y *relayer) hold(r, i int32) {
	y.held[r], y.last[r], y.until[r] = y.turn, i, y.freeAfter(r, i)
	y.holds = append(y.holds, r)
}

// compare lets go, behind the part that differs, what is held by the same task until the same minute as in the plan.
func (y *relayer) compare() {
	for _, r := range y.holds {
		if was := y.was[r]; was >= 0 && was == y.last[r] && y.now.end[was] == y.trial.end[was] {
			y.held[r] = 0
		} else {
			y.open++
		}
	}
}

func (y *relayer) freeAfter(r, i int32) Minute {
	if i < 0 {
		return y.taken[r]
	}
	return max(y.taken[r], y.trial.end[i])
}

// lastBefore is the last task before a place of the list that has hold of a resource, −1 where none has.
func (y *relayer) lastBefore(place, r int32) int32 {
	for k := place - 1; k >= 0; k-- {
		i := y.now.list[k]
		if has(y.modes[i][y.now.mode[i]].on, int(r)) {
			return i
		}
	}
	return -1
}

// layOne lays out one task of the neighbour.
func (y *relayer) layOne(i int32) {
	l := y.trial
	t := y.base(l, i)
	m := &y.modes[i][l.mode[i]]
	for k, r := range m.on {
		if y.held[r] != y.turn {
			t = max(t, y.freeAfter(r, l.prev[i][k]))
			continue
		}
		l.prev[i][k] = y.last[r]
		t = max(t, y.until[r])
	}
	l.start[i], l.end[i] = m.cal.place(t, y.work[i], y.cut[i])
	for _, r := range m.on {
		if y.held[r] == y.turn {
			y.until[r], y.last[r] = l.end[i], i
		}
	}
	if l.end[i] != y.now.end[i] {
		y.changed(i)
	}
	if y.isPinned[i] || y.isStood[i] {
		y.count(&l.cost, i, y.now.mode[i], y.now.start[i], -1)
		y.count(&l.cost, i, l.mode[i], l.start[i], 1)
	}
}

// changed tells those that wait for a task, and its job, that it ends at another minute.
func (y *relayer) changed(i int32) {
	if j := y.Tasks[i].Job; y.job[j] != y.turn {
		y.job[j] = y.turn
		y.jobs = append(y.jobs, int32(j))
	}
	for _, w := range y.after[i] {
		if y.free[w] && y.pending[w] != y.turn && y.now.at[w] > y.upto {
			y.pending[w] = y.turn
			y.waiting++
		}
	}
}

// affected reports that a task behind the part that differs must be laid out anew.
func (y *relayer) affected(i int32) bool {
	if y.pending[i] == y.turn {
		y.pending[i] = 0
		y.waiting--
		return true
	}
	for _, r := range y.modes[i][y.trial.mode[i]].on {
		if y.held[r] == y.turn {
			return true
		}
	}
	return false
}

// settle lets go what is held as it was in the plan again, once a task is laid, and holds what is not.
func (y *relayer) settle(i int32) {
	same := y.trial.end[i] == y.now.end[i]
	for _, r := range y.modes[i][y.trial.mode[i]].on {
		held := y.held[r] == y.turn
		switch {
		case same && held:
			y.held[r] = 0
			y.open--
		case !same && !held:
			y.held[r], y.until[r], y.last[r] = y.turn, y.trial.end[i], i
			y.open++
		}
	}
}
