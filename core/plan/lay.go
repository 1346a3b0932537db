package plan

// layout is a plan as it is searched: tasks in an order, each in one of its ways, and laid out one after another as
// early as that order lets them. In an order that is right any plan that cannot be drawn to the left can be laid out.
type layout struct {
	list []int32 // the tasks in order
	mode []int32 // by task
	hold []bool  // by task: not before the day on which the plan that stands has it
	at   []int32 // by task: its place in the list

	start, end []Minute   // by task
	prev       [][3]int32 // by task: who had hold of each of its resources before it, −1 for nobody
	cost       Cost
	ends       []Minute // by job
}

// mostNeeds is how many resources one task can have hold of.
const mostNeeds = 3

func (s *shop) newLayout() *layout {
	return &layout{list: append([]int32(nil), s.order...), mode: make([]int32, s.n), hold: make([]bool, s.n),
		at: make([]int32, s.n), start: make([]Minute, s.n), end: make([]Minute, s.n), prev: make([][3]int32, s.n),
		ends: make([]Minute, len(s.Jobs))}
}

// take makes the layout one with another.
func (l *layout) take(o *layout) {
	copy(l.list, o.list)
	copy(l.mode, o.mode)
	copy(l.hold, o.hold)
	copy(l.at, o.at)
	copy(l.start, o.start)
	copy(l.end, o.end)
	copy(l.prev, o.prev)
	copy(l.ends, o.ends)
	l.cost = o.cost
}

// layer lays plans out; it keeps what it needs for that, and is used by one search at a time.
type layer struct {
	*shop
	until []Minute // by resource: it is taken
	last  []int32  // by resource: who has hold of it last
}

func (s *shop) layer() *layer {
	return &layer{shop: s, until: make([]Minute, len(s.Resources)), last: make([]int32, len(s.Resources))}
}

// base is the first minute at which a task may begin, whoever has hold of what it needs.
func (s *shop) base(l *layout, i int32) Minute {
	base := s.early[i]
	for _, a := range s.before[i] {
		base = max(base, l.end[a.Task]+a.Wait)
	}
	if l.hold[i] {
		base = max(base, s.wasDay[i])
	}
	return base
}

// lay lays all tasks out and reckons what the plan costs.
func (y *layer) lay(l *layout) {
	y.begin(l)
	for k, i := range l.list {
		l.at[i] = int32(k)
		t := y.base(l, i)
		m := &y.modes[i][l.mode[i]]
		for k, r := range m.on {
			t = max(t, y.until[r])
			l.prev[i][k] = y.last[r]
		}
		l.start[i], l.end[i] = m.cal.place(t, y.work[i], y.cut[i])
		for _, r := range m.on {
			y.until[r], y.last[r] = l.end[i], i
		}
	}
	y.reckon(l)
}

// begin lays out what runs, and nothing has hold of anything yet but that.
func (y *layer) begin(l *layout) {
	for _, i := range y.running {
		l.start[i], l.end[i] = y.Tasks[i].Running.Start, y.ended[i]
	}
	copy(y.until, y.taken)
	for r := range y.last {
		y.last[r] = -1
	}
}

// reckon is what a plan costs.
func (s *shop) reckon(l *layout) {
	c := Cost{}
	for _, i := range l.list {
		s.count(&c, i, l.mode[i], l.start[i], 1)
	}
	for j := range s.Jobs {
		l.ends[j] = s.lastOf(l, j)
		s.countJob(&c, j, l.ends[j], 1)
	}
	l.cost = c
}

// count adds to a cost what one task has in it, as often as times.
func (s *shop) count(c *Cost, i, mode int32, start Minute, times int) {
	if s.isPinned[i] && s.broken(i, mode, start) {
		c.Broken += times
	}
	if s.isStood[i] && s.moved(i, mode, start) {
		c.Moved += times
	}
}

// countJob adds to a cost what the end of a job has in it, as often as times.
func (s *shop) countJob(c *Cost, j int, end Minute, times int) {
	if end >= never {
		c.Broken += times
	}
	c.Finish += int64(times * end)
	c.Late += int64(times) * s.lateness(j, end)
}

// lastOf is when the last task of a job ends.
func (s *shop) lastOf(l *layout, j int) (end Minute) {
	for _, i := range s.lasts[j] {
		end = max(end, l.end[i])
	}
	return end
}

// broken reports that a pinned task does not stand where it is pinned.
func (s *shop) broken(i, mode int32, start Minute) bool {
	pin := s.Tasks[i].Pin
	return pin.Start != Anytime && start != pin.Start || !hasAll(s.modes[i][mode].on, pin.On)
}

// moved reports that a task that the plan that stands has, has other hands or another day.
func (s *shop) moved(i, mode int32, start Minute) bool {
	return mode != s.wasMode[i] || start < s.wasDay[i] || start >= s.wasDay[i]+day
}

// lateness is what it costs that a job ends then.
func (s *shop) lateness(j int, end Minute) int64 {
	job := &s.Jobs[j]
	if !job.HasDue || end <= job.Due-job.Safe {
		return 0
	}
	near := min(end, job.Due) - (job.Due - job.Safe)
	return int64(max(0, end-job.Due))*job.Cost + int64(near)*job.Cost/SafeShare
}
