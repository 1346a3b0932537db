package figurepages

import (
	"bytes"
	"encoding/csv"
	"fmt"
	"strconv"

	"corvek/core/figures"
	"corvek/core/list"
	"corvek/core/unit"
	"corvek/core/wording"

	"github.com/labstack/echo/v5"
	"github.com/xuri/excelize/v2"
)

// table is a sheet of figures: a line of heads, then values that are texts or numbers.
type table struct {
	name string
	rows [][]any
}

// tables are the figures by group, by job, and what was waited for.
func (s *Pages) tables(a asked, jobs []*figures.Job) []table {
	groups := table{"by " + a.By, [][]any{{a.By, "jobs"}}}
	for _, m := range figures.Measures {
		groups.rows[0] = append(groups.rows[0], m.Name+", "+m.Unit, "of jobs")
	}
	for _, g := range figures.Groups(jobs, a.By) {
		row := []any{s.name(a.By, g), len(g.Jobs)}
		for _, m := range figures.Measures {
			v := m.Of(g.Jobs)
			row = append(row, value(v), len(v.Jobs))
		}
		groups.rows = append(groups.rows, row)
	}
	each := table{"jobs", [][]any{{"job", "title", "customer", "received", "promised", "handed over"}}}
	for _, m := range figures.Measures {
		each.rows[0] = append(each.rows[0], m.Name+", "+m.Unit)
	}
	for _, j := range jobs {
		row := []any{j.Tag, j.Title, j.Customer, string(j.Received), string(j.Promised), string(j.HandedOver)}
		for _, m := range figures.Measures {
			row = append(row, value(m.Of([]*figures.Job{j})))
		}
		each.rows = append(each.rows, row)
	}
	waits := table{"waiting", [][]any{{"waited for", "days a job", "jobs that did"}}}
	for _, w := range figures.Waits(jobs) {
		waits.rows = append(
			waits.rows,
			[]any{wording.Choice(unit.ScopeJob, "waiting", w.For), rounded(w.Days), len(w.Jobs)},
		)
	}
	return []table{groups, each, waits}
}

// value is a figure, nothing where it is of no job.
func value(v figures.Value) any {
	if !v.Known() {
		return nil
	}
	return rounded(v.Value)
}

// rounded keeps what a spreadsheet shows to what is known.
func rounded(v float64) float64 {
	out, _ := strconv.ParseFloat(strconv.FormatFloat(v, 'f', 3, 64), 64)
	return out
}

// csv answers with the figures by group and by job, one table under the other.
func (s *Pages) csv(c *echo.Context) error {
	a, jobs, fault, err := s.read(c)
	if err != nil {
		return err
	}
	if fault != "" {
		return echo.NewHTTPError(400, fault)
	}
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	for k, t := range s.tables(a, jobs) {
		if k > 0 {
			if err := w.Write([]string{""}); err != nil {
				return err
			}
		}
		for _, row := range t.rows {
			cells := make([]string, len(row))
			for i, v := range row {
				cells[i] = text(v)
			}
			if err := w.Write(cells); err != nil {
				return err
			}
		}
	}
	w.Flush()
	c.Response().Header().Set("Content-Disposition", `attachment; filename="figures.csv"`)
	return c.Blob(200, "text/csv; charset=utf-8", b.Bytes())
}

// text writes a value for a table of texts; one that a spreadsheet would take for a formula is kept from it.
func text(v any) string {
	switch v := v.(type) {
	case nil:
		return ""
	case string:
		return list.Plain(v)
	}
	return fmt.Sprint(v)
}

// xlsx answers with the same tables as a spreadsheet (ISO/IEC 29500), each on its sheet.
func (s *Pages) xlsx(c *echo.Context) (err error) {
	a, jobs, fault, err := s.read(c)
	if err != nil {
		return err
	}
	if fault != "" {
		return echo.NewHTTPError(400, fault)
	}
	f := excelize.NewFile()
	defer f.Close()
	bold, err := f.NewStyle(&excelize.Style{Font: &excelize.Font{Bold: true}})
	if err != nil {
		return err
	}
	for k, t := range s.tables(a, jobs) {
		if err := sheet(f, k, t, bold); err != nil {
			return err
		}
	}
	var b bytes.Buffer
	if err := f.Write(&b); err != nil {
		return err
	}
	c.Response().Header().Set("Content-Disposition", `attachment; filename="figures.xlsx"`)
	return c.Blob(200, "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", b.Bytes())
}

// sheet writes one table; values stay numbers, and texts are never formulas.
func sheet(f *excelize.File, k int, t table, bold int) error {
	if k == 0 {
		if err := f.SetSheetName("Sheet1", t.name); err != nil {
			return err
		}
	} else if _, err := f.NewSheet(t.name); err != nil {
		return err
	}
	w, err := f.NewStreamWriter(t.name)
	if err != nil {
		return err
	}
	const first = 28 // letters wide
	if err := w.SetColWidth(1, 1, first); err != nil {
		return err
	}
	for i, row := range t.rows {
		cell, err := excelize.CoordinatesToCellName(1, i+1)
		if err != nil {
			return err
		}
		options := excelize.RowOpts{}
		if i == 0 {
			options.StyleID = bold
		}
		if err := w.SetRow(cell, row, options); err != nil {
			return err
		}
	}
	return w.Flush()
}
