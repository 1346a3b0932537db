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
	Jobs, Tests int                            // that it is of; none: it is guidance as it ships
	waits       map[remaining.Kind][]wait      // that are over
	kinds       map[remaining.Kind]plan.Spread // of all waits of a kind

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

// Of is by what the hours of a model are to be multiplied, how far a job of it is off as a whole, and of how many
// jobs of the model that is.
func (l *Learned) Of(model string) (factor, whole float64, jobs int) {
	s, known := l.models[model]
	if !known {
		s = l.shop
	}
	return math.Exp(s.Bias), s.Sigma, l.of[model]
}
