package unit

import (
	"maps"
	"slices"
)

// Clone gives a job that shares nothing with j, so that it can be changed while
// others still read j.
func (j *Job) Clone() *Job {
	c := *j
	c.Symptoms = slices.Clone(j.Symptoms)
	c.Acknowledgements = each(j.Acknowledgements, nil)
	c.Waivers = each(j.Waivers, nil)
	c.Reopenings = each(j.Reopenings, nil)
	c.FollowUps = each(j.FollowUps, nil)
	c.Worked = each(j.Worked, func(w *Worked) { w.Whence = maps.Clone(w.Whence) })
	c.Pictures = each(j.Pictures, func(p *Picture) { p.Marks = each(p.Marks, nil) })
	c.Units = each(j.Units, (*Unit).unshare)
	return &c
}

// unshare gives a copied unit lists of its own.
func (u *Unit) unshare() {
	u.Gauge, u.Identity, u.Flushes = maps.Clone(u.Gauge), maps.Clone(u.Identity), maps.Clone(u.Flushes)
	u.More, u.Filled = maps.Clone(u.More), maps.Clone(u.Filled)
	u.Accounts = each(u.Accounts, nil)
	u.Rounds = each(u.Rounds, nil)
	u.Loose = each(u.Loose, nil)
	u.Marks = each(u.Marks, nil)
	u.Conclusions = each(u.Conclusions, nil)
	u.Causes = each(u.Causes, nil)
	u.Kit = each(u.Kit, nil)
	u.Limits = each(u.Limits, nil)
	u.Attempts = each(u.Attempts, func(a *Attempt) {
		a.Points = each(a.Points, func(p *Point) {
			p.Figures, p.Taken, p.Pours = maps.Clone(p.Figures), maps.Clone(p.Taken), slices.Clone(p.Pours)
			for name, t := range p.Taken {
				own := *t
				p.Taken[name] = &own
			}
		})
	})
	u.Grounds = each(u.Grounds, func(g *Ground) { g.Stood = maps.Clone(g.Stood) })
	u.Parts = each(u.Parts, func(p *Part) {
		p.Features = each(p.Features, func(f *Feature) { f.Readings = each(f.Readings, nil) })
		p.Marks = each(p.Marks, nil)
		p.Decisions = each(p.Decisions, nil)
		p.Reworks = each(p.Reworks, nil)
		p.Steps = each(p.Steps, nil)
	})
}

// each copies every row, and with more what hangs off it.
func each[T any](rows []*T, more func(*T)) []*T {
	if rows == nil {
		return nil
	}
	out := make([]*T, len(rows))
	for i, r := range rows {
		c := *r
		if more != nil {
			more(&c)
		}
		out[i] = &c
	}
	return out
}
