package figurepages

import (
	"net/url"

	"corvek/core/figures"
)

// CrossTable is the causes of the groups, drawn as fields that are the darker the more jobs they hold.
type CrossTable struct {
	Causes []string
	Rows   []CrossRow
	Left   int // groups and causes that there is no room for
}

// CrossRow is a group.
type CrossRow struct {
	Name  string
	Cells []CrossCell
}

// CrossCell is its jobs of one cause.
type CrossCell struct {
	Jobs  int
	Shade int // of the fullest, in percent
	Words string
	URL   string
	On    bool
}

// So many groups and causes are crossed: a screen holds them.
const (
	crossRows   = 12
	crossCauses = 6
)

// cross lays the causes of the groups out; where they are parted by cause already, those of the families.
func (v *FiguresPage) cross(jobs []*figures.Job, name func(string, *figures.Group) string) {
	by := v.By
	if by == figures.ByCause {
		by = figures.ByFamily
	}
	c := figures.Cross(jobs, by, crossRows, crossCauses)
	if len(c.Rows) == 0 {
		return
	}
	v.Cross = &CrossTable{Left: c.Left}
	for _, cause := range c.Causes {
		v.Cross.Causes = append(v.Cross.Causes, name(figures.ByCause, cause))
	}
	for i, g := range c.Rows {
		row := CrossRow{Name: name(by, g)}
		for k, cause := range c.Causes {
			jobs := len(c.Cells[i][k])
			cell := CrossCell{Jobs: jobs, Words: row.Name + ", " + v.Cross.Causes[k],
				On: v.By == by && v.hasKey && v.hasCause && v.Key == g.Key && v.Cause == cause.Key}
			if jobs > 0 {
				cell.Shade = max(15, 100*jobs/c.Most)
				cell.URL = v.with("/figures", by, v.Measure.Code, &g.Key) + "&" +
					url.Values{"cause": {cause.Key}}.Encode() + "#jobs"
			}
			row.Cells = append(row.Cells, cell)
		}
		v.Cross.Rows = append(v.Cross.Rows, row)
	}
}
