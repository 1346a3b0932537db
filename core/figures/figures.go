// Package figures counts what the jobs of a shop came to: how long they took and waited, how often the first test
// proved a unit, what came back, whether promises held. What is not known of a job is counted nowhere, and told.
package figures

import (
	"cmp"
	"maps"
	"math"
	"slices"
	"sort"

	"corvek/core/unit"
)

// Job is what is counted of one that was handed over.
type Job struct {
	Tag, Title, Customer string
	Site                 string    // of several shops, where it was done
	Received, Promised   unit.Date // Promised "" where no day was
	HandedOver           unit.Date
	Moved                bool // the promised day was moved while the job was here
	Warranty             bool
	Reopened             bool // it came back, or was opened again for what touches the unit
	Estimated, Worked    float64
	Units                []Unit
	Waits                map[string]float64 // days, by what was waited for
}

// ComesBackWithin is how many days after a hand-over the same unit counts as having come back.
const ComesBackWithin = 365

// Unit is what is counted of one unit of a job.
type Unit struct {
	Family, Model, Cause string
	Known                bool // what the hand-over came to was kept
	Proved               bool
	Attempts, Rounds     int
}

// Measure is one figure of a group of jobs.
type Measure struct {
	Code, Name, Unit string // Unit: days, %, ratio
	More             bool   // more is better
	of               func(j *Job) (value float64, known bool)
	middle           bool // the median stands for the group, else the mean
	sum              bool // the sum does
}

// The measures, in the order in which they are shown.
var Measures = []Measure{
	{Code: "jobs", Name: "Jobs", Unit: "jobs", sum: true, of: func(*Job) (float64, bool) { return 1, true }},
	{Code: "turnaround", Name: "Turnaround", Unit: "days", middle: true, of: turnaround},
	{Code: "promises", Name: "Promises kept", Unit: "%", More: true, of: kept},
	{Code: "first", Name: "Proved at the first test", Unit: "%", More: true, of: firstTest},
	{Code: "rework", Name: "Opened once more before it went out", Unit: "%", of: again},
	{Code: "back", Name: "Came back", Unit: "%", of: func(j *Job) (float64, bool) { return share(j.Reopened), true }},
	{
		Code: "warranty",
		Name: "Under warranty",
		Unit: "%",
		of:   func(j *Job) (float64, bool) { return share(j.Warranty), true },
	},
	{Code: "hours", Name: "Hours worked to hours offered", Unit: "ratio", middle: true, of: hours},
}

func share(yes bool) float64 {
	if yes {
		return 100
	}
	return 0
}

func turnaround(j *Job) (float64, bool) {
	return days(j.Received, j.HandedOver), j.Received != "" && j.HandedOver != ""
}

func days(from, to unit.Date) float64 { return math.Round(to.Time().Sub(from.Time()).Hours() / 24) }

// kept holds a job to the day that was promised last; one whose day was moved kept no promise.
func kept(j *Job) (float64, bool) {
	return share(!j.Moved && j.HandedOver <= j.Promised), j.Promised != ""
}

// firstTest is of the units that were tested: all must have been proved, at their first try.
func firstTest(j *Job) (float64, bool) {
	tested, first := 0, true
	for _, u := range j.Units {
		if u.Known && u.Attempts > 0 {
			tested, first = tested+1, first && u.Proved && u.Attempts == 1
		}
	}
	return share(first), tested > 0
}

func again(j *Job) (float64, bool) {
	known, more := false, false
	for _, u := range j.Units {
		known, more = known || u.Known, more || u.Rounds > 1
	}
	return share(more), known
}

func hours(j *Job) (float64, bool) {
	if j.Estimated <= 0 || j.Worked <= 0 {
		return 0, false
	}
	return j.Worked / j.Estimated, true
}

// Value is a measure of a group: what it comes to, of how many jobs, and which those are.
type Value struct {
	Value float64
	Jobs  []*Job // that it is of, the worst first
}

// Known reports that it is of any job at all.
func (v *Value) Known() bool { return len(v.Jobs) > 0 }

// Of works a measure out for some jobs.
func (m *Measure) Of(jobs []*Job) Value {
	type one struct {
		job   *Job
		value float64
	}
	var known []one
	for _, j := range jobs {
		if v, ok := m.of(j); ok {
			known = append(known, one{j, v})
		}
	}
	worse := func(a, b one) int {
		by := cmp.Compare(b.value, a.value)
		if m.More {
			by = -by
		}
		return cmp.Or(by, cmp.Compare(a.job.Tag, b.job.Tag))
	}
	slices.SortFunc(known, worse)
	var v Value
	values := make([]float64, len(known))
	for i, k := range known {
		v.Jobs = append(v.Jobs, k.job)
		values[i] = k.value
	}
	v.Value = mean(values)
	switch {
	case m.middle:
		v.Value = median(values)
	case m.sum:
		v.Value = total(values)
	}
	return v
}

func total(values []float64) (sum float64) {
	for _, v := range values {
		sum += v
	}
	return sum
}

func mean(values []float64) float64 {
	if len(values) == 0 {
		return 0
	}
	return total(values) / float64(len(values))
}

func median(values []float64) float64 {
	if len(values) == 0 {
		return 0
	}
	s := slices.Clone(values)
	sort.Float64s(s)
	if n := len(s); n%2 == 0 {
		return (s[n/2-1] + s[n/2]) / 2
	}
	return s[len(s)/2]
}

// The ways to group jobs.
const (
	ByMonth    = "month"
	ByFamily   = "family"
	ByModel    = "model"
	ByCustomer = "customer"
	ByCause    = "cause"
	BySite     = "shop" // of several, where it was done
)

// Ways are they, the usual one first.
var Ways = []string{ByMonth, ByFamily, ByModel, ByCustomer, ByCause, BySite}

// keys are the groups that a job is in; a job of two families is in both.
func keys(j *Job, by string) []string {
	if by == ByMonth || by == ByCustomer || by == BySite {
		return []string{keyOf(j, nil, by)}
	}
	seen := map[string]bool{}
	for i := range j.Units {
		seen[keyOf(j, &j.Units[i], by)] = true
	}
	return slices.Sorted(maps.Keys(seen))
}

// keyOf is the group that one unit of a job is in; by some ways that is the job's.
func keyOf(j *Job, u *Unit, by string) string {
	switch by {
	case ByMonth:
		return string(j.HandedOver[:min(len(j.HandedOver), len("2031-05"))])
	case ByCustomer:
		return j.Customer
	case BySite:
		return j.Site
	}
	return map[string]string{ByFamily: u.Family, ByModel: u.Model, ByCause: u.Cause}[by]
}

// Group is the jobs of one key.
type Group struct {
	Key  string // "" for those of which it is not known
	Jobs []*Job
}

// Groups parts jobs; months stand in their order, else the largest group comes first.
func Groups(jobs []*Job, by string) (out []*Group) {
	at := map[string]*Group{}
	for _, j := range jobs {
		for _, key := range keys(j, by) {
			if at[key] == nil {
				at[key] = &Group{Key: key}
				out = append(out, at[key])
			}
			at[key].Jobs = append(at[key].Jobs, j)
		}
	}
	slices.SortFunc(out, func(a, b *Group) int {
		if by == ByMonth {
			return cmp.Compare(a.Key, b.Key)
		}
		return cmp.Or(len(b.Jobs)-len(a.Jobs), cmp.Compare(a.Key, b.Key))
	})
	return out
}

// Wait is how long jobs waited for one thing, on the mean of all.
type Wait struct {
	For  string
	Days float64
	Jobs []*Job // that did, the longest first
}

// Waits are what jobs waited for, the longest first.
func Waits(jobs []*Job) (out []Wait) {
	sums := map[string]*Wait{}
	for _, j := range jobs {
		for what, d := range j.Waits {
			if d <= 0 {
				continue
			}
			if sums[what] == nil {
				sums[what] = &Wait{For: what}
			}
			sums[what].Days += d / float64(len(jobs))
			sums[what].Jobs = append(sums[what].Jobs, j)
		}
	}
	for _, w := range sums {
		slices.SortFunc(w.Jobs, func(a, b *Job) int {
			return cmp.Or(cmp.Compare(b.Waits[w.For], a.Waits[w.For]), cmp.Compare(a.Tag, b.Tag))
		})
		out = append(out, *w)
	}
	slices.SortFunc(
		out,
		func(a, b Wait) int { return cmp.Or(cmp.Compare(b.Days, a.Days), cmp.Compare(a.For, b.For)) },
	)
	return out
}
