package web

import (
	"fmt"
	"html/template"
	"math"
	"strings"
	"time"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/answer"
	"corvek/internal/draw"
	"corvek/internal/job"
	"corvek/internal/report"
)

// MeasureView is the sheet of the chosen feature and what the clearances cost.
type MeasureView struct {
	Stage   string
	Bar     template.HTML
	Profile template.HTML
	Wide    bool // the cells need the whole width
	Leaves  []LeafView
	Cells   [][]Cell
	Heads   []string
	Grades  []GradeView
	Limit   string // and where it is from
	Verdict string
	Tone    string
	Words   string
	Plot    template.HTML
	Next    string
	Life    string // wear rate and what is left, in words
	Steps   []string
}

// LeafView is one feeler leaf.
type LeafView struct {
	Field, ID, Leaf, Number, Unit, State, Next string
	Suggested                                  bool
}

// Cell is one place of a grid or list of readings.
type Cell struct {
	Entry
	Bad string
}

// GradeView is one drawn grade.
type GradeView struct {
	No    int
	Words string
	On    bool
	Out   bool
}

// leafCycle is what a tap makes of a leaf.
var leafCycle = map[string]string{"": "goes", "goes": "drags", "drags": "stops", "stops": ""}

func (p *Page) measureView() *MeasureView {
	v := p.featureView(p.Feature, unit.StageFound)
	if v == nil {
		v = &MeasureView{}
	}
	v.Plot = p.leakPlot()
	return v
}

// featureView lays out a feature's sheet for a stage.
func (p *Page) featureView(f *job.FeatureState, stage string) *MeasureView {
	if f == nil {
		return nil
	}
	r := f.Result(stage)
	v := &MeasureView{Stage: stage, Limit: LimitWords(f)}
	show := draw.Length(p.Units)
	if f.Def.Method != family.MethodGrade {
		v.Bar = template.HTML(draw.ToleranceBar{Limits: r.Limits, Uncertainty: guard(f, r.Uncertainty),
			Value: r.Value, HasValue: r.HasValue && !r.IsLeaves,
			Interval: r.Interval, IsLeaves: r.IsLeaves, Verdict: r.Verdict, Show: show, Others: p.others(f, stage),
			Narrow: f.Def.Method == family.MethodGrid}.SVG())
	}
	switch f.Def.Method {
	case family.MethodFeeler:
		p.leafView(v, f, stage)
	case family.MethodGrade:
		for i, words := range family.Grades {
			v.Grades = append(v.Grades, GradeView{No: i, Words: words, On: r.Grade == i, Out: i >= f.Def.Worst})
		}
	default:
		p.cells(v, f, stage)
		switch f.Def.Method {
		case family.MethodGrid:
			v.Profile = p.profile(f, stage)
		case family.MethodSisters:
			v.Profile, v.Wide = p.sisters(f, stage), true
		}
	}
	v.Verdict, v.Words = verdictWords(p, f, stage)
	v.Tone = answer.Tone(string(r.Verdict))
	if r.HasNext {
		v.Next = show(r.NextLeaf)
	}
	v.Steps = p.workings(f, stage)
	if l, ok := p.S.Life(f); ok && l.Worn && stage == unit.StageFound {
		v.Life = fmt.Sprintf("wears %s in 1000 h", show(l.Rate*1000))
		if l.HoursLeft > 0 {
			v.Life += fmt.Sprintf("; about %s h to the limit if it goes on so", quantity.Figures(l.HoursLeft, 2))
		} else {
			v.Life += "; the limit is used up"
		}
	}
	return v
}

// guard is the uncertainty band that a leaf measurement does not have.
func guard(f *job.FeatureState, u float64) float64 {
	if f.Def.Method == family.MethodFeeler {
		return 0
	}
	return u
}

func (p *Page) others(f *job.FeatureState, stage string) []float64 {
	var out []float64
	if f.Def.Method == family.MethodFeeler {
		return nil
	}
	if f.Def.Method == family.MethodFit {
		for _, gap := range f.Result(stage).Fits {
			if !math.IsNaN(gap) {
				out = append(out, gap)
			}
		}
		return out
	}
	for _, slot := range f.Spec.Slots() {
		if m, ok := f.Size(stage, slot); ok {
			out = append(out, m)
		}
	}
	return out
}

func (p *Page) leafView(v *MeasureView, f *job.FeatureState, stage string) {
	r := f.Result(stage)
	leaves := append(append([]string{}, f.Def.Leaves...), f.ExtraLeaves(stage)...)
	for _, leaf := range leaves {
		number, in, _ := strings.Cut(leaf, " ")
		slot := "leaf:" + leaf
		lv := LeafView{Field: p.S.Unit.ReadingRef(f.Part.Code, f.Code, stage, slot).String(),
			ID: fieldID(p.S.Unit.ReadingRef(f.Part.Code, f.Code, stage, slot)), Leaf: leaf, Number: number,
			Unit: in, State: f.Entry(stage, slot)}
		lv.Next = leafCycle[lv.State]
		if q, err := quantity.Parse(leaf, quantity.Length); err == nil && r.HasNext &&
			math.Abs(q.SI-r.NextLeaf) < 1e-9 {
			lv.Suggested = true
		}
		v.Leaves = append(v.Leaves, lv)
	}
}

func (p *Page) cells(v *MeasureView, f *job.FeatureState, stage string) {
	r := f.Result(stage)
	slots := f.Spec.Slots()
	last := lastUnit(f, stage)
	cols := f.Def.Cols
	switch f.Def.Method {
	case family.MethodFit:
		cols = 2
	case family.MethodGrid:
		for c := range cols {
			v.Heads = append(v.Heads, fmt.Sprintf("axis %c", 'A'+c))
		}
	default:
		cols = min(len(slots), 5)
	}
	var row []Cell
	for i, slot := range slots {
		e := p.cell(f, stage, slot, last)
		e.Label = cellLabel(f, i, cols)
		e.Place = strings.TrimSpace(f.Def.Nominal)
		row = append(row, Cell{Entry: e, Bad: r.Faults[slot]})
		if len(row) == cols || i == len(slots)-1 {
			v.Cells = append(v.Cells, row)
			row = nil
		}
	}
}

// cell is the entry of one place of a sheet; a bare figure takes the unit that
// was typed last in the sheet.
func (p *Page) cell(f *job.FeatureState, stage, slot, last string) Entry {
	e := p.Field(p.S.Unit.ReadingRef(f.Part.Code, f.Code, stage, slot))
	if e.Value == "" {
		e.Hint, e.Unit = p.units(quantity.Length, last)
	}
	return e
}

// lastUnit is the unit that was typed last in a sheet, "" in an empty one.
func lastUnit(f *job.FeatureState, stage string) string {
	name, at := "", time.Time{}
	for _, r := range f.Newest(stage) {
		if !r.At.Before(at) && r.Size.Unit.Name != "" {
			name, at = r.Size.Unit.Name, r.At
		}
	}
	return name
}

func cellLabel(f *job.FeatureState, i, cols int) string {
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

func (p *Page) profile(f *job.FeatureState, stage string) template.HTML {
	r := f.Result(stage)
	if !r.HasNominal || !r.Any {
		return ""
	}
	d := draw.Profile{Nominal: r.Nominal, Bore: f.Def.Wears == "bore"}
	if d.Bore {
		d.Limit, d.HasLimit = r.Limits.Upper, r.Limits.HasUpper
	} else {
		d.Limit, d.HasLimit = r.Limits.Lower, r.Limits.HasLower
	}
	for i := range f.Def.Rows {
		var row []float64
		for c := range f.Def.Cols {
			v := math.NaN()
			if m, ok := f.Size(stage, fmt.Sprintf("r%dc%d", i+1, c+1)); ok {
				v = m
			}
			row = append(row, v)
		}
		d.Grid = append(d.Grid, row)
	}
	return template.HTML(d.SVG())
}

// verdictWords puts a verdict into a sentence.
func verdictWords(p *Page, f *job.FeatureState, stage string) (word, sentence string) {
	r := f.Result(stage)
	show := draw.Length(p.Units)
	if f.Def.Method == family.MethodGrade && r.Grade >= 0 {
		if r.Verdict == metrology.Out {
			return "OUT", "by touch: " + family.Grades[r.Grade] + "; a figure is another matter"
		}
		return "PASSES", "by touch: " + family.Grades[r.Grade] + "; a figure is another matter"
	}
	switch r.Verdict {
	case metrology.In:
		words := inWords(r.Limits, r.Value, r.IsLeaves, show)
		if r.Odd > 0 {
			words += fmt.Sprintf("; but no. %d is not like its sisters", r.Odd)
		}
		return "IN", words
	case metrology.Out:
		return "OUT", outWords(p, f, stage)
	case metrology.Undecided:
		text := "undecided: " + r.Settle
		if r.HasNext {
			text = "undecided: try the " + show(r.NextLeaf) + " leaf"
			if !r.Interval.Bounded {
				text = "no leaf has stopped yet: go on with " + show(r.NextLeaf)
			}
		}
		if len(r.Faults) > 0 && r.Faults["leaves"] != "" {
			text = r.Faults["leaves"]
		}
		return "?", text
	}
	if r.Any {
		if r.Odd > 0 {
			return "?", fmt.Sprintf("no. %d is not like its sisters, %s apart; no limit is given", r.Odd, show(r.OddBy))
		}
		return "", "no limit given, so nothing is judged"
	}
	return "", "nothing entered yet"
}

func inWords(l metrology.Limits, v float64, leaves bool, show func(float64) string) string {
	if leaves {
		return "as far as the leaves can tell"
	}
	room := math.Inf(1)
	if l.HasLower {
		room = v - l.Lower
	}
	if l.HasUpper {
		room = math.Min(room, l.Upper-v)
	}
	return "worst reading " + show(v) + ", " + show(room) + " to spare"
}

func outWords(p *Page, f *job.FeatureState, stage string) string {
	r := f.Result(stage)
	show := draw.Length(p.Units)
	switch {
	case r.IsLeaves && r.Limits.HasUpper && r.Interval.AtLeast > r.Limits.Upper:
		return "at least " + show(r.Interval.AtLeast-r.Limits.Upper) + " over, whatever the leaves leave open"
	case r.IsLeaves:
		return "under the lower limit"
	case r.Limits.HasUpper && r.Value > r.Limits.Upper:
		return "worst reading " + show(r.Value) + ", " + show(r.Value-r.Limits.Upper) + " over the limit"
	}
	return "worst reading " + show(r.Value) + ", " + show(r.Limits.Lower-r.Value) + " under the limit"
}

// workings are the steps behind a verdict.
func (p *Page) workings(f *job.FeatureState, stage string) []string {
	r := f.Result(stage)
	var out []string
	if !r.Any {
		return nil
	}
	show := draw.Length(p.Units)
	if r.IsLeaves {
		out = append(out, fmt.Sprintf("measured %s, limit for %s", f.Measured, f.LimitFor))
		if r.Interval.Bounded {
			out = append(out, fmt.Sprintf("thickest leaf that goes %s ≤ gap < thinnest that stops %s",
				show(r.Interval.AtLeast), show(r.Interval.LessThan)))
		}
	} else if f.Def.Method == family.MethodFit {
		for i, gap := range r.Fits {
			if !math.IsNaN(gap) {
				out = append(out, fmt.Sprintf("pair %d: hole less its own shaft = %s", i+1, show(gap)))
			}
		}
	} else if r.HasValue {
		if r.Odd > 0 {
			out = append(out, fmt.Sprintf("no. %d is not like its sisters: %s from the middle one, more than their "+
				"own scatter makes", r.Odd, show(r.OddBy)))
		}
		if r.HasBow {
			out = append(out, "bow = half of the whole swing = "+show(r.Bow))
		}
		out = append(out, fmt.Sprintf("%d readings, mean %s, from %s to %s", r.Summary.N, show(r.Summary.Mean),
			show(r.Summary.Minimum), show(r.Summary.Maximum)))
		if r.Summary.HasOutOfRound {
			out = append(out, "out of round "+show(r.Summary.OutOfRound))
		}
		if r.Summary.HasTaper {
			out = append(out, "taper "+show(r.Summary.Taper))
		}
		if r.Uncertainty > 0 {
			out = append(out, fmt.Sprintf("U = resolution %s/√3 = %s (k = 2); in only if the value ± U lies inside "+
				"(ISO 14253-1)", f.Resolution.Typed, fine(r.Uncertainty, p.Units)))
		}
	}
	if r.HasUsed {
		out = append(out, fmt.Sprintf("%.0f %% of the wear limit used", 100*r.Used))
	}
	return out
}

func (p *Page) leakPlot() template.HTML {
	st := p.S
	if !st.Leak.Known || st.Found.Theoretical() <= 0 {
		return ""
	}
	plot := draw.FlowPlot{Theory: st.Found.Theoretical(), Duty: st.Duty.Pressure, System: p.Units}
	plot.Band = report.Band(st)
	plot.Curves = []draw.Curve{{Class: "found", Label: "as it is now", Flow: st.Found.Deliver}}
	return template.HTML(plot.SVG())
}

// TabTone marks a feature's tab by its verdict; what must be measured and was
// not is marked as well.
func (p *Page) TabTone(f *job.FeatureState) string {
	if tone := answer.Tone(string(f.Found.Verdict)); f.Found.Verdict != "" {
		return tone
	}
	if f.Def.MustHave {
		return "none"
	}
	return "off"
}
