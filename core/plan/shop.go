package plan

// shop is a problem made ready to be searched.
type shop struct {
	*Problem
	n       int
	modes   [][]mode  // by task: the ways to do it
	before  [][]After // by task
	after   [][]int32 // by task: the tasks that wait for it
	wasMode []int32   // by task: the way it is done in the plan that stands, −1 where that is none of its ways
	wasDay  []Minute  // by task: the midnight of the day that the plan that stands has it on
	free    []bool    // by task: it is planned at all and does not run
	nowhere []Why     // by task: why it is not planned
	tail    []Minute  // by task: what waits for it in its job takes at least so long after it
	alone   []Minute  // by job: when it would end if nobody had hold of anything it needs
	rows    []sameRow // tasks of one job that all need one resource
	order   []int32   // of the tasks that are planned, such that no task stands before one that it waits for
	lasts   [][]int32 // by job: its tasks that are planned or run and that none of its others waits for
	early   []Minute  // by task: not before, by its release, its pin and now
	work    []Minute  // by task
	cut     []bool    // by task
	pinned  []int32   // tasks with a pin
	stood   []int32   // tasks that the plan that stands has and that are free to move

	isPinned, isStood []bool // the same by task

	running []int32  // tasks that run
	ended   []Minute // by task that runs: when it ends
	taken   []Minute // by resource: until when what runs has hold of it
}

// mode is one way to do a task: one resource for each need.
type mode struct {
	on  []int32
	cal *Calendar
}

// mostModes a task has; of more ways the first are taken.
const mostModes = 64

// ready works a problem out for the search.
func ready(p *Problem) *shop {
	n := len(p.Tasks)
	s := &shop{
		Problem: p, n: n,
		modes: make([][]mode, n), before: make([][]After, n), after: make([][]int32, n),
		wasMode: make([]int32, n), wasDay: make([]Minute, n),
		free: make([]bool, n), nowhere: make([]Why, n),
		early: make([]Minute, n), work: make([]Minute, n), cut: make([]bool, n), tail: make([]Minute, n),
		isPinned: make([]bool, n), isStood: make([]bool, n),
		lasts: make([][]int32, len(p.Jobs)),
		ended: make([]Minute, n), taken: make([]Minute, len(p.Resources)),
	}
	together := map[[2]*Calendar]*Calendar{}
	meet := func(a, b *Calendar) *Calendar {
		key := [2]*Calendar{a, b}
		c, known := together[key]
		if !known {
			c = both(a, b)
			together[key] = c
		}
		return c
	}
	for i := range p.Tasks {
		t := &p.Tasks[i]
		s.modes[i] = s.ways(t, meet)
		s.nowhere[i] = s.hopeless(t, s.modes[i])
		s.before[i] = t.After
		s.early[i], s.work[i], s.cut[i] = max(p.Now, t.Release), t.Work, t.Cut
		if t.Pin != nil && t.Pin.Start != Anytime {
			s.early[i] = max(s.early[i], t.Pin.Start)
		}
		s.wasMode[i] = -1
		if t.Was != nil && t.Pin == nil && t.Running == nil {
			s.wasMode[i] = modeOn(s.modes[i], t.Was.On)
			s.wasDay[i] = t.Was.Start - mod(t.Was.Start, day)
		}
	}
	for i := range p.Tasks {
		for _, a := range p.Tasks[i].After {
			s.after[a.Task] = append(s.after[a.Task], int32(i))
		}
	}
	s.sort()
	for i := range p.Tasks {
		s.list(int32(i))
	}
	s.findAlone()
	s.findTails()
	s.findRows()
	return s
}

// findAlone works out when each job would end alone in the shop.
func (s *shop) findAlone() {
	y, l := s.layer(), s.newLayout()
	y.begin(l)
	for _, i := range s.order {
		_, l.start[i], l.end[i] = y.soonest(l, i)
	}
	s.alone = make([]Minute, len(s.Jobs))
	for j := range s.Jobs {
		s.alone[j] = s.lastOf(l, j)
	}
}

// findTails works out how long what waits for a task in its job takes at least.
func (s *shop) findTails() {
	for k := len(s.order) - 1; k >= 0; k-- {
		i := s.order[k]
		for _, b := range s.before[i] {
			if s.Tasks[b.Task].Job == s.Tasks[i].Job {
				s.tail[b.Task] = max(s.tail[b.Task], b.Wait+s.work[i]+s.tail[i])
			}
		}
	}
}

// sameRow is tasks of one job that go one at a time because all need one resource.
type sameRow struct {
	job   int
	tasks []int32
}

// findRows finds them.
func (s *shop) findRows() {
	rows := map[[2]int]*sameRow{}
	var keys [][2]int
	for _, i := range s.order {
		for _, r := range s.modes[i][0].on {
			if !always(s.modes[i], r) {
				continue
			}
			key := [2]int{s.Tasks[i].Job, int(r)}
			if rows[key] == nil {
				rows[key] = &sameRow{job: key[0]}
				keys = append(keys, key)
			}
			rows[key].tasks = append(rows[key].tasks, i)
		}
	}
	for _, key := range keys {
		if len(rows[key].tasks) > 1 {
			s.rows = append(s.rows, *rows[key])
		}
	}
}

// always reports that all ways have hold of a resource.
func always(modes []mode, r int32) bool {
	for _, m := range modes {
		if !has(m.on, int(r)) {
			return false
		}
	}
	return true
}

// list puts a task that is planned or runs into the lists by which plans are reckoned.
func (s *shop) list(i int32) {
	t := &s.Tasks[i]
	if s.nowhere[i] != "" {
		return
	}
	last := true
	for _, j := range s.after[i] {
		last = last && (s.Tasks[j].Job != t.Job || s.nowhere[j] != "")
	}
	if last {
		s.lasts[t.Job] = append(s.lasts[t.Job], i)
	}
	switch {
	case t.Running != nil:
	case t.Pin != nil:
		s.pinned, s.isPinned[i] = append(s.pinned, i), true
	case t.Was != nil:
		s.stood, s.isStood[i] = append(s.stood, i), true
	}
}

func mod(a, b int) int { return ((a % b) + b) % b }

// ways are all choices of one resource for each need, narrowed by what is pinned or runs.
func (s *shop) ways(t *Task, meet func(a, b *Calendar) *Calendar) []mode {
	if t.Running != nil {
		m := mode{}
		for _, r := range t.Running.On {
			m.on, m.cal = append(m.on, int32(r)), meet(m.cal, s.Resources[r].Works)
		}
		return []mode{m}
	}
	out := []mode{{}}
	for _, need := range t.Needs {
		var next []mode
		for _, m := range out {
			for _, r := range need {
				if len(next) == mostModes {
					break
				}
				if !has(m.on, r) {
					on := append(append([]int32(nil), m.on...), int32(r))
					next = append(next, mode{on, meet(m.cal, s.Resources[r].Works)})
				}
			}
		}
		out = next
	}
	if t.Pin == nil {
		return out
	}
	var pinned []mode
	for _, m := range out {
		if hasAll(m.on, t.Pin.On) {
			pinned = append(pinned, m)
		}
	}
	if len(pinned) == 0 { // whom it is pinned to cannot do it: others may
		return out
	}
	return pinned
}

func hasAll(on []int32, rs []int) bool {
	for _, r := range rs {
		if !has(on, r) {
			return false
		}
	}
	return true
}

func has(on []int32, r int) bool {
	for _, o := range on {
		if int(o) == r {
			return true
		}
	}
	return false
}

// modeOn is the way that has hold of exactly these resources, −1 where none does.
func modeOn(modes []mode, on []int) int32 {
	for i, m := range modes {
		if len(m.on) == len(on) && hasAll(m.on, on) {
			return int32(i)
		}
	}
	return -1
}

// hopeless tells why a task cannot be done in any of its ways, "" where it can.
func (s *shop) hopeless(t *Task, modes []mode) Why {
	if len(modes) == 0 {
		return NoneCan
	}
	for _, m := range modes {
		if t.Running != nil || m.cal == nil {
			return ""
		}
		if _, end := m.cal.place(max(s.Now, t.Release), t.Work, t.Cut); end < never {
			return ""
		}
	}
	return NoWindow
}

// sort puts the tasks into an order that keeps all waits, and finds those that can never be begun.
func (s *shop) sort() {
	waits := make([]int, s.n)
	for i := range s.Tasks {
		waits[i] = len(s.before[i])
	}
	var queue []int32
	for i := range s.Tasks {
		if waits[i] == 0 {
			queue = append(queue, int32(i))
		}
	}
	seen := make([]bool, s.n)
	for len(queue) > 0 {
		i := queue[0]
		queue = queue[1:]
		seen[i] = true
		for _, a := range s.before[i] {
			if s.nowhere[i] == "" && s.nowhere[a.Task] != "" && s.Tasks[i].Running == nil {
				s.nowhere[i] = Waits
			}
		}
		s.file(i)
		for _, j := range s.after[i] {
			if waits[j]--; waits[j] == 0 {
				queue = append(queue, j)
			}
		}
	}
	for i := range s.Tasks {
		if !seen[i] {
			s.nowhere[i] = Waits
		}
	}
}

// file puts a task among those that run, those to be planned, or neither.
func (s *shop) file(i int32) {
	t := &s.Tasks[i]
	switch {
	case s.nowhere[i] != "":
	case t.Running != nil:
		s.running = append(s.running, i)
		m := s.modes[i][0]
		_, s.ended[i] = m.cal.place(s.Now, t.Work, true) // it was begun: it is not asked any more whether it fits
		if s.ended[i] == never {
			s.ended[i] = s.Now + t.Work
		}
		for _, r := range m.on {
			s.taken[r] = max(s.taken[r], s.ended[i])
		}
	default:
		s.free[i] = true
		s.order = append(s.order, i)
	}
}
