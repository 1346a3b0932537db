package plan

import "slices"

// Link is a stretch of time that a job's end hangs on.
type Link struct {
	Task     int // that waits, or is worked on
	From, To Minute
	For      Reason
	On       int // For Hands: the resource that it waits for
	Behind   int // For Hands: the task that has hold of it, −1 for what runs
}

// Reason is what a stretch of time is needed for.
type Reason string

// The reasons.
const (
	ForWork    Reason = "work"    // it is worked on, or runs by itself
	ForHands   Reason = "hands"   // whom or what it needs is with another task
	ForHours   Reason = "hours"   // whom it needs is not there: a night, a closed day
	ForRest    Reason = "rest"    // it rests for a while after what came before
	ForRelease Reason = "release" // what it needs comes only then
	ForPin     Reason = "pin"     // somebody put it there
	ForDay     Reason = "day"     // the plan that stands has it on that day, and nothing is lost by that
)

// Hangs are the stretches of time from now on to the end of a job that it hangs on, the first first.
func Hangs(p *Problem, plan *Plan, job int) ([]Link, error) {
	if err := p.check(); err != nil {
		return nil, err
	}
	s := ready(p)
	l := s.ofPlan(plan)
	s.layer().lay(l) // hands go from one to the other as the plan has them
	for _, i := range s.order {
		l.start[i], l.end[i] = plan.Tasks[i].Start, plan.Tasks[i].End
	}
	for _, i := range s.running {
		l.end[i] = s.ended[i]
	}
	last := int32(-1)
	for _, i := range s.lasts[job] {
		if s.free[i] && (last < 0 || l.end[i] > l.end[last]) {
			last = i
		}
	}
	var out []Link
	for i := last; i >= 0; {
		links, next := s.waited(l, i)
		out = append(out, links...)
		i = next
	}
	slices.Reverse(out)
	return slices.DeleteFunc(out, func(k Link) bool { return k.From == k.To }), nil
}

// waited are the stretches of one task, the last first, and the task of its job that it waited for, −1 where it
// waited for none.
func (s *shop) waited(l *layout, i int32) (out []Link, next int32) {
	start := l.start[i]
	out = append(out, Link{Task: int(i), From: start, To: l.end[i], For: ForWork})
	own, next, released := s.ownReady(l, i)
	free, on, behind := own, int32(-1), int32(-1)
	for k, r := range s.modes[i][l.mode[i]].on {
		p, until := l.prev[i][k], s.taken[r]
		if p >= 0 {
			until = max(until, l.end[p])
		}
		if until > free && until <= start {
			free, on, behind = until, r, p
		}
	}
	if start > free {
		out = append(out, Link{Task: int(i), From: free, To: start, For: s.notYet(l, i, free)})
	}
	if free > own {
		out = append(out, Link{Task: int(i), From: own, To: free, For: ForHands, On: int(on), Behind: int(behind)})
	}
	switch {
	case released && own > s.Now:
		return append(out, Link{Task: int(i), From: s.Now, To: own, For: ForRelease}), -1
	case next < 0:
		return out, -1
	case own > l.end[next]:
		out = append(out, Link{Task: int(i), From: max(s.Now, l.end[next]), To: own, For: ForRest})
	}
	if s.free[next] {
		return out, next
	}
	if end := l.end[next]; end > s.Now {
		out = append(out, Link{Task: int(next), From: s.Now, To: end, For: ForWork})
	}
	return out, -1
}

// ownReady is when a task could begin as far as its own job goes, and the task that it waited for last, −1 where it
// waited for what comes from elsewhere or for nothing.
func (s *shop) ownReady(l *layout, i int32) (at Minute, last int32, released bool) {
	at, last = s.Now, -1
	for _, a := range s.before[i] {
		if end := l.end[a.Task] + a.Wait; end > at || end == at && last < 0 {
			at, last = end, int32(a.Task)
		}
	}
	if r := s.Tasks[i].Release; r > at {
		return r, -1, true
	}
	return at, last, false
}

// notYet is why a task does not begin when all that it needs is free.
func (s *shop) notYet(l *layout, i int32, free Minute) Reason {
	t := &s.Tasks[i]
	if t.Pin != nil && t.Pin.Start == l.start[i] {
		return ForPin
	}
	if from, _ := s.modes[i][l.mode[i]].cal.place(free, t.Work, t.Cut); from < l.start[i] {
		return ForDay
	}
	return ForHours
}
