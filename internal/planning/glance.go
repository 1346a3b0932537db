package planning

import (
	"context"
	"log/slog"
	"strconv"
	"sync"
	"time"

	"corvek/core/workshop"
)

// Glance is what the plan says of one job, as far as a board tells it.
type Glance struct {
	Next  string    // what is done next, or waited for
	Who   string    // with whom, "" for a wait
	At    time.Time // when it begins, on the clock of the shop
	Until time.Time // when it ends
	Wait  bool      // nobody of the shop does it
	Ends  time.Time // the job
	Never bool      // something of it cannot be done at all
	Late  bool      // it ends after the day that was promised
	Risk  bool      // its promise holds in fewer than AtRisk of 100
}

// AtRisk is how many of 100 runs a promise must hold in, so that nobody has to look after it.
const AtRisk = 80

// glances keeps what the last plan says of each job, and looks again in the background.
type glances struct {
	mu   sync.Mutex
	busy bool
	work sync.WaitGroup
	of   *Planned // the plan that they are of
	jobs map[string]Glance
}

// longestLook is after how long a look in the background is given up.
const longestLook = time.Minute

// Glances are what the plan says of the jobs, by tag: as of the last plan that was made, for a board waits for no
// plan. Where the shop is another one since, it is planned anew behind it, and the next look sees that. Nobody may
// change them.
func (s *Service) Glances() map[string]Glance {
	g := &s.glances
	g.mu.Lock()
	defer g.mu.Unlock()
	if !g.busy {
		g.busy = true
		g.work.Go(s.lookAgain)
	}
	return g.jobs
}

// Wait waits until what was begun in the background has ended.
func (s *Service) Wait() { s.glances.work.Wait() }

func (s *Service) lookAgain() {
	ctx, done := context.WithTimeout(context.Background(), longestLook)
	defer done()
	defer func() {
		if fault := recover(); fault != nil { // one job that cannot be worked out stops no board
			slog.Error("the board knows nothing new of the plan", "fault", fault)
		}
		s.glances.mu.Lock()
		s.glances.busy = false
		s.glances.mu.Unlock()
	}()
	p, err := s.Now(ctx)
	if err != nil || !s.glances.newer(p) { // what was known stays; the plan's own page says what is wrong
		return
	}
	if jobs, err := p.glances(); err == nil {
		s.glances.keep(p, jobs)
	}
}

func (g *glances) newer(p *Planned) bool {
	g.mu.Lock()
	defer g.mu.Unlock()
	return p != g.of
}

func (g *glances) keep(p *Planned, jobs map[string]Glance) {
	g.mu.Lock()
	defer g.mu.Unlock()
	g.of, g.jobs = p, jobs
}

// glances tells what each job does next, and whether its promise holds.
func (p *Planned) glances() (map[string]Glance, error) {
	out := map[string]Glance{}
	chances, err := p.chances()
	if err != nil {
		return nil, err
	}
	first := make([]int, len(p.Laid.Jobs)) // of each job, the number of its next task, and one
	for i, at := range p.Plan.Tasks {
		j := p.Laid.Problem.Tasks[i].Job
		if at.Nowhere == "" && (first[j] == 0 || p.Plan.Tasks[first[j]-1].Start > at.Start) {
			first[j] = i + 1
		}
	}
	for j := range p.Laid.Jobs {
		job := &p.Laid.Jobs[j]
		g := Glance{Never: p.Plan.Undone[j], Ends: p.Laid.Time(p.Plan.Ends[j])}
		if due := p.Laid.Problem.Jobs[j]; due.HasDue && !g.Never {
			g.Late = p.Plan.Late[j] > 0
			g.Risk = !g.Late && chances.Holds(j, due.Due)*100 < AtRisk
		}
		if first[j] > 0 {
			p.next(&g, job, first[j]-1)
		}
		out[job.Tag] = g
	}
	return out, nil
}

// next tells what a job does next.
func (p *Planned) next(g *Glance, job *workshop.Job, task int) {
	at := p.Plan.Tasks[task]
	t := p.Laid.Tasks[task]
	g.Next, g.Wait = t.Name, t.Waits() || t.Alone()
	g.At, g.Until = p.Laid.Time(at.Start), p.Laid.Time(at.End)
	g.Who, _ = p.Laid.On(at)
	if len(job.Units) > 1 {
		g.Next = "unit " + strconv.Itoa(p.Laid.Keys[task].Unit) + ": " + g.Next
	}
}
