package figures

// Crossed are the causes of jobs that are parted a way: a row for each group, a column for each cause.
type Crossed struct {
	Rows   []*Group // the largest first, months in their order
	Causes []*Group // the most frequent first
	Cells  [][]Cell // by row and cause
	Most   int      // jobs in the fullest cell
	Left   int      // groups and causes that there was no room for
}

// Cell is the jobs of one group with one cause.
type Cell []*Job

// Cross parts jobs by a way and by cause at once, each as far as there is room for. Of a job with several units that
// one counts which is of the group.
func Cross(jobs []*Job, by string, rows, causes int) *Crossed {
	c := &Crossed{Rows: Groups(jobs, by), Causes: Groups(jobs, ByCause)}
	c.Left = max(0, len(c.Rows)-rows) + max(0, len(c.Causes)-causes)
	if by == ByMonth {
		c.Rows = c.Rows[max(0, len(c.Rows)-rows):]
	}
	c.Rows, c.Causes = c.Rows[:min(len(c.Rows), rows)], c.Causes[:min(len(c.Causes), causes)]
	for _, g := range c.Rows {
		line := make([]Cell, len(c.Causes))
		for k, cause := range c.Causes {
			line[k] = With(g.Jobs, by, g.Key, cause.Key)
			c.Most = max(c.Most, len(line[k]))
		}
		c.Cells = append(c.Cells, line)
	}
	return c
}

// With are the jobs of a group of which a unit that belongs to the group failed by a cause.
func With(jobs []*Job, by, key, cause string) (out Cell) {
	for _, j := range jobs {
		for i := range j.Units {
			if u := &j.Units[i]; u.Cause == cause && keyOf(j, u, by) == key {
				out = append(out, j)
				break
			}
		}
	}
	return out
}
