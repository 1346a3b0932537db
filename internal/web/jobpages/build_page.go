package jobpages

import (
	"fmt"
	"html/template"
	"strings"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/draw"
	"corvek/internal/web/site"
)

// BuildPage is the fitting of one part, and how far the unit is built.
type BuildPage struct {
	JobPage
	Run          *RunList // while no part's own sheet shows
	List         string   // the address of the running list
	No           int
	Part         *bench.Part
	NewPart      bool
	Fitted       Press // or taken out again
	Next         string
	Suspect      string // since which joint the shaft drags
	Fit          FitView
	Turning      template.HTML // how hard it turned after each joint
	Filling      []FillRow
	Shots        []site.Named // pictures of the part: address and caption
	Stack        *StackView
	Facing       *Choice
	Tight        *TightView
	Turn         *Choice // how the shaft feels, where that is to be felt
	TurnRound    *Choice // since which round of tightening it does not go freely
	Feel         []Entry // figures beside the feel
	Note         Entry
	HowItGoes    string
	Modification string
	ModKept      Entry
	FittedCount  int
	PartCount    int
	Again        []AgainView
	Ways         []WayView // that saved the part, with its new measure
	LeakAfter    string    // "" until it is known
	LeakFound    string
	Cautions     Cautions
	Stops        []StopRow
	Reckon       ReckonView
}

// TightView is how a joint is tightened.
type TightView struct {
	Unknown       bool
	Snug          bool // even and snug is enough
	Source        string
	Torque, Other string // "" where none is told
	Angle         string // spanner and angle in its place
	Range         string // over the usual classes, of a head mark that nobody read
	Rounds        []string
	Circle        template.HTML
	Entry         Entry
	Says          string // thread and class it is worked out for
	Own           *JointView
	Load          string // what the typed torque does
	Over          bool
}

// AgainView is a clearance to be taken again.
type AgainView struct {
	Name  string
	Open  bool
	Sheet *FeatureSheet
	Made  []Entry // the size a rework brought it to
}

// made asks to what size a rework brought a feature that is a size.
func (l *look) made(f *bench.Feature) []Entry {
	if !f.Spec.IsSize() {
		return nil
	}
	return l.fields(func(name string) unit.Ref { return l.unit.FeatureRef(f.Part.Code, f.Code, name) },
		[]string{"made_low", "made_high", "made_source"})
}

func buildPage(l *look) BuildPage {
	x := l.part
	p := BuildPage{
		JobPage:      l.page(),
		Run:          l.runList(),
		List:         withQuery(l.link("build", "", ""), "list=all"),
		No:           l.partNo(),
		Part:         x,
		NewPart:      x.Choice() == decide.Replace,
		Fitted:       l.toggle(l.unit.StepRef(x.Code, "done"), x.Step.Done),
		Suspect:      wording.Plain(build.Suspect(l.st.Steps())),
		Stack:        l.stack(true),
		Tight:        l.tightening(),
		Note:         l.field(l.unit.StepRef(x.Code, "note")),
		Modification: l.unit.Modification,
		HowItGoes:    howItGoes(x),
		ModKept:      l.field(l.unit.Ref("modification_kept")),
		PartCount:    len(l.st.Parts),
		Again:        l.again(),
		Cautions:     l.cautions(),
		Stops:        l.stops(),
		Reckon:       l.reckons(l.link("build", x.Code, "")),
	}
	if !x.AsksFeel() { // the feel of the shaft is asked before the next part
		_, p.Next = l.neighbours()
	}
	p.Fit, p.Turning, p.Filling, p.Shots = l.fit(), l.turning(), l.filling(), l.shotsOf(x)
	for _, w := range l.ways(x) {
		if w.Goes.On && x.Choice() == decide.Rework {
			p.Ways = append(p.Ways, w)
		}
	}
	if ways, _ := build.FittingWays(x.Def); len(ways) > 0 {
		facing := l.choose(l.unit.StepRef(x.Code, "facing")).Tall()
		p.Facing = &facing
	}
	if x.AsksFeel() {
		turn := l.choose(l.unit.StepRef(x.Code, "turn")).Tall()
		p.Turn = &turn
		p.Feel = l.fields(l.step, feltBy(x.Def))
		if build.Turn(x.Step.Turn).Bad() && x.Def.TurnCheck {
			since := l.choose(l.unit.StepRef(x.Code, "turn_round"))
			p.TurnRound = &since
		}
		if build.Turn(x.Step.Turn).Bad() || p.Suspect != "" {
			p.Feel = append(p.Feel, l.field(l.step("proud")))
		}
	}
	for _, part := range l.st.Parts {
		if part.Step.Done {
			p.FittedCount++
		}
	}
	if l.st.Leak.Known {
		p.LeakAfter = l.Show(l.st.Leak.Rebuilt, quantity.Flow)
		p.LeakFound = l.Show(l.st.Leak.Flow, quantity.Flow)
	}
	return p
}

// again are the clearances that are measured once more as the unit is built.
func (l *look) again() (out []AgainView) {
	for _, part := range l.st.Parts {
		for _, f := range part.Features {
			if f.Def.Clearance {
				out = append(out, AgainView{Name: f.Def.Name, Open: !f.Built.Any, Sheet: l.sheet(f, unit.StageBuilt)})
			}
		}
	}
	return out
}

// tightening is how the chosen part is bolted on; nil where it is not.
func (l *look) tightening() *TightView {
	j, bolted := build.JointOf(l.part.Def, l.part.Joint)
	if !bolted {
		return nil
	}
	t, err := build.Tighten(j)
	v := &TightView{Snug: l.part.Joint.Snug, Unknown: t.Unknown || t.Torque == 0, Source: t.Source,
		Entry: l.field(l.unit.StepRef(l.part.Code, "torque"))}
	switch {
	case !j.Bolts && j.Angle != "":
		v.Angle, v.Unknown = j.Angle, false
	case t.Torque > 0:
		v.Torque, v.Other = l.Show(t.Torque, quantity.Torque), l.Other(t.Torque, quantity.Torque)
	case t.High > 0:
		v.Range = l.Show(t.Low, quantity.Torque) + " to " + l.Show(t.High, quantity.Torque)
	}
	if err != nil {
		v.Unknown, v.Source = true, err.Error()
	}
	if load, ok := j.Loads(l.part.Step.Torque.SI); ok {
		switch {
		case load.Unknown:
			v.Load, v.Over = "no torque is safe before the head mark is read", true
		default:
			v.Load = fmt.Sprintf("%.0f %% of proof load", 100*load.Share)
			v.Over = load.Over
		}
	}
	v.Own = l.joint(l.part)
	v.Says = j.Thread
	if j.Class != "" {
		v.Says += ", class " + strings.ReplaceAll(j.Class, "_", " ")
	}
	if len(t.Order) > 0 {
		v.Circle = template.HTML(draw.BoltCircle(t.Order))
	}
	for _, s := range t.Stages {
		v.Rounds = append(v.Rounds, l.Show(s, quantity.Torque))
	}
	return v
}
