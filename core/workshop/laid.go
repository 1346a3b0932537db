package workshop

import (
	"math"
	"time"

	"corvek/core/plan"
	"corvek/core/remaining"
	"corvek/core/shop"
	"corvek/core/unit"
)

// Job is a job in hand, as far as the plan goes.
type Job struct {
	Tag, Title, Customer string
	Site                 string // where it is done, "" for anywhere
	HeldBy               string // who has it: he does what he can of it
	Promised             unit.Date
	Down                 float64    // money a day while it stands, 0 where nobody said
	Stands               bool       // and the machine with it: there is none in its place
	Ready                *time.Time // nothing is done before: a timer runs
	Units                []UnitWork
}

// UnitWork is what one unit still needs.
type UnitWork struct {
	Number int
	Model  string         // maker and model in small letters
	Need   remaining.Need // of a stand
	Tasks  []remaining.Task
}

// Key is the address of a task in the plan.
type Key struct {
	Tag  string `json:"tag"  gorm:"primaryKey"`
	Unit int    `json:"unit" gorm:"primaryKey"`
	Code string `json:"code" gorm:"primaryKey"`
}

// Spot is where a task stands in a plan: with whom, where, and from when on the clock of the shop, written as if that
// were UTC, so that a change of summer time moves nothing.
type Spot struct {
	Key
	Person string     `json:"person,omitempty"`
	Place  string     `json:"place,omitempty"`
	Start  *time.Time `json:"start,omitempty"  gorm:"column:start_at"`
}

// Laid is what the planner is given, with what each of its tasks is.
type Laid struct {
	Problem *plan.Problem
	Spreads []plan.Spread
	Keys    []Key             // by task
	Tasks   []*remaining.Task // by task
	Jobs    []Job             // by job of the problem

	first     unit.Date // the day that its minutes are counted from
	people    int       // the first resources are people, the others places
	resources map[string]int
}

// usualDown is what a day of lateness is taken to cost where nobody said it, so that no promise is without weight.
const usualDown = 20

// standsFirst is how many times as much a day late weighs of a machine that stands with none in its place, so that it
// comes before all whose work goes on meanwhile.
const standsFirst = 10

// perMinute is the thousandths of money that a minute late costs where a day costs so much.
func perMinute(day float64, stands bool) int64 {
	if day <= 0 {
		day = usualDown
	}
	if stands {
		day *= standsFirst
	}
	return max(1, int64(math.Round(day*1000/minutesOfDay)))
}

// Lay gives the planner the jobs in hand at a moment, on the clock of the shop, with what people pinned and where the
// plan that stands has each task.
func (w *Workshop) Lay(jobs []Job, now time.Time, pins, stood []Spot, g *Learned) *Laid {
	l := &Laid{first: unit.DateOf(now), resources: map[string]int{}, Jobs: jobs, people: len(w.Hands)}
	l.Problem = &plan.Problem{Now: now.Hour()*60 + now.Minute()}
	cal := w.calendars(l.first.Time())
	for i := range w.Hands {
		h := &w.Hands[i]
		l.resource(h.Name, cal.of(h.Hours, w.away(h.PersonID)))
	}
	for i := range w.Places {
		p := &w.Places[i]
		works := cal.of(p.Hours, func(unit.Date) bool { return false })
		if p.Hours == "" {
			works = nil
		}
		l.resource(p.Name, works)
	}
	for i := range jobs {
		l.job(w, &jobs[i], g)
		if j := &l.Problem.Jobs[i]; j.HasDue {
			j.Safe = l.SafeOf(i, j.Due)
		}
	}
	l.pin(pins, func(t *plan.Task, s *plan.Spot) { t.Pin = s })
	l.pin(stood, func(t *plan.Task, s *plan.Spot) {
		if s.Start != plan.Anytime && len(t.Needs) > 0 { // a wait is nobody's: it is not held to the day it had
			t.Was = s
		}
	})
	return l
}

// DueOn is the minute by which a job must be done that is promised for a day: its end.
func (l *Laid) DueOn(day unit.Date) plan.Minute { return l.minute(day.Add(1).Time()) }

// SafeOf is how long before a day that is promised a job is to be done, never longer than it is until then.
func (l *Laid) SafeOf(job int, due plan.Minute) plan.Minute {
	return max(0, min(plan.SafeOf(l.Problem, job, l.Spreads), due-l.Problem.Now))
}

func (l *Laid) resource(name string, works *plan.Calendar) {
	l.resources[name] = len(l.Problem.Resources)
	l.Problem.Resources = append(l.Problem.Resources, plan.Resource{Name: name, Works: works})
}

// job lays one job.
func (l *Laid) job(w *Workshop, j *Job, g *Learned) {
	out := plan.Job{Name: j.Tag, Cost: perMinute(j.Down, j.Stands)}
	if j.Promised != "" {
		out.HasDue, out.Due = true, l.DueOn(j.Promised)
	}
	number := len(l.Problem.Jobs)
	l.Problem.Jobs = append(l.Problem.Jobs, out)
	for _, u := range j.Units {
		at := map[string]int{}
		for k := range u.Tasks {
			at[u.Tasks[k].Code] = len(l.Problem.Tasks)
			l.task(w, number, j, &u, &u.Tasks[k], at, g)
		}
	}
}

func (l *Laid) task(w *Workshop, number int, j *Job, u *UnitWork, t *remaining.Task, at map[string]int,
	g *Learned) {
	factor, whole, _ := g.Of(u.Model)
	out := plan.Task{Name: t.Name, Job: number, Work: rounded(t.Time), Cut: t.Kind.Cut()}
	if !t.Alone() {
		out.Work = rounded(time.Duration(factor * float64(t.Time)))
	}
	for _, a := range t.After {
		out.After = append(out.After, plan.After{Task: at[a]})
	}
	if j.Ready != nil && len(t.After) == 0 {
		out.Release = l.minute(*j.Ready)
	}
	switch {
	case t.Waits():
		out.Work, out.Cut = 0, true
		l.wait(&out, t, g)
	default:
		out.Needs = w.needs(j, t, u.Need, l.resources)
	}
	l.Problem.Tasks = append(l.Problem.Tasks, out)
	l.Keys = append(l.Keys, Key{Tag: j.Tag, Unit: u.Number, Code: t.Code})
	l.Tasks = append(l.Tasks, t)
	l.Spreads = append(l.Spreads, spreadOf(t, &out, g, whole))
}

// step is to how many minutes work is rounded up: nobody knows it better.
const step = 5

func rounded(d time.Duration) plan.Minute { return (int(d/time.Minute) + step - 1) / step * step }

// opens is when in the morning it is known that what was waited for is there.
const opens = 8 * 60

// wait lays a wait for others: to the day that somebody said, to so many days after it began, or so many days from
// when it begins. What should have come already is looked for tomorrow.
func (l *Laid) wait(out *plan.Task, t *remaining.Task, g *Learned) {
	factor, _ := g.Wait(t.Kind, t.By, t.Sigma)
	day, days := t.Until, t.Days*factor
	if day == "" && t.Since != "" {
		day = t.Since.Add(int(math.Ceil(days)))
	}
	if day == "" {
		out.Work = int(days * minutesOfDay)
		return
	}
	if day <= l.first {
		day = l.first.Add(1)
	}
	out.Release = max(out.Release, l.minute(day.Time())+opens)
}

// needs are those who can do a task, and the places where it can be done. A kind of place that the shop has none of
// is not planned; a stand that does not reach what is needed is none. Another shop than that of the job does nothing
// for it, and who has the job does all of it that he can.
func (w *Workshop) needs(j *Job, t *remaining.Task, need remaining.Need, at map[string]int) (out [][]int) {
	if skill := t.Kind.Needs(); skill != "" {
		var can []int
		for i := range w.Hands {
			h := &w.Hands[i]
			if !h.Can(skill) || !shop.Same(h.Site, j.Site) {
				continue
			}
			if h.Name == j.HeldBy {
				can = []int{at[h.Name]}
				break
			}
			can = append(can, at[h.Name])
		}
		out = append(out, can)
	}
	kind, any := t.Kind.At(), false
	var places []int
	for i := range w.Places {
		p := &w.Places[i]
		if remaining.Place(p.Kind) != kind || !shop.Same(p.Site, j.Site) {
			continue
		}
		any = true
		if kind != remaining.AtStand || p.Reaches(need) {
			places = append(places, at[p.Name])
		}
	}
	if any {
		out = append(out, places)
	}
	return out
}

func spreadOf(t *remaining.Task, out *plan.Task, g *Learned, whole float64) plan.Spread {
	s := plan.Spread{}
	_, s.Sigma = g.Wait(t.Kind, t.By, t.Sigma)
	if !t.Waits() && !t.Alone() {
		s.Whole = whole
	}
	if t.Kind == remaining.Prove {
		s.Again, s.Redo = g.Fails, int((g.RedoBench+g.RedoTest)/time.Minute)
	}
	if len(out.Needs) == 0 && out.Work == 0 {
		s.Sigma = 0 // a day that somebody said
	}
	return s
}

// pin puts spots to the tasks that they are of.
func (l *Laid) pin(spots []Spot, put func(t *plan.Task, s *plan.Spot)) {
	at := map[Key]int{}
	for i, k := range l.Keys {
		at[k] = i
	}
	for _, s := range spots {
		i, known := at[s.Key]
		if !known {
			continue
		}
		out := &plan.Spot{Start: plan.Anytime}
		for _, name := range []string{s.Person, s.Place} {
			if r, known := l.resources[name]; known && name != "" {
				out.On = append(out.On, r)
			}
		}
		if s.Start != nil {
			out.Start = l.minute(s.Start.UTC())
		}
		put(&l.Problem.Tasks[i], out)
	}
}

// minute is a time of the shop's clock as the planner counts it.
func (l *Laid) minute(t time.Time) plan.Minute {
	days := unit.DateOf(t).Time().Sub(l.first.Time()) / (24 * time.Hour)
	return int(days)*minutesOfDay + t.Hour()*60 + t.Minute()
}

// Time is a minute of the planner on the shop's clock.
func (l *Laid) Time(m plan.Minute) time.Time {
	return l.first.Time().Add(time.Duration(m) * time.Minute)
}

// Spots are the tasks of a plan as it is kept: with whom, where and when.
func (l *Laid) Spots(p *plan.Plan) (out []Spot) {
	for i, at := range p.Tasks {
		if at.Nowhere != "" {
			continue
		}
		start := l.Time(at.Start)
		s := Spot{Key: l.Keys[i], Start: &start}
		s.Person, s.Place = l.On(at)
		out = append(out, s)
	}
	return out
}

// On is whom and what place a task has hold of.
func (l *Laid) On(at plan.Placed) (person, place string) {
	for _, r := range at.On {
		if r < l.people {
			person = l.Problem.Resources[r].Name
		} else {
			place = l.Problem.Resources[r].Name
		}
	}
	return person, place
}
