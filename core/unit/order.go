package unit

import (
	"cmp"
	"slices"
	"time"
)

// Order puts what has no order of its own (everything but parts, features and
// what is numbered) into one that does not depend on how it was kept, so that a
// job reads and is written the same wherever it comes from. Moments are taken as they are kept:
// to the microsecond, in UTC.
func (j *Job) Order() {
	for _, t := range j.moments() {
		if !t.IsZero() {
			*t = t.UTC().Truncate(time.Microsecond)
		}
	}
	slices.SortFunc(j.Acknowledgements, func(a, b *Acknowledgement) int {
		return cmp.Or(a.At.Compare(b.At),
			cmp.Compare(a.Caution, b.Caution))
	})
	slices.SortFunc(
		j.Waivers,
		func(a, b *Waiver) int { return cmp.Or(a.At.Compare(b.At), cmp.Compare(a.Code, b.Code)) },
	)
	for _, u := range j.Units {
		slices.SortFunc(u.Marks, compareMarks)
		slices.SortFunc(u.Conclusions, func(a, b *Conclusion) int { return cmp.Compare(a.Round, b.Round) })
		slices.SortFunc(u.Causes, func(a, b *NamedCause) int { return cmp.Compare(a.Number, b.Number) })
		slices.SortFunc(u.Attempts, func(a, b *Attempt) int { return cmp.Compare(a.Number, b.Number) })
		slices.SortFunc(u.Limits, func(a, b *StepLimit) int { return cmp.Compare(a.Code, b.Code) })
		for _, a := range u.Attempts {
			slices.SortFunc(a.Points, func(a, b *Point) int { return cmp.Compare(a.Code, b.Code) })
		}
		for _, p := range u.Parts {
			slices.SortFunc(p.Marks, compareMarks)
			slices.SortFunc(p.Decisions, func(a, b *Decision) int { return cmp.Compare(a.Round, b.Round) })
			slices.SortFunc(p.Reworks, func(a, b *Rework) int { return cmp.Compare(a.Route, b.Route) })
			slices.SortFunc(p.Steps, func(a, b *Step) int { return cmp.Compare(a.Round, b.Round) })
			for _, f := range p.Features {
				slices.SortFunc(f.Readings, compareReadings)
			}
		}
	}
}

func compareMarks[T marked](x, y T) int {
	a, b := x.said(), y.said()
	return cmp.Or(cmp.Compare(a.Round, b.Round), cmp.Compare(a.Code, b.Code))
}

func compareReadings(a, b *Reading) int {
	return cmp.Or(cmp.Compare(a.Round, b.Round), cmp.Compare(a.Stage, b.Stage), a.At.Compare(b.At),
		cmp.Compare(a.Slot, b.Slot))
}

// moments are all moments that stand on a job.
func (j *Job) moments() []*time.Time {
	out := []*time.Time{&j.TimerUntil, &j.HandedOverAt, &j.WithdrawnAt}
	for _, a := range j.Acknowledgements {
		out = append(out, &a.At)
	}
	for _, p := range j.Waivers {
		out = append(out, &p.At)
	}
	for _, r := range j.Reopenings {
		out = append(out, &r.HandedOver, &r.At)
	}
	for _, f := range j.FollowUps {
		out = append(out, &f.AnsweredAt)
	}
	for _, w := range j.Worked {
		out = append(out, &w.At)
	}
	for _, u := range j.Units {
		for _, r := range u.Rounds {
			out = append(out, &r.OpenedAt)
		}
		for _, a := range u.Attempts {
			out = append(out, &a.At)
			for _, p := range a.Points {
				out = append(out, &p.HoldFrom, &p.HoldTo)
				for i := range p.Pours {
					out = append(out, &p.Pours[i].At)
				}
				for _, t := range p.Taken {
					out = append(out, &t.At)
				}
			}
		}
		for _, p := range u.Parts {
			for _, f := range p.Features {
				for _, r := range f.Readings {
					out = append(out, &r.At)
				}
			}
		}
	}
	return out
}
