package plan

import (
	"errors"
	"math"
	"math/rand/v2"
	"runtime"
	"slices"
	"sync"
)

// Spread is how far a task may turn out other than planned.
type Spread struct {
	// Sigma is the spread of the logarithm of how long it takes against what is planned, which is taken as the
	// middle: 0.3 says that it takes between 0.74 and 1.35 of it in two of three cases.
	Sigma float64
	// Bias is the middle of that logarithm, 0 where what is planned is as often too much as too little.
	Bias float64
	// Whole is how far all tasks of its job are off together, beside Sigma: the spread of a logarithm too.
	Whole float64
	// Again is the chance that it must be done again, as a test that fails, and Redo what is done before that.
	Again float64
	Redo  Minute
}

// mostAgain is how often at most a task is done again.
const mostAgain = 3

// draw is how long a task takes that is planned to take so long, in a job that is off as a whole by so many times
// Whole.
func (s Spread) draw(r *rand.Rand, planned Minute, whole float64) Minute {
	s.Bias += s.Whole * whole
	work := s.once(r, planned)
	for n := 0; n < mostAgain && s.Again > 0 && r.Float64() < s.Again; n++ {
		work += s.once(r, s.Redo) + s.once(r, planned)
	}
	return work
}

func (s Spread) once(r *rand.Rand, planned Minute) Minute {
	if s.Sigma == 0 && s.Bias == 0 {
		return planned
	}
	return int(math.Round(float64(planned) * math.Exp(s.Bias+s.Sigma*r.NormFloat64())))
}

// wholes are, by job, how many times its Whole each is off in one run.
func (y *drawer) wholes(spreads []Spread, r *rand.Rand) []float64 {
	out := make([]float64, len(y.Jobs))
	if slices.ContainsFunc(spreads, func(s Spread) bool { return s.Whole > 0 }) {
		for j := range out {
			out[j] = r.NormFloat64()
		}
	}
	return out
}

// Chances are when the jobs of a plan end, by many shops in which it is worked off.
type Chances struct {
	ends [][]Minute // by job, in order
}

// Bounds of a simulation.
const mostRuns = 10_000

// Simulate works a plan off so often, each time with other times and failures by the spreads (one a task): everybody
// takes his tasks in the order of the plan, each as soon as what it waits for is there. Release of a task is when its
// part is there; what is late itself is a task of its own without needs.
func Simulate(p *Problem, plan *Plan, spreads []Spread, runs int, seed uint64) (*Chances, error) {
	if err := p.check(); err != nil {
		return nil, err
	}
	if len(spreads) != len(p.Tasks) || len(plan.Tasks) != len(p.Tasks) || runs < 1 || runs > mostRuns {
		return nil, errors.New("plan, spreads and problem are not of the same tasks, or runs are too many")
	}
	s := ready(p)
	worked := s.ofPlan(plan)
	all := make([][]Minute, runs)
	next := make(chan int)
	var hands sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		hands.Go(func() {
			y := s.drawer(worked)
			for run := range next {
				all[run] = y.run(spreads, rand.New(rand.NewPCG(seed, uint64(run))))
			}
		})
	}
	for run := range runs {
		next <- run
	}
	close(next)
	hands.Wait()
	out := &Chances{ends: make([][]Minute, len(p.Jobs))}
	for j := range p.Jobs {
		for _, ends := range all {
			out.ends[j] = append(out.ends[j], ends[j])
		}
		slices.Sort(out.ends[j])
	}
	return out, nil
}

// By is the minute by which a job is done in so large a share of the shops.
func (c *Chances) By(job int, share float64) Minute {
	ends := c.ends[job]
	k := int(math.Ceil(share*float64(len(ends)))) - 1
	return ends[max(0, min(k, len(ends)-1))]
}

// Holds is the share of the shops in which a job is done by a minute.
func (c *Chances) Holds(job int, by Minute) float64 {
	n, _ := slices.BinarySearch(c.ends[job], by+1)
	return float64(n) / float64(len(c.ends[job]))
}

// ofPlan is a plan as a layout: its tasks in the order in which they begin, with the hands that it gives them.
func (s *shop) ofPlan(plan *Plan) *layout {
	l := s.newLayout()
	for _, i := range s.order {
		l.start[i], l.end[i] = plan.Tasks[i].Start, plan.Tasks[i].End
		l.mode[i] = max(0, modeOn(s.modes[i], plan.Tasks[i].On))
	}
	s.byStart(l)
	return l
}

// byStart puts the list of a layout in the order in which its tasks begin; of those that begin together, what waits
// for another comes after it.
func (s *shop) byStart(l *layout) {
	rank := make([]int, s.n)
	for k, i := range s.order {
		rank[i] = k
	}
	slices.SortFunc(l.list, func(a, b int32) int {
		if l.start[a] != l.start[b] {
			return l.start[a] - l.start[b]
		}
		if l.end[a] != l.end[b] && (l.start[a] == l.end[a] || l.start[b] == l.end[b]) {
			return l.end[a] - l.end[b]
		}
		return rank[a] - rank[b]
	})
}

// drawer works a plan off with drawn times.
type drawer struct {
	*layer
	l    *layout
	work []Minute
}

func (s *shop) drawer(plan *layout) *drawer {
	y := &drawer{layer: s.layer(), l: s.newLayout(), work: make([]Minute, s.n)}
	y.l.take(plan)
	return y
}

// run gives the ends of the jobs.
func (y *drawer) run(spreads []Spread, r *rand.Rand) []Minute {
	y.begin(y.l)
	whole := y.wholes(spreads, r)
	for _, i := range y.running {
		y.l.end[i] = y.endOf(i, 0, y.Now, spreads[i].draw(r, y.Tasks[i].Work, whole[y.Tasks[i].Job]))
		for _, o := range y.modes[i][0].on {
			y.until[o] = max(y.until[o], y.l.end[i])
		}
	}
	for _, i := range y.l.list {
		t := y.base(y.l, i)
		m := &y.modes[i][y.l.mode[i]]
		for _, o := range m.on {
			t = max(t, y.until[o])
		}
		y.l.end[i] = y.endOf(i, y.l.mode[i], t, spreads[i].draw(r, y.Tasks[i].Work, whole[y.Tasks[i].Job]))
		for _, o := range m.on {
			y.until[o] = y.l.end[i]
		}
	}
	out := make([]Minute, len(y.Jobs))
	for j := range y.Jobs {
		out[j] = y.lastOf(y.l, j)
	}
	return out
}

// endOf is when a task ends that takes so long; what turns out too long for any day is gone on with on the next.
func (y *drawer) endOf(i, mode int32, from, work Minute) Minute {
	cal := y.modes[i][mode].cal
	if _, end := cal.place(from, work, y.cut[i]); end < never {
		return end
	}
	_, end := cal.place(from, work, true)
	return end
}
