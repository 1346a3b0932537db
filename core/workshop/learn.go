package workshop

import (
	"math"

	"corvek/core/plan"
	"corvek/core/remaining"
)

// Past is one of the shop's own jobs: the hours that it took, and those that guidance gives it.
type Past struct {
	Model            string // maker and model in small letters
	Worked, Reckoned float64
}

// Learned is guidance as the shop's own jobs have moved it.
type Learned struct {
	*remaining.Guidance
	Jobs, Tests int                       // that it is of; none: it is guidance as it ships
	waits       map[remaining.Kind][]Wait // that are over

	shop   plan.Spread
	models map[string]plan.Spread
	of     map[string]int
}

// Of a whole job, how far its hours are off together as a rule, beside how far each of its tasks is: a unit that is
// stubborn is so in all of them.
const wholeJob = 0.2

// Learn moves guidance by the shop's own jobs: how often a first test fails, how many hours a job takes against what
// guidance gives it, and how far jobs are apart in that. A model is held against the shop as the shop is against
// guidance, so that few cases say little (plan.Learn).
func Learn(g *remaining.Guidance, past []Past, tests, failed int) *Learned {
	moved := *g
	moved.Fails = plan.Learn(plan.Spread{Again: g.Fails}, nil, tests, failed).Again
	l := &Learned{
		Guidance: &moved,
		Jobs:     len(past),
		Tests:    tests,
		models:   map[string]plan.Spread{},
		of:       map[string]int{},
	}
	var all []float64
	by := map[string][]float64{}
	for _, p := range past {
		r := p.Worked / p.Reckoned
		all = append(all, r)
		if p.Model != "" {
			by[p.Model] = append(by[p.Model], r)
		}
	}
	l.shop = plan.Learn(plan.Spread{Sigma: wholeJob}, all, 0, 0)
	for model, ratios := range by {
		l.models[model], l.of[model] = plan.Learn(l.shop, ratios, 0, 0), len(ratios)
	}
	return l
}

// Wait is one wait for others that is over.
type Wait struct {
	Kind remaining.Kind
	By   string  // who was waited for, "" for anybody
	Days float64 // that it took
	Said float64 // that were said, or that guidance has
}

// leastWait is what a wait that was over on the same day is taken for, in days: half of one.
const leastWait = 0.5

// LearnWaits moves guidance by how long the shop waited for others. Few cases say little.
func (l *Learned) LearnWaits(over []Wait) {
	l.waits = map[remaining.Kind][]Wait{}
	for _, w := range over {
		if w.Said > 0 {
			l.waits[w.Kind] = append(l.waits[w.Kind], w)
		}
	}
}

// Waited is of how many waits of a kind it is, for one who is waited for, or for all with "".
func (l *Learned) Waited(kind remaining.Kind, by string) int { return len(l.ratios(kind, by)) }

// ratios are how long waits took against what was said.
func (l *Learned) ratios(kind remaining.Kind, by string) (out []float64) {
	for _, w := range l.waits[kind] {
		if by == "" || w.By == by {
			out = append(out, max(w.Days, leastWait)/w.Said)
		}
	}
	return out
}

// Wait is how long a wait takes in the shop's own past against what is said or guidance has, and how far such waits
// are spread. One who is waited for is held against all of his kind as those are against guidance; said is the spread
// that he names himself, 0 for none.
func (l *Learned) Wait(kind remaining.Kind, by string, said float64) (factor, sigma float64) {
	s := plan.Learn(plan.Spread{Sigma: l.Spread[kind]}, l.ratios(kind, ""), 0, 0)
	if said > 0 {
		s.Sigma = said
	}
	if by != "" {
		s = plan.Learn(s, l.ratios(kind, by), 0, 0)
	}
	return math.Exp(s.Bias), s.Sigma
}

// Of is by what the hours of a model are to be multiplied, how far a job of it is off as a whole, and of how many
// jobs of the model that is.
func (l *Learned) Of(model string) (factor, whole float64, jobs int) {
	s, known := l.models[model]
	if !known {
		s = l.shop
	}
	return math.Exp(s.Bias), s.Sigma, l.of[model]
}
