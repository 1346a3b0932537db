package figures

import "slices"

// Crossed are the causes of jobs that are parted a way: a row for each group, a column for each cause.
type Crossed struct {
	Rows   []string // keys of the groups, the largest first, months in their order
	Causes []string // codes, the most frequent first; "" for those that are not known
	Cells  [][]Cell // by row and cause
	Most   int      // jobs in the fullest cell
	Left   int      // groups and causes that there was no room for
}

// Cell is the jobs of one group with one cause.
type Cell []*Job

// Cross parts jobs by a way and by cause at once, each as far as there is room for. Of a job with several units that
// one counts which is of the group.
func Cross(jobs []*Job, by string, rows, causes int) *Crossed {
	c := &Crossed{}
	groups, of := Groups(jobs, by), Groups(jobs, ByCause)
	if by == ByMonth {
		groups = groups[max(0, len(groups)-rows):]
	}
	c.Left = max(0, len(groups)-rows) + max(0, len(of)-causes)
	for _, g := range of[:min(len(of), causes)] {
		c.Causes = append(c.Causes, g.Key)
	}
	for _, g := range groups[:min(len(groups), rows)] {
		c.Rows = append(c.Rows, g.Key)
		line := make([]Cell, len(c.Causes))
		for k, cause := range c.Causes {
			line[k] = With(g.Jobs, by, g.Key, cause)
			c.Most = max(c.Most, len(line[k]))
		}
		c.Cells = append(c.Cells, line)
	}
	return c
}

// With are the jobs of a group of which a unit that belongs to the group failed by a cause.
func With(jobs []*Job, by, key, cause string) (out Cell) {
	for _, j := range jobs {
		if slices.ContainsFunc(j.Units, func(u Unit) bool {
			one := *j
			one.Units = []Unit{u}
			return u.Cause == cause && slices.Contains(keys(&one, by), key)
		}) {
			out = append(out, j)
		}
	}
	return out
}
