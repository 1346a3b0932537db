// Package line draws a unit as its parts pulled apart along one axis, with the layer of a
// station over them. Pages and papers show the same drawing.
package line

import (
	"fmt"
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/metrology"
	"corvek/core/wording"
	"corvek/internal/draw"
)

// Stations are those with a layer of their own.
var Stations = map[string]bool{"strip": true, "measure": true, "explain": true, "decide": true, "kit": true,
	"build": true}

// Layer is what of a unit is drawn.
type Layer struct {
	Station  string
	Selected string                   // code of the chosen part, "" on paper
	Link     func(part string) string // address behind a part, nil on paper
}

// Draw draws a unit with a layer.
func (l Layer) Draw(st *bench.State) string {
	if l.Link == nil {
		l.Link = func(string) string { return "" }
	}
	line := draw.Line{Axes: st.Family.Axes, Title: st.Unit.Name + ", parts in the order they came off", Width: 1132}
	next := Next(st)
	if l.Station != "build" {
		next = nil
	}
	order := st.InOrder()
	for i, part := range st.Parts {
		lp := draw.LinePart{No: i + 1, Code: part.Code, Name: part.Name, Kind: part.Def.Kind, Count: part.Expected,
			Branch: part.Def.Branch, Shape: part.Def.Shape, Selected: l.Selected == part.Code, URL: l.Link(part.Code)}
		lp.Flip = part.Facing != "" && part.Def.Facing != "" && part.Facing != part.Def.Facing
		lp.Mark = l.mark(st, part, part == next)
		switch l.Station {
		case "strip":
			lp.Quiet = !part.Off
			lp.Arrow = arrow(part)
			if part.Missing != 0 && part.Off && part.Found != "" {
				lp.Label, lp.LabelTone = part.Found+"/"+fmt.Sprint(part.Expected), "ochre"
			}
		case "build":
			lp.Quiet = !part.Step.Done && part != next
			lp.No = slices.Index(order, part) + 1
		case "kit":
			if part.Place != nil {
				lp.Label = fmt.Sprintf("%d/%d", part.Filled, part.Place.Need)
			}
			lp.Quiet = part.Place == nil
		}
		line.Parts = append(line.Parts, lp)
	}
	return line.SVG()
}

// arrow points the way a facing was noted, where left and right can be told.
func arrow(part *bench.Part) string {
	if part.Facing == "" {
		return ""
	}
	for _, out := range []string{"outward", "front", "grooves to the case", "etched end to A"} {
		if strings.Contains(part.Facing, out) {
			return "left"
		}
	}
	return "right"
}

// Next is the part to fit next, nil when all are fitted.
func Next(st *bench.State) *bench.Part {
	for _, p := range st.ToFit() {
		if !p.Step.Done && !p.Alone {
			return p
		}
	}
	return nil
}

// mark is what the station's layer says of a part.
func (l Layer) mark(st *bench.State, part *bench.Part, next bool) draw.Mark {
	switch l.Station {
	case "strip":
		return stripMark(part)
	case "measure":
		return measureMark(part)
	case "explain":
		return explainMark(MarksOn(st, part))
	case "decide":
		return decideMark(part)
	case "kit":
		return kitMark(part)
	case "build":
		return buildMark(part, next)
	}
	return draw.Mark{Shape: "dot"}
}

func stripMark(part *bench.Part) draw.Mark {
	switch {
	case !part.Off:
		return draw.Mark{Shape: "dot", Title: "still on"}
	case part.Found == "":
		return draw.Mark{Shape: "ask", Tone: "ochre", Title: "not counted"}
	case part.Missing != 0 && part.Explained == "":
		return draw.Mark{Shape: "count", Tone: "ochre", Title: "count differs"}
	case len(part.Def.Facings) > 0 && part.Facing == "":
		return draw.Mark{Shape: "ask", Tone: "ochre", Title: "facing not noted"}
	}
	return draw.Mark{Shape: "ok", Tone: "petrol", Title: "off, count correct"}
}

func measureMark(part *bench.Part) draw.Mark {
	if part.Off && part.Missing != 0 && part.Explained == "" && part.Found != "" {
		return draw.Mark{Shape: "count", Tone: "ochre", Title: "count differs"}
	}
	if len(part.Features) == 0 {
		return draw.Mark{Shape: "dot", Title: "nothing to measure"}
	}
	used, known := part.Used()
	switch part.Worst {
	case metrology.Out:
		return draw.Mark{Shape: "out", Title: "out of limits"}
	case metrology.Undecided:
		return draw.Mark{Shape: "ask", Tone: "ochre", Title: "undecided"}
	}
	for _, f := range part.Features {
		if f.Def.MustHave && !f.Found.Any {
			return draw.Mark{Shape: "ask", Tone: "quiet", Title: "not measured"}
		}
	}
	if known {
		tone := "petrol"
		if used > .8 {
			tone = "ochre"
		}
		return draw.Mark{Shape: "bar", Fill: used, Tone: tone,
			Title: fmt.Sprintf("%.0f %% of the wear limit", 100*used)}
	}
	return draw.Mark{Shape: "dot", Title: "nothing measured"}
}

// MarksOn counts what was seen on a part.
func MarksOn(st *bench.State, part *bench.Part) int {
	seen := 0
	for _, f := range st.Findings {
		if e, ok := st.Knowledge.EvidenceByCode(f.Code); ok && e.Part == part.Code && f.Strength > .5 {
			seen++
		}
	}
	return seen
}

func explainMark(seen int) draw.Mark {
	if seen > 0 {
		return draw.Mark{Shape: "flag", Text: fmt.Sprint(seen), Tone: "ochre", Title: fmt.Sprintf("%d marks", seen)}
	}
	return draw.Mark{Shape: "dot", Title: "no marks"}
}

func decideMark(part *bench.Part) draw.Mark {
	own := part.Decision.Choice != ""
	m := draw.Mark{Shape: "tag", Title: string(part.Choice())}
	switch part.Choice() {
	case decide.Keep:
		m = draw.Mark{Shape: "ring", Text: "K", Tone: "petrol", Title: "keep"}
	case decide.Rework:
		m.Text, m.Tone = "W", "petrol"
		m.Title = "rework"
	case decide.Replace:
		m.Text, m.Tone = "N", "ink"
		m.Title = "new"
	default:
		m = draw.Mark{Shape: "ask", Tone: "ochre", Title: "open"}
	}
	if own {
		m.Title += ", chosen by hand"
	}
	return m
}

func kitMark(part *bench.Part) draw.Mark {
	switch {
	case part.Place == nil:
		return draw.Mark{Shape: "dot", Title: "no new piece"}
	case part.Filled >= part.Place.Need:
		return draw.Mark{Shape: "ok", Tone: "petrol", Title: "piece is there"}
	}
	return draw.Mark{Shape: "ask", Tone: "ochre", Title: "place without a piece"}
}

func buildMark(part *bench.Part, next bool) draw.Mark {
	switch {
	case build.Turn(part.Step.Turn).Bad():
		return draw.Mark{Shape: "out", Title: "shaft " + wording.Plain(part.Step.Turn)}
	case part.Step.Done && part.AsksFeel() && part.Step.Turn == "":
		return draw.Mark{Shape: "ask", Tone: "ochre", Title: "not felt by hand yet"}
	case part.Step.Done:
		return draw.Mark{Shape: "ok", Tone: "petrol", Title: "fitted"}
	case next:
		return draw.Mark{Shape: "next", Tone: "petrol", Title: "next to fit"}
	}
	return draw.Mark{Shape: "dot", Title: "not fitted"}
}
