package web

import (
	"html/template"
	"strings"

	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/draw"
	"corvek/internal/job"
	"corvek/internal/report"
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
	Families []Named
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
		v.Symptoms = append(v.Symptoms, SymptomChoice{code, text, p.S.Job.HasSymptom(code)})
	}
	if len(p.S.Family.Axes) > 1 {
		v.Pair = template.HTML(draw.GearPair(p.S.Unit.Rotation))
	}
	if p.S.Duty.Theory() {
		v.Theory, v.Other = p.Show(p.S.Found.Theoretical(), "flow"), p.ShowOther(p.S.Found.Theoretical(), "flow")
	}
	return v
}

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
	Left []*unit.Piece
}

// KitRow is a place with the pieces put to it.
type KitRow struct {
	Part   *job.PartState
	Pieces []*unit.Piece
	Full   bool
	Over   bool
}

func (p *Page) kitView() KitView {
	v := KitView{}
	places := map[string]bool{}
	for _, part := range p.S.Parts {
		if part.Place == nil {
			continue
		}
		places[part.Code] = true
		row := KitRow{Part: part, Full: part.Filled >= part.Place.Need, Over: part.Filled > part.Place.Need}
		for _, k := range p.S.Unit.Kit {
			if k.Part == part.Code {
				row.Pieces = append(row.Pieces, k)
			}
		}
		v.Rows = append(v.Rows, row)
	}
	for _, k := range p.S.Unit.Kit {
		if !places[k.Part] {
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
	NewPart  bool
}

// turnWord is how a shaft's feel is spoken of.
func turnWord(code string) string { return strings.ReplaceAll(code, "_", " ") }

// AgainView is a clearance to be taken again.
type AgainView struct {
	Feature *job.FeatureState
	Sheet   *MeasureView
	Part    *job.PartState
}

func (p *Page) buildView() BuildView {
	v := BuildView{Suspect: turnWord(build.Suspect(p.S.Steps())), NewPart: p.Part.Choice() == decide.Replace}
	for _, part := range p.S.Parts {
		if part.Step.Done {
			v.Fitted++
		}
		for _, f := range part.Features {
			if f.Def.Clearance {
				v.Again = append(v.Again, AgainView{f, p.featureView(f, unit.StageBuilt), part})
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
