package planning

import (
	"slices"

	"corvek/core/plan"
	"corvek/core/unit"
)

// Firm is a day that may be promised: it still holds in so large a share of the shops once it is promised, for what
// is promised later is pressed less, and others are then put before it.
type Firm struct {
	Day   unit.Date
	Holds float64
}

// FirmShare is in what share of the shops a day must hold that is offered as a promise.
const FirmShare = 0.8

// mostTries are days that are tried.
const mostTries = 8

// Firm finds the first day of a job that holds in FirmShare of the shops once it is promised: each day is promised to
// the planner, the shop planned anew and worked off. ok is false where none of the days that were tried holds so
// often, or the job cannot be done at all; the last that was tried is given.
func (p *Planned) Firm(job int) (best Firm, ok bool, err error) {
	if p.Plan.Undone[job] {
		return best, false, nil
	}
	chances, err := p.chances()
	if err != nil {
		return best, false, err
	}
	day := p.day(chances.By(job, FirmShare))
	for range mostTries {
		tried := *p.Laid.Problem
		tried.Jobs = slices.Clone(tried.Jobs)
		j := &tried.Jobs[job]
		j.HasDue, j.Due = true, p.Laid.DueOn(day)
		j.Safe = p.Laid.SafeOf(job, j.Due)
		with, err := plan.Make(&tried, plan.Options{Effort: p.effort})
		if err != nil {
			return best, false, err
		}
		if chances, err = plan.Simulate(&tried, with, p.Laid.Spreads, promiseRuns, promiseSeed); err != nil {
			return best, false, err
		}
		best = Firm{day, chances.Holds(job, j.Due)}
		if best.Holds >= FirmShare {
			return best, true, nil
		}
		day = max(day.Add(1), p.day(chances.By(job, FirmShare)))
	}
	return best, false, nil
}

// day is the day of the shop's clock in which a minute of the plan lies.
func (p *Planned) day(m plan.Minute) unit.Date { return unit.DateOf(p.Laid.Time(m)) }
