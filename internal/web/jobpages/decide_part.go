package jobpages

import (
	"fmt"
	"strings"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/draw"
)

// PartDecision is the chosen part at Decide: why it goes which way, and how far that is.
type PartDecision struct {
	No      int
	Name    string
	Choice  string // in words
	Tone    string
	Reasons []string // the strongest first
	Measure string   // where it is measured or looked at, while it is open
	Wears   []WearView
	Lost    *LostView
	Coil    *CoilView
	Ways    []WayView
	NewFor  *Entry // price of a new one
}

// WearView is how far one feature has worn.
type WearView struct {
	Name, Used, Life string
	Steps            []string
}

// LostView is the price of a clearance in lost flow.
type LostView struct {
	Flow, Share string
	Steps       []string
}

// CoilView is the question whose a spring is, and what it would set.
type CoilView struct {
	Doubt    bool   // it may be another's
	Off      string // from the book's length
	Is       Choice
	Fields   []Entry
	Needs    string
	Cracking string // by its own rate
	Shim     string // under it for the setting wanted, "" without one
	Counted  string // shims that lie under it now
	Steps    []string
}

// WayView is a way to save the part.
type WayView struct {
	Name     string
	Goes     Press
	Alone    bool // there is no other way for the same feature
	Limits   []string
	Fault    string
	Caution  string
	Fields   []Entry
	FlatHow  *Choice
	Trend    string
	Worse    bool
	Oversize string
	After    []AgainView // the new measures
}

// choiceWords is what is done with a part in one word, and its tone.
var choiceWords = map[decide.Choice][2]string{decide.Keep: {"KEEP", "petrol"}, decide.Rework: {"REWORK", "ochre"},
	decide.Replace: {"NEW", "ink"}, decide.Open: {"OPEN", "ochre"}}

func (l *look) partDecision() *PartDecision {
	x := l.part
	words := choiceWords[x.Choice()]
	v := &PartDecision{No: l.partNo(), Name: x.Name, Choice: words[0], Tone: words[1],
		Reasons: strings.Split(x.Proposal.Reason, "; ")}
	for _, f := range x.Features {
		if f.Found.HasUsed && f.Found.Figure() {
			v.Wears = append(v.Wears, WearView{Name: f.Def.Name, Used: fmt.Sprintf("%.0f %%", 100*f.Found.Used),
				Life: l.life(f), Steps: l.workings(f, unit.StageFound)})
		}
	}
	if lost, ok := l.st.LostBy(x); ok {
		v.Lost = &LostView{Flow: l.Show(lost.Flow, quantity.Flow), Steps: lost.Steps}
		if lost.Share > 0 {
			v.Lost.Share = fmt.Sprintf("%.1f %% of the theoretical flow", 100*lost.Share)
		}
	}
	if x.Choice() == decide.Open && x.Proposal.Choice == decide.Open {
		v.Measure = l.link("measure", x.Code, "")
	}
	if v.Coil = l.coil(x); v.Coil != nil && v.Coil.Doubt {
		v.Measure = "" // the question is asked here
	}
	if x.Choice() == decide.Rework {
		v.Ways = l.ways(x)
	}
	if x.Choice() == decide.Replace && !x.Def.Renew {
		price := l.field(l.unit.PartRef(x.Code, "price"))
		v.NewFor = &price
	}
	return v
}

// ways are the ways to save the part, those that are gone with what is asked of them.
func (l *look) ways(x *bench.Part) (out []WayView) {
	going := map[string]bool{}
	for _, w := range x.Going() {
		going[w.Code] = true
	}
	for _, w := range x.Ways() {
		v := WayView{Name: w.Name, Goes: l.toggle(l.unit.ReworkRef(x.Code, w.Code, "goes"), w.Route.Goes),
			Fault: w.Route.Fault(), Caution: w.Caution, Alone: true}
		for _, other := range x.Ways() {
			v.Alone = v.Alone && (other.Code == w.Code || other.For != w.For)
		}
		v.Goes.On = going[w.Code]
		v.Limits = l.wayLimits(&w)
		if going[w.Code] {
			l.goneWay(&v, x, &w)
		}
		out = append(out, v)
	}
	return out
}

// wayLimits says what a way costs and how far it may go.
func (l *look) wayLimits(w *bench.Way) (out []string) {
	length := draw.Length(l.Units)
	if left, limited := w.Route.Left(); limited {
		out = append(out, fmt.Sprintf("%s of %s may still come off", length(max(0, left)), length(w.Route.Stock)))
	}
	if w.Route.Need > 0 {
		out = append(out, length(w.Route.Need)+" must, to take the wear away")
	}
	if w.Hours > 0 {
		out = append(out, fmt.Sprintf("%.3g h at the bench", w.Hours))
	}
	if w.Days > 0 {
		out = append(out, fmt.Sprintf("%.3g days away", w.Days))
	}
	return out
}

// goneWay fills in what is asked of a way that is gone, and what came of it.
func (l *look) goneWay(v *WayView, x *bench.Part, w *bench.Way) {
	ref := func(name string) unit.Ref { return l.unit.ReworkRef(x.Code, w.Code, name) }
	var names []string
	if w.Kind.Takes {
		names = append(names, "taken")
	}
	if w.Kind.Flat {
		how := l.choose(ref("flat_how")).Wrap()
		v.FlatHow = &how
		names = append(names, "flat_first", "flat_now")
	}
	if w.Days > 0 {
		names = append(names, "price", "sent", "back")
	}
	v.Fields = l.fields(ref, names)
	if !w.Row.FlatFirst.IsZero() && !w.Row.FlatNow.IsZero() {
		trend := decide.Trending(w.Row.FlatFirst.SI, w.Row.FlatNow.SI)
		v.Trend, v.Worse = string(trend), trend == decide.LessFlat
	}
	for _, f := range x.Features {
		// A clearance is taken again on the built unit, among the others.
		if w.Route.Answers(f.Code) && f.Found.Any && !f.Def.Clearance {
			v.After = append(
				v.After,
				AgainView{Name: f.Def.Name, Open: !f.Built.Any, Sheet: l.sheet(f, unit.StageBuilt),
					Made: l.made(f)},
			)
		}
	}
	if f := w.Feature; w.Kind.Oversize && f != nil && f.Built.HasValue && f.Found.HasNominal {
		v.Oversize = draw.Length(l.Units)(decide.Oversize(f.Found.Nominal, f.Built.Value))
	}
}

// coil is the question whose spring the part is, nil where its length raises none.
func (l *look) coil(x *bench.Part) *CoilView {
	c := l.st.Coil(x.AsFound)
	if c == nil {
		return nil
	}
	length := draw.Length(l.Units)
	v := &CoilView{Doubt: c.Doubt,
		Off: fmt.Sprintf("%s from the book's %s", length(c.Deviation), c.Shown),
		Is:  l.choose(l.unit.PartRef(x.Code, "coil_is")).Wrap(), Needs: c.Needs}
	if !c.Relief {
		return v
	}
	v.Fields = l.ofPart("coil_rate", "coil_wire", "coil_mean", "coil_turns")
	if n, counted := l.st.ShimsUnder(x); counted {
		v.Counted = fmt.Sprintf("%d lie under it now", n)
	}
	if c.Output == nil {
		return v
	}
	v.Steps = c.Output.Steps
	if p, ok := c.Output.Value("cracking_pressure"); ok {
		v.Cracking = l.Show(p, quantity.Pressure)
	}
	if m, ok := c.Output.Value("shim_for_target"); ok {
		v.Shim = length(m)
	}
	return v
}
