package jobpages

import (
	"fmt"
	"html/template"
	"math"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/answer"
	"corvek/internal/draw"
)

// FeatureSheet is where a feature is measured, for a stage of the work.
type FeatureSheet struct {
	Method    family.Method
	How       string
	AsNew     *AsNewView // of a size that wears
	Questions []Choice   // what was measured and what the limit is for, with feeler leaves
	Limit     string     // and where it is from
	Limits    []Entry    // to change it, and the instrument
	Verdict   string
	Tone      string
	Words     string
	Leaves    []LeafView
	Grades    []GradeView
	Cells     []CellRow
	Axes      []string // heads of the columns of a grid
	Bar       template.HTML
	Profile   template.HTML
	Wide      bool   // the cells need the whole width
	Life      string // wear rate and what is left, in words
	Steps     []string
}

// AsNewView is the size as new of a feature with its source: asked first, told in a line once it is settled.
type AsNewView struct {
	Asks  bool   // its limit waits for it
	Short string // the size; "" while it is open
	Words string // the size and whence it is
	Size  Entry
	From  *Choice // nil before a size is typed
	Rest  []Entry
}

// CellRow is a row of a grid or list of readings; Head is that of a grid.
type CellRow struct {
	Head    string
	Entries []Entry
}

// LeafView is one feeler leaf, and how it may go.
type LeafView struct {
	ID, Leaf, Number, Unit, State string
	Suggested                     bool
	Ways                          []LeafWay
}

// LeafWay is a button that says how a leaf goes; pressed again it takes that back.
type LeafWay struct {
	Press
	Words string
}

// GradeView is one drawn grade.
type GradeView struct {
	Press
	No    int
	Words string
	Out   bool
}

// sheet lays out a feature's sheet for a stage.
func (l *look) sheet(f *bench.Feature, stage string) *FeatureSheet {
	r := f.Result(stage)
	v := &FeatureSheet{Method: f.Def.Method, How: f.Def.How, Limit: l.limitWords(f),
		Tone:  answer.Tone(string(r.Verdict)),
		Steps: l.workings(f, stage)}
	v.Verdict, v.Words = l.verdictWords(f, stage)
	if f.Spec.IsSize() && stage == unit.StageFound {
		v.AsNew = l.asNew(f)
	}
	if f.Def.Method != family.MethodGrade {
		v.Bar = l.toleranceBar(f, stage)
		v.Limits = l.limitEntries(f)
		if stage == unit.StageFound { // once on a page
			v.Limits = append(v.Limits, l.field(l.unit.Ref("parts_temperature")))
		}
	}
	if f.Def.AsksEach() || f.Def.Method == family.MethodFeeler {
		v.Questions = l.leafQuestions(f)
	}
	switch f.Def.Method {
	case family.MethodFeeler:
		v.Leaves = l.leaves(f, stage)
	case family.MethodGrade:
		v.Grades = l.grades(f, stage)
	case family.MethodGrid:
		v.Cells, v.Profile = l.cells(f, stage), profile(f, stage)
		for i := range v.Cells {
			v.Cells[i].Head = fmt.Sprintf("depth %d", i+1)
		}
		for c := range f.Def.Cols {
			v.Axes = append(v.Axes, fmt.Sprintf("axis %c", 'A'+c))
		}
	case family.MethodSisters:
		v.Cells, v.Profile, v.Wide = l.cells(f, stage), l.sisters(f, stage), true
	default:
		v.Cells = l.cells(f, stage)
	}
	if stage == unit.StageFound {
		v.Life = l.life(f)
	}
	return v
}

// asNew is the first question of a size that wears: what it was.
func (l *look) asNew(f *bench.Feature) *AsNewView {
	at := func(name string) unit.Ref { return l.unit.FeatureRef(f.Part.Code, f.Code, name) }
	v := &AsNewView{Asks: f.Def.Rule.Sized() && !f.New.Holds() || !f.New.Low.IsZero() && !f.New.Holds(),
		Size: l.field(at("new_low")), Rest: []Entry{l.field(at("new_high")), l.field(at("new_source"))}}
	v.Size.Hint, v.Size.Unit = l.units(quantity.Length, "")
	v.Size.Place = v.Size.Unit
	if !f.New.Low.IsZero() {
		from := l.choose(at("new_from")).Wrap()
		v.From = &from
	}
	if f.New.Holds() {
		v.Short = f.New.Low.In(l.Units)
		if !f.New.High.IsZero() {
			v.Short += " to " + f.New.High.In(l.Units)
		}
		v.Words = v.Short + " · " + wording.AsNewFrom(f.New)
	}
	return v
}

// goneBy are the sizes of the part that others go by, a line each.
func (l *look) goneBy() (out []SizeRow) {
	for _, f := range l.part.Features {
		if !f.Def.Size {
			continue
		}
		row := SizeRow{How: f.Def.How}
		for i, slot := range f.Spec.Slots() {
			e := l.cell(f, unit.StageFound, slot)
			e.Label = f.Def.Name
			if i > 0 {
				e.Label += fmt.Sprintf(" %d", i+1)
			}
			row.Entries = append(row.Entries, e)
		}
		out = append(out, row)
	}
	return out
}

// SizeRow is a size that others go by, and how it is measured.
type SizeRow struct {
	How     string
	Entries []Entry
}

// life says how fast a feature wears and how long it will last.
func (l *look) life(f *bench.Feature) string {
	life, ok := l.st.Life(f)
	if !ok || !life.Worn {
		return ""
	}
	words := fmt.Sprintf("wears %s in 1000 h", draw.Length(l.Units)(life.Rate*1000))
	if life.HoursLeft > 0 {
		return words + fmt.Sprintf("; about %s h to the limit if it goes on so", quantity.Round(life.HoursLeft, 2))
	}
	return words + "; the limit is used up"
}

// limitEntries are a feature's limits, their source, and its instrument with the
// shop's own to tap.
func (l *look) limitEntries(f *bench.Feature) (out []Entry) {
	for _, name := range []string{"lower", "upper", "standing", "source", "instrument", "resolution", "permitted",
		"setting"} {
		e := l.field(l.unit.FeatureRef(f.Part.Code, f.Code, name))
		if name == "instrument" {
			for _, i := range l.st.Tools.There() {
				e.Choices = append(e.Choices, i.Name)
			}
		}
		out = append(out, e)
	}
	return out
}

func (l *look) leafQuestions(f *bench.Feature) []Choice {
	out := []Choice{l.choose(l.unit.FeatureRef(f.Part.Code, f.Code, "measured"))}
	if !f.Lower.IsZero() || !f.Upper.IsZero() { // a rule is for the whole clearance
		out = append(out, l.choose(l.unit.FeatureRef(f.Part.Code, f.Code, "limit_for")))
	}
	return out
}

func (l *look) leaves(f *bench.Feature, stage string) (out []LeafView) {
	r := f.Result(stage)
	for _, leaf := range slices.Concat(f.Def.Leaves, f.ExtraLeaves(stage)) {
		number, in, _ := strings.Cut(leaf, " ")
		ref := l.unit.ReadingRef(f.Part.Code, f.Code, stage, "leaf:"+leaf)
		state := f.Entry(stage, "leaf:"+leaf)
		v := LeafView{ID: fieldID(ref), Leaf: leaf, Number: number, Unit: in, State: state}
		for _, way := range []string{measure.Goes, measure.Drags, measure.Stops} {
			p := l.press(ref, way, state)
			if p.On = way == state; p.On {
				p.Value = ""
			}
			v.Ways = append(v.Ways, LeafWay{p, way})
		}
		if q, err := quantity.Parse(leaf, quantity.Length); err == nil && r.HasNext &&
			math.Abs(q.SI-r.NextLeaf) < 1e-9 {
			v.Suggested = true
		}
		out = append(out, v)
	}
	return out
}

func (l *look) grades(f *bench.Feature, stage string) (out []GradeView) {
	ref := l.unit.ReadingRef(f.Part.Code, f.Code, stage, "grade")
	for i, words := range family.Grades {
		v := GradeView{Press: l.press(ref, fmt.Sprint(i), f.Entry(stage, "grade")), No: i, Words: words,
			Out: i >= f.Def.Worst}
		v.On = f.Result(stage).Grade == i
		out = append(out, v)
	}
	return out
}

// cells are the places of a grid or list of readings, row by row.
func (l *look) cells(f *bench.Feature, stage string) (rows []CellRow) {
	slots := f.Spec.Slots()
	cols := min(len(slots), 5)
	switch f.Def.Method {
	case family.MethodFit:
		cols = 2
	case family.MethodGrid:
		cols = f.Def.Cols
	}
	var row []Entry
	for i, slot := range slots {
		e := l.cell(f, stage, slot)
		e.Label = cellLabel(f, i, cols)
		row = append(row, e)
		if len(row) == cols || i == len(slots)-1 {
			rows = append(rows, CellRow{Entries: row})
			row = nil
		}
	}
	return rows
}

// cell is the entry of one place of a sheet. A bare figure takes the reader's own unit,
// which stands in the cell, whatever the sheet began with.
func (l *look) cell(f *bench.Feature, stage, slot string) Entry {
	e := l.field(l.unit.ReadingRef(f.Part.Code, f.Code, stage, slot))
	e.Hint, e.Unit = l.units(quantity.Length, "")
	e.Place = e.Unit
	return e
}

func cellLabel(f *bench.Feature, i, cols int) string {
	if f.Def.Method == family.MethodGrid {
		return fmt.Sprintf("depth %d, axis %c", i/cols+1, 'A'+i%cols)
	}
	switch {
	case f.Def.Method == family.MethodFit:
		return fmt.Sprintf("%s %d", []string{"hole", "shaft"}[i%2], i/2+1)
	case f.Def.Method == family.MethodSisters:
		return fmt.Sprintf("no. %d", i+1)
	case f.Def.Method == family.MethodTIR:
		return "whole swing"
	case len(f.Spec.Slots()) == 1:
		return "reading"
	}
	return fmt.Sprintf("reading %d", i+1)
}
