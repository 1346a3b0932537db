package jobpages

import (
	"fmt"
	"strconv"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/unit"

	"github.com/labstack/echo/v5"
)

// ColumnsPage is one sheet for many parts: what is asked of each stands in columns, typed downward and pasted from a
// spreadsheet.
type ColumnsPage struct {
	JobPage
	Tabs  Tabs
	Heads []string
	Rows  []ColumnRow
	More  string // the next parts, where the sheet is longer
	Back  string
}

// ColumnRow is a part, or one feature of it.
type ColumnRow struct {
	ID, Name, URL string
	Says          string // what its readings say
	Cells         []ColumnCell
	Marks         *MarksView
}

// ColumnCell is one cell: a field that is typed, a list to choose from, or nothing.
type ColumnCell struct {
	Entry *Entry
	List  *Choice
}

// The faces of the sheet.
const (
	columnsReadings = ""
	columnsLimits   = "limits"
	columnsParts    = "parts"
	columnsMarks    = "marks"
	columnsSprings  = "springs"
)

// mostColumnRows is how many rows stand on one page; mostReadings how many places of one feature.
const (
	mostColumnRows = 60
	mostReadings   = 12
)

func (s *Pages) columns(c *echo.Context) error {
	l, err := s.look(c, "measure")
	if err != nil {
		return err
	}
	p := ColumnsPage{JobPage: l.page(), Back: l.link("measure", l.part.Code, "")}
	tab := func(face, name string) Tab {
		return Tab{Name: name, URL: l.columnsURL(face), On: l.face == face}
	}
	p.Tabs = Tabs{tab(columnsReadings, "Readings"), tab(columnsLimits, "As new and limits"),
		tab(columnsParts, "Counts and facings"), tab(columnsMarks, "Marks"), tab(columnsSprings, "Springs, plates")}
	var rows []ColumnRow
	switch l.face {
	case columnsLimits:
		p.Heads, rows = l.limitColumns()
	case columnsParts:
		p.Heads, rows = l.partColumns()
	case columnsMarks:
		rows = l.markColumns()
	case columnsSprings:
		p.Heads, rows = l.springColumns()
	default:
		p.Heads, rows = l.readingColumns()
	}
	from, err := strconv.Atoi(l.query.Get("from"))
	if err != nil || from < 0 || from > len(rows) {
		from = 0
	}
	to := min(len(rows), from+mostColumnRows)
	if to < len(rows) {
		p.More = withQuery(l.columnsURL(l.face), "from="+strconv.Itoa(to))
	}
	p.Rows = rows[from:to]
	return s.renderBeside(c, "columns", "In columns", l, p)
}

// columnsURL is the address of a face of the sheet, coming back to the part that it was left from.
func (l *look) columnsURL(face string) string {
	u := withQuery(l.page().Act("columns"), "part="+l.part.Code)
	if face == "" {
		return u
	}
	return withQuery(u, "face="+face)
}

// cellsOf puts entries into the columns of a row.
func cellsOf(entries ...Entry) (out []ColumnCell) {
	for i := range entries {
		out = append(out, ColumnCell{Entry: &entries[i]})
	}
	return out
}

func (l *look) featureRow(f *bench.Feature, stage string) ColumnRow {
	row := ColumnRow{ID: f.Part.Code + "-" + f.Code, Name: f.Part.Name + ", " + f.Def.Name,
		URL: l.link("measure", f.Part.Code, f.Code)}
	row.Says, _ = l.verdictWords(f, stage)
	return row
}

// typed reports that a feature is a row of figures: leaves and grades are tapped on their own sheet.
func typed(f *bench.Feature) bool {
	return f.Def.Method != family.MethodFeeler && f.Def.Method != family.MethodGrade
}

// readingColumns are the readings of all features that are figures, place by place.
func (l *look) readingColumns() (heads []string, rows []ColumnRow) {
	most := 0
	for _, x := range l.st.Parts {
		for _, f := range x.Features {
			slots := f.Spec.Slots()
			if !x.Off || !typed(f) || len(slots) > mostReadings {
				continue
			}
			row := l.featureRow(f, unit.StageFound)
			for _, slot := range slots {
				e := l.cell(f, unit.StageFound, slot)
				row.Cells = append(row.Cells, ColumnCell{Entry: &e})
			}
			most = max(most, len(slots))
			rows = append(rows, row)
		}
	}
	for i := range most {
		heads = append(heads, strconv.Itoa(i+1))
	}
	return heads, rows
}

// limitColumns are the sizes as new and the limits, with their source.
func (l *look) limitColumns() (heads []string, rows []ColumnRow) {
	for _, x := range l.st.Parts {
		for _, f := range x.Features {
			if !f.Spec.IsSize() || f.Def.Size || f.Def.Method == family.MethodGrade {
				continue
			}
			at := func(name string) Entry { return l.field(l.unit.FeatureRef(f.Part.Code, f.Code, name)) }
			row := l.featureRow(f, unit.StageFound)
			row.Cells = cellsOf(
				l.asNew(f).Size,
				at("new_high"),
				at("new_source"),
				at("lower"),
				at("upper"),
				at("source"),
			)
			rows = append(rows, row)
		}
	}
	return []string{"as new", "as new, to", "its source", "lower limit", "upper limit", "its source"}, rows
}

func (l *look) partRow(x *bench.Part, station string) ColumnRow {
	return ColumnRow{ID: x.Code, Name: x.Name, URL: l.link(station, x.Code, "")}
}

// partColumns are what was counted, which way round a part was, and how it came off.
func (l *look) partColumns() (heads []string, rows []ColumnRow) {
	for _, x := range l.st.Parts {
		row := l.partRow(x, "strip")
		at := func(name string) unit.Ref { return l.unit.PartRef(x.Code, name) }
		count, facing, stuck := ColumnCell{}, ColumnCell{}, ColumnCell{}
		if x.Expected > 1 {
			e := l.field(at("found"))
			e.Place, e.Steps = fmt.Sprintf("of %d", x.Expected), false
			count.Entry = &e
		}
		if len(x.Def.Facings) > 0 {
			list := l.listed(at("facing"))
			facing.List = &list
		}
		list := l.listed(at("stuck"))
		stuck.List = &list
		row.Cells = []ColumnCell{count, facing, stuck}
		rows = append(rows, row)
	}
	return []string{"counted", "came off", "went"}, rows
}

// markColumns are the marks of the parts that are off.
func (l *look) markColumns() (rows []ColumnRow) {
	for _, x := range l.st.Parts {
		if !x.Off {
			continue
		}
		row := l.partRow(x, "measure")
		row.Marks = l.marks(x)
		rows = append(rows, row)
	}
	return rows
}

// springColumns are what a spring is worked out from, and the thickness of plates.
func (l *look) springColumns() (heads []string, rows []ColumnRow) {
	heads = []string{"free length", "wire", "mean diameter", "coils", "rate"}
	for _, x := range l.st.Parts {
		switch x.Def.Kind {
		case "spring", "disc_springs":
			row := l.partRow(x, "measure")
			free := ColumnCell{}
			for _, f := range x.Features {
				if f.Code != "free_length" {
					continue
				}
				row = l.featureRow(f, unit.StageFound)
				if slots := f.Spec.Slots(); len(slots) > 0 {
					e := l.cell(f, unit.StageFound, slots[0])
					free.Entry = &e
				}
			}
			row.Cells = []ColumnCell{free}
			for _, name := range []string{"coil_wire", "coil_mean", "coil_turns", "coil_rate"} {
				e := l.field(l.unit.PartRef(x.Code, name))
				row.Cells = append(row.Cells, ColumnCell{Entry: &e})
			}
			rows = append(rows, row)
		case "plate_pack":
			for _, f := range x.Features {
				if !typed(f) {
					continue
				}
				row := l.featureRow(f, unit.StageFound)
				for i, slot := range f.Spec.Slots() {
					if i == len(heads) {
						break
					}
					e := l.cell(f, unit.StageFound, slot)
					row.Cells = append(row.Cells, ColumnCell{Entry: &e})
				}
				rows = append(rows, row)
			}
		}
	}
	return heads, rows
}
