package web

import (
	"fmt"
	"html/template"
	"strings"

	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/internal/draw"
	"corvek/internal/job"
	"corvek/internal/report"
	"corvek/internal/store"
)

// stationView builds what a station's template shows beside the shared page.
func (p *Page) stationView() any {
	switch p.Station {
	case "receive":
		return p.receiveView()
	case "measure":
		return p.measureView()
	case "explain":
		return p.explainView()
	case "decide":
		return p.decideView()
	case "kit":
		return p.kitView()
	case "build":
		return p.buildView()
	case "prove":
		return p.proveView()
	case "handover":
		return p.handoverView()
	}
	return nil
}

// ReceiveView adds the drawing of the rotation.
type ReceiveView struct {
	Symptoms []SymptomChoice
	Pair     template.HTML
	Theory   string
	Other    string
	Families []FamilyChoice
}

// SymptomChoice is a symptom that may be tapped.
type SymptomChoice struct {
	Code, Text string
	On         bool
}

func (p *Page) receiveView() ReceiveView {
	v := ReceiveView{}
	for _, code := range p.S.Family.Symptoms {
		text, _ := family.SymptomText(code)
		v.Symptoms = append(v.Symptoms, SymptomChoice{code, text, containsWord(p.S.Job.Symptoms, code)})
	}
	if len(p.S.Family.Axes) > 1 {
		v.Pair = template.HTML(draw.GearPair(p.S.Unit.Rotation))
	}
	if p.S.Duty.Theory() {
		v.Theory, v.Other = p.Show(p.S.Found.Theoretical(), "flow"), p.ShowOther(p.S.Found.Theoretical(), "flow")
	}
	return v
}

// ExplainView is the board, the ranking and the checks.
type ExplainView struct {
	Board  []BoardItem
	Top    []explain.Ranked
	Rest   int
	Next   []explain.Check
	Chain  []explain.LinkState
	Chosen string
	Causes []explain.Cause
}

// BoardItem is one mark of the evidence board.
type BoardItem struct {
	*explain.Evidence
	State    string // seen, absent or empty as answered by hand
	Origin   string
	Source   string // where an automatic finding comes from
	Strength float64
	Known    bool
	OnPart   bool
	How      []HowField // where it comes from, how it was found, how old it looks
}

// HowField is one of the choices that tell what a mark is worth.
type HowField struct {
	Field, Label, Value string
	Choices             []FamilyChoice
}

// howFields asks what a mark seen is worth: a scratch the bench made itself, or
// one found only after wiping, says less.
func (p *Page) howFields(code string, e store.Evidence) []HowField {
	field := func(kind string) string { return fmt.Sprintf("%s.%d.%s", kind, p.S.Unit.ID, code) }
	return []HowField{
		{field("origin"), "where it comes from", e.Origin, []FamilyChoice{{"found_so", "found so"}, {"made_by_us", "made by us"}, {"unknown", "unknown"}}},
		{field("foundhow"), "how it was found", e.FoundHow, []FamilyChoice{{"", "found when?"}, {"before freeing", "before freeing"}, {"after freeing", "after freeing"}, {"before wiping", "before wiping"}, {"after wiping", "after wiping"}}},
		{field("age"), "how old it looks", e.Age, []FamilyChoice{{"", "how old?"}, {"fresh", "fresh, bright"}, {"old", "old, dull"}, {"not told", "cannot tell"}}},
	}
}

func (p *Page) explainView() ExplainView {
	st := p.S
	v := ExplainView{Next: st.Explain.Next, Causes: st.Knowledge.Causes}
	strength := map[string]float64{}
	for _, f := range st.Findings {
		strength[f.Code] = f.Strength
	}
	manual := map[string]store.Evidence{}
	for _, e := range st.Unit.Evidence {
		manual[e.Code] = e
	}
	for i := range st.Knowledge.Evidence {
		e := &st.Knowledge.Evidence[i]
		s, known := strength[e.Code]
		m := manual[e.Code]
		origin := m.Origin
		if origin == "" {
			origin = "found_so"
		}
		m.Origin = origin
		v.Board = append(v.Board, BoardItem{How: p.howFields(e.Code, m), Evidence: e, State: m.State, Origin: origin, Source: st.Sources[e.Code], Strength: s, Known: known, OnPart: e.Part != "" && e.Part == p.Part.Code})
	}
	v.Top = st.Explain.Ranking
	if len(v.Top) > 4 {
		v.Rest = len(v.Top) - 4
		v.Top = v.Top[:4]
	}
	if len(v.Next) > 4 {
		v.Next = v.Next[:4]
	}
	cause := st.Cause
	if cause == nil && len(v.Top) > 0 {
		cause = v.Top[0].Cause
	}
	if cause != nil {
		v.Chain = st.Knowledge.Chain(cause, st.Findings)
		v.Chosen = cause.Code
	}
	return v
}

// Wide is the width of a posterior's bar of 100.
func (ExplainView) Wide(p float64) string { return fmt.Sprintf("%.1f", 100*p) }

// DecideView counts the choices.
type DecideView struct {
	Keep, Rework, Replace, Open int
	ShimNow, ShimNew, ShimGives string
	ShimList                    []string
}

func (p *Page) decideView() DecideView {
	v := DecideView{}
	for _, part := range p.S.Parts {
		switch part.Choice() {
		case decide.Keep:
			v.Keep++
		case decide.Rework:
			v.Rework++
		case decide.Replace:
			v.Replace++
		default:
			v.Open++
		}
	}
	if sh := p.S.Shims; sh != nil && sh.Fault == "" {
		show := draw.Length(p.Units)
		v.ShimNow, v.ShimGives = show(sh.Measured), show(sh.Choice.Resulting)
		for _, t := range sh.Choice.Pack {
			v.ShimList = append(v.ShimList, quantity.Show(t, quantity.Length, p.Units))
		}
	}
	return v
}

// KitView joins pieces to places.
type KitView struct {
	Rows []KitRow
	Left []store.KitPiece
}

// KitRow is a place with the pieces put to it.
type KitRow struct {
	Part   *job.PartState
	Pieces []store.KitPiece
	Full   bool
	Over   bool
}

func (p *Page) kitView() KitView {
	v := KitView{}
	places := map[uint]bool{}
	for _, part := range p.S.Parts {
		if part.Place == nil {
			continue
		}
		places[part.ID] = true
		row := KitRow{Part: part, Full: part.Filled >= part.Place.Need, Over: part.Filled > part.Place.Need}
		for _, k := range p.S.Unit.KitPieces {
			if k.PartID != nil && *k.PartID == part.ID {
				row.Pieces = append(row.Pieces, k)
			}
		}
		v.Rows = append(v.Rows, row)
	}
	for _, k := range p.S.Unit.KitPieces {
		if k.PartID == nil || !places[*k.PartID] {
			v.Left = append(v.Left, k)
		}
	}
	return v
}

// BuildView is the step at hand.
type BuildView struct {
	Tight    *build.Tightening
	TightErr string
	Circle   template.HTML
	Stages   []string
	Again    []AgainView
	Suspect  string
	Fitted   int
	Turns    []build.Turn
	NewPart  bool
}

// AgainView is a clearance to be taken again.
type AgainView struct {
	Feature *job.FeatureState
	Sheet   *MeasureView
	Part    *job.PartState
}

func (p *Page) buildView() BuildView {
	v := BuildView{Turns: build.Turns, Suspect: build.Suspect(p.S.Steps()), NewPart: p.Part.Choice() == decide.Replace}
	for _, part := range p.S.Parts {
		if part.Step.Done {
			v.Fitted++
		}
		for _, f := range part.Features {
			if f.Def.Clearance {
				v.Again = append(v.Again, AgainView{f, p.featureView(f, job.StageBuilt), part})
			}
		}
	}
	if b := p.Part.Def.Bolt; b != nil {
		t, err := build.Tighten(b.Thread, b.Class, b.Torque, b.Circle)
		if err != nil {
			v.TightErr = err.Error()
		}
		v.Tight = &t
		if len(t.Order) > 0 {
			v.Circle = template.HTML(draw.BoltCircle(t.Order))
		}
		for _, s := range t.Stages {
			v.Stages = append(v.Stages, p.Show(s, "torque"))
		}
	}
	return v
}

// ProveView is the open attempt, the plot and the ledger.
type ProveView struct {
	Open   *job.AttemptState
	Last   *job.AttemptState
	Passed *job.AttemptState
	Plot   template.HTML
	Stand  string // why the stand cannot be used
	Gaps   []job.GapState
	Failed bool
	Ledger []*job.AttemptState
}

func (p *Page) proveView() ProveView {
	st := p.S
	v := ProveView{Last: st.Attempt(), Passed: st.Proved(), Gaps: st.Gaps, Ledger: st.Attempts}
	if v.Last != nil && !v.Last.Closed {
		v.Open = v.Last
	}
	v.Failed = v.Last != nil && v.Last.Closed && v.Last.Verdict != string(metrology.In)
	if _, err := st.Stand(1); err != nil {
		v.Stand = strings.TrimPrefix(err.Error(), "stand: ")
	}
	v.Plot = template.HTML(report.Plot(st, p.Units))
	return v
}

// HandoverView lists what is open over all stations.
type HandoverView struct {
	Open   []job.Stop
	Passed []job.Stop
	Units  int
}

func (p *Page) handoverView() HandoverView {
	v := HandoverView{Units: len(p.S.Job.Units)}
	for _, code := range job.Stations {
		for _, stop := range p.S.Stops[code] {
			if stop.Passed != nil {
				v.Passed = append(v.Passed, stop)
			} else {
				v.Open = append(v.Open, stop)
			}
		}
	}
	return v
}
