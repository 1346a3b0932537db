package planning

import (
	"slices"

	"corvek/core/plan"
	"corvek/core/unit"
	"corvek/core/workshop"
)

// Promise is when a job is done, by how far hours and waits are off as a rule and how often a first test fails.
type Promise struct {
	By    []HoldsBy
	Holds float64 // in what share the day that was promised holds
	Due   bool    // one was promised
}

// HoldsBy is the day by which the job is done in so many of 100.
type HoldsBy struct {
	Of  int
	Day unit.Date
}

// How promises are worked out: the plan is worked off so many times, and the days are told that hold in so many of
// 100.
const (
	promiseRuns = 1000
	promiseSeed = 1
)

// promiseOf are the shares of 100 for which a day is told.
var promiseOf = []int{50, 80, 95}

// Job is the number of a job in the plan, −1 where it is not in it.
func (p *Planned) Job(tag string) int {
	return slices.IndexFunc(p.Laid.Jobs, func(j workshop.Job) bool { return j.Tag == tag })
}

// Promise is when a job of the plan is done, by chance; nil where something of it cannot be done at all. The plan is
// worked off once for all its jobs.
func (p *Planned) Promise(job int) (*Promise, error) {
	if p.Plan.Undone[job] {
		return nil, nil
	}
	chances, err := p.chances()
	if err != nil {
		return nil, err
	}
	out := &Promise{}
	for _, of := range promiseOf {
		out.By = append(out.By, HoldsBy{of, p.day(chances.By(job, float64(of)/100))})
	}
	if j := p.Laid.Problem.Jobs[job]; j.HasDue {
		out.Due, out.Holds = true, chances.Holds(job, j.Due)
	}
	return out, nil
}

func (p *Planned) simulate() (*plan.Chances, error) {
	return plan.Simulate(p.Laid.Problem, p.Plan, p.Laid.Spreads, promiseRuns, promiseSeed)
}
