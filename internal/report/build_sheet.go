package report

import (
	"fmt"
	"strings"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/quantity"
	"corvek/internal/document"
	"corvek/internal/draw"
)

// BuildSheet is the build on paper, for the bench without a screen: each step with what it
// needs to know and boxes for what was seen.
type BuildSheet struct {
	Data
	Steps   []SheetStep
	Filling []string
	Again   []string // clearances that are taken again
}

// SheetStep is one part as it goes in.
type SheetStep struct {
	No             int
	Name, Where    string
	Glyph          string // SVG
	Piece          string // new, reworked or kept
	Count          int    // 1 where nothing is counted
	Counted        bool   // counted in
	Facing         string // the way it goes in
	Wet            string
	Torque, Source string
	Rounds         []string
	Order          string // bolts crosswise
	Stack          string // as it belongs
	Turn           bool
	Lip            string // how deep it is pressed
	Photo          string // the pictures it is held against
	Checks         []string
	Done           bool
}

// NewBuildSheet lays the build out in fitting order.
func NewBuildSheet(d Data, units quantity.System) BuildSheet {
	st := d.S
	s := BuildSheet{Data: d}
	for n, p := range st.InOrder() {
		s.Steps = append(s.Steps, sheetStep(st, p, n+1, units))
	}
	for _, f := range st.Filling() {
		s.Filling = append(s.Filling, f.Words)
	}
	for _, p := range st.Parts {
		for _, f := range p.Features {
			if f.Def.Clearance {
				s.Again = append(s.Again, fmt.Sprintf("%s, %s: %s", p.Name, strings.ToLower(f.Def.Name),
					limitText(f, units)))
			}
		}
	}
	return s
}

func sheetStep(st *bench.State, p *bench.Part, no int, units quantity.System) SheetStep {
	x := SheetStep{No: no, Name: p.Name, Where: p.Def.Branch, Count: p.Expected, Turn: p.AsksFeel(),
		Glyph: draw.Glyph(p.Def.Kind, p.Def.Shape, 44), Checks: build.ChecksOf(p.Def), Done: p.Step.Done,
		Piece: map[decide.Choice]string{decide.Keep: "kept", decide.Rework: "reworked", decide.Replace: "new",
			decide.Open: "open"}[p.Choice()]}
	if must, asked := st.CountsIn(p); asked {
		x.Count, x.Counted = must, true
	}
	_, x.Facing = build.FittingWays(p.Def)
	if build.Wets(p.Def) {
		x.Wet = st.Unit.Fluid
	}
	if j, bolted := build.JointOf(p.Def, p.Part.Joint); bolted {
		x.tighten(j, p.Part.Joint.Snug, units)
	}
	if p.Stack != nil {
		x.Stack = p.StackRight
		if x.Stack == "" {
			x.Stack = p.Stack.Def.As
		}
	}
	if p.Def.Kind == "lip_seal" {
		show := draw.Length(units)
		if run := build.LipOf(p.Part.Lip, p.Seal.Width, p.Step.Press, show); run.Known {
			x.Lip = strings.Join(run.Spans, " or ")
		}
	}
	var shots []string
	for _, shot := range st.Job.Pictures {
		if shot.Unit == st.Unit.Number && shot.Part == p.Code {
			shots = append(shots, fmt.Sprint(shot.Number))
		}
	}
	x.Photo = strings.Join(shots, ", ")
	return x
}

// tighten says what a joint is tightened to; of a bolt whose head bears no mark no torque is
// said.
func (x *SheetStep) tighten(j build.Joint, snug bool, units quantity.System) {
	t, err := build.Tighten(j)
	switch {
	case snug:
		x.Torque, x.Source = "snug", "even, until it seats"
		return
	case err != nil:
		x.Source = err.Error()
		return
	}
	x.Source = t.Source
	if !j.Bolts && j.Angle != "" {
		x.Torque, x.Source = j.Angle, "in place of a torque"
	}
	if t.Unknown || t.Torque == 0 {
		return
	}
	x.Torque = quantity.Show(t.Torque, quantity.Torque, units)
	for _, stage := range t.Stages {
		x.Rounds = append(x.Rounds, quantity.Show(stage, quantity.Torque, units))
	}
	var order []string
	for _, n := range t.Order {
		order = append(order, fmt.Sprint(n))
	}
	x.Order = strings.Join(order, "-")
}

// Paper lays the sheet out.
func (s BuildSheet) Paper() document.Document {
	st := s.S
	out := s.Data.paper(fmt.Sprintf("Build sheet, round %d", st.Round))
	out.Add(document.Text{Text: joined(", ", st.Family.Name, st.Unit.Variant, between("serial ", st.Unit.Serial, "")) +
		". In this order; springs under load and anything heavy by the maker's manual and site rules."})
	t := document.Table{Heads: []string{"no.", "", "what goes in", "how", "tightened", "seen"},
		Shares: []float64{5, 8, 24, 28, 17, 18}, None: "This unit has no parts."}
	for _, x := range s.Steps {
		t.Rows = append(t.Rows, x.cells())
	}
	out.Add(t)
	if len(s.Again) > 0 {
		out.Add(document.Heading{Text: "Measured again"}, checks(s.Again, ": ____________"))
	}
	if len(s.Filling) > 0 {
		out.Add(document.Heading{Text: "Filled before it runs"}, checks(s.Filling, ", at ________"))
	}
	out.Add(document.Signs{Names: []string{"Built by", "Day"}})
	return out
}

// checks are lines to tick with a place to write.
func checks(items []string, blank string) document.Checks {
	out := document.Checks{}
	for _, item := range items {
		out.Items = append(out.Items, item+blank)
	}
	return out
}

// cells is a step as a row of the sheet.
func (x SheetStep) cells() []document.Cell {
	line := func(text string) document.Line { return document.Line{Text: text} }
	small := func(text string) document.Line { return document.Line{Text: text, Small: true} }
	box := func(text string) document.Line { return document.Line{Text: text, Box: true} }
	var what, how, tight, seen []document.Line
	add := func(to *[]document.Line, l document.Line) {
		if l.Text != "" {
			*to = append(*to, l)
		}
	}
	add(&what, document.Line{Text: x.Name, Bold: true})
	add(&what, small(x.Where))
	piece := x.Piece
	if x.Count > 1 {
		piece += fmt.Sprintf(", %d pieces", x.Count)
	}
	add(&what, line(piece))
	add(&how, document.Line{Text: x.Facing, Bold: true})
	add(&how, line(x.Stack))
	add(&how, line(between("pressed ", x.Lip, " below the face")))
	add(&how, line(between("wet with ", x.Wet, "")))
	for _, check := range x.Checks {
		add(&how, small(check))
	}
	add(&how, small(between("hold against picture ", x.Photo, "")))
	add(&tight, document.Line{Text: x.Torque, Bold: true})
	add(&tight, small(x.Source))
	for _, round := range x.Rounds {
		add(&tight, small(round))
	}
	add(&tight, small(x.Order))
	add(&seen, box("in"))
	if x.Counted {
		add(&seen, box(fmt.Sprintf("counted ____ of %d", x.Count)))
	}
	if x.Facing != "" {
		add(&seen, box("faces so"))
	}
	if x.Torque != "" {
		add(&seen, box("to ________"))
	}
	if x.Turn {
		add(&seen, box("turns ________"))
	}
	return []document.Cell{document.Cells(fmt.Sprint(x.No))[0], {Drawing: x.Glyph}, {Lines: what}, {Lines: how},
		{Lines: tight}, {Lines: seen}}
}
