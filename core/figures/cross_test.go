package figures_test

import (
	"testing"

	"corvek/core/figures"

	"github.com/stretchr/testify/assert"
)

// Four jobs by hand. The one with two units counts in each family by that family's own cause.
func TestCausesCrosswise(t *testing.T) {
	unit := func(family, cause string) figures.Unit { return figures.Unit{Family: family, Cause: cause} }
	jobs := []*figures.Job{
		{Tag: "A", Customer: "x", Units: []figures.Unit{unit("gear", "dirt")}},
		{Tag: "B", Customer: "x", Units: []figures.Unit{unit("gear", "dirt"), unit("vane", "water")}},
		{Tag: "C", Customer: "y", Units: []figures.Unit{unit("vane", "")}},
		{Tag: "D", Customer: "y", Units: []figures.Unit{unit("gear", "water")}},
	}
	c := figures.Cross(jobs, figures.ByFamily, 12, 8)
	keys := func(groups []*figures.Group) (out []string) {
		for _, g := range groups {
			out = append(out, g.Key)
		}
		return out
	}
	assert.Equal(t, []string{"gear", "vane"}, keys(c.Rows))
	assert.Equal(t, []string{"dirt", "water", ""}, keys(c.Causes))
	counts := func(c *figures.Crossed) (out [][]int) {
		for _, line := range c.Cells {
			row := []int{}
			for _, cell := range line {
				row = append(row, len(cell))
			}
			out = append(out, row)
		}
		return out
	}
	assert.Equal(t, [][]int{{2, 1, 0}, {0, 1, 1}}, counts(c))
	assert.Equal(t, 2, c.Most)
	assert.Zero(t, c.Left)
	assert.Equal(t, []string{"A", "B"}, tags(c.Cells[0][0]))

	few := figures.Cross(jobs, figures.ByFamily, 1, 1)
	assert.Equal(t, [][]int{{2}}, counts(few))
	assert.Equal(t, 3, few.Left, "what there was no room for is told")
	assert.Empty(t, figures.Cross(nil, figures.ByMonth, 12, 8).Rows)
}
