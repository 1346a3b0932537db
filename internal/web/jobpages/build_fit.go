package jobpages

import (
	"cmp"
	"fmt"
	"html/template"
	"math"
	"strings"
	"time"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/draw"
)

// FitView is what goes in and how: drawn, counted, wetted, over what.
type FitView struct {
	Glyph    template.HTML
	Where    string // its branch
	Must     int    // pieces that are counted in, 0 where that is not asked
	Count    Entry
	Wrong    bool     // as many did not go in
	Wet      string   // with which fluid
	Checks   []string // what is looked to
	Belongs  string   // the way it goes in
	Flipped  bool     // it was fitted another way
	Open     string   // what belongs under it and is not in yet
	Over     string   // what was missing when it went in
	OrderWhy Entry
	TakenOut int
	Rounds   []RoundRow // how it was fitted in each round, where there were several
	Lip      *LipView
	Cycled   *Press // moved by hand over its whole way
}

// LipView is where a new lip runs beside the old track.
type LipView struct {
	Groove  string // how deep the old track is, "" where none need be minded
	Track   string // what is known of it then
	Folded  bool   // nothing of it is asked unless it is opened
	Margin  string // from the lip to the track, as pressed or flush
	Pressed bool
	Fields  []Entry
	Press   Entry
	Spans   string
	None    bool
	OnOld   bool
	Needs   string
	Drawing template.HTML
	Steps   []string
}

// RoundRow is how a part was fitted in one round.
type RoundRow struct {
	No   int
	Said string
	By   string
}

// rounds are how the chosen part was fitted, round by round.
func (l *look) rounds() (out []RoundRow) {
	for _, s := range l.part.Steps {
		said := []string{}
		for _, text := range []string{s.Facing, wording.Behind("counted in ", s.Count),
			wording.Behind("stack ", s.StackFit),
			wording.Behind("stack as it came out ", s.StackRemoved), wording.Behind("tightened to ", s.Torque.Typed),
			wording.Behind("pressed to ", s.Press.Typed), wording.Plain(s.Turn),
			wording.Behind("turned by ", s.TurnTorque.Typed), wording.Behind("moved by ", s.Push.Typed),
			wording.Behind("before ", s.Over), s.Note} {
			if text != "" {
				said = append(said, text)
			}
		}
		if !s.Done {
			said = append([]string{"out"}, said...)
		} else if len(said) == 0 {
			said = []string{"fitted"}
		}
		out = append(out, RoundRow{s.Round, strings.Join(said, " · "), s.By})
	}
	if len(out) < 2 {
		return nil
	}
	return out
}

// step addresses a field of the fitting of the chosen part.
func (l *look) step(name string) unit.Ref { return l.unit.StepRef(l.part.Code, name) }

func (l *look) fit() FitView {
	x := l.part
	v := FitView{Glyph: template.HTML(draw.Glyph(x.Def.Kind, x.Def.Shape, 96)), Where: x.Def.Branch,
		Checks: build.ChecksOf(x.Def), Over: x.Step.Over, OrderWhy: l.field(l.step("order_why")),
		TakenOut: x.Step.TakenOut, Rounds: l.rounds()}
	_, v.Belongs = build.FittingWays(x.Def)
	if must, asked := l.st.CountsIn(x); asked {
		v.Must, v.Count = must, l.field(l.step("count"))
		v.Wrong = x.Step.Count != "" && x.Step.Count != fmt.Sprint(must)
	}
	v.Wet = l.wets(x)
	if !x.Step.Done {
		v.Open = strings.Join(l.under(), ", ")
	}
	if x.Def.Kind == "lip_seal" {
		v.Lip = l.lip()
	}
	v.Flipped = x.Step.Facing != "" && v.Belongs != "" && x.Step.Facing != v.Belongs
	if x.Def.Reaches {
		cycled := l.toggle(l.step("cycled"), x.Step.Cycled)
		v.Cycled = &cycled
	}
	return v
}

// wets is the fluid that a part goes in wet with, "" of one that goes in dry.
func (l *look) wets(x *bench.Part) string {
	if !build.Wets(x.Def) {
		return ""
	}
	return cmp.Or(l.unit.Fluid, "the system's own fluid")
}

// under are the parts that belong under the chosen one and are not fitted yet.
func (l *look) under() (out []string) {
	for _, p := range l.st.Under(l.part) {
		out = append(out, strings.ToLower(p.Name))
	}
	return out
}

// feltBy are the figures that can be taken beside the feel: what turns has a torque, what
// slides a force.
func feltBy(def *family.Part) []string {
	switch def.Kind {
	case "spool", "poppet", "piston", "disc_valve":
		return []string{"push"}
	}
	return []string{"turn_torque"}
}

func (l *look) lip() *LipView {
	x := l.part
	track := l.st.Track(x)
	length := draw.Length(l.Units)
	run := build.LipOf(x.Part.Lip, x.Seal.Width, x.Step.Press, length)
	v := &LipView{Fields: l.ofPart("lip_groove", "lip_groove_width", "seal_width", "lip_position", "lip_bore",
		"lip_shoulder"), Press: l.field(l.step("press")), Spans: strings.Join(run.Spans, " or "), None: run.None,
		OnOld: run.OnOld, Needs: run.Needs}
	v.Folded = !track.Worn() && x.Part.Lip == (unit.Lip{}) && x.Step.Press.IsZero()
	switch {
	case !track.Known:
		v.Track = "track on the shaft not measured"
	case track.Gone != "":
		v.Track = "no old track: the shaft is " + track.Gone
	case track.Worn():
		v.Groove = length(track.Depth)
	default:
		v.Track = length(math.Max(0, track.Depth)) + " of track: less than a nail catches"
	}
	if run.Known {
		v.Margin, v.Pressed = length(math.Max(0, run.Margin)), !x.Step.Press.IsZero()
		v.Steps = run.Output.Steps
		p := x.Part.Lip
		v.Drawing = template.HTML(draw.LipOffset{Groove: p.Groove.SI, GrooveWidth: p.Width.SI, Seal: x.Seal.Width.SI,
			Lip: p.Position.SI, Bottom: p.Bore.SI, Depth: x.Step.Press.SI, HasDepth: !x.Step.Press.IsZero(),
			Word: x.Step.Press.Typed}.SVG())
	}
	return v
}

// turning draws how the shaft turned over the steps.
func (l *look) turning() template.HTML {
	var steps []draw.TurnStep
	all := l.st.Steps()
	for i, s := range all {
		if s.Asks && s.Done {
			steps = append(steps, draw.TurnStep{No: i + 1, Torque: s.Torque,
				Feel: strings.ReplaceAll(string(s.Turn), "_", " "), Bad: s.Turn.Bad()})
		}
	}
	at := -1
	if stiff := build.StiffAt(all); stiff >= 0 {
		for i, s := range steps {
			if s.No == stiff+1 {
				at = i
			}
		}
	}
	return template.HTML(draw.Turning(steps, at, func(nm float64) string { return l.Show(nm, quantity.Torque) }))
}

// FillRow is a step by which the unit gets its oil, with when it was done.
type FillRow struct {
	Words string
	Done  Press
	None  Press
	When  string // "" while open
}

func (l *look) filling() (out []FillRow) {
	for _, f := range l.st.Filling() {
		is := l.unit.Filled[f.Code]
		r := FillRow{Words: f.Words, Done: l.press(l.unit.FillRef(f.Code), "yes", is),
			None: l.press(l.unit.FillRef(f.Code), build.FillNone, is)}
		t, err := time.Parse(time.RFC3339, is)
		switch {
		case is == build.FillNone:
			r.When, r.None.On, r.None.Value = "does not apply", true, ""
		case err == nil:
			r.When, r.Done.On, r.Done.Value = t.Local().Format("Mon 2 Jan 15:04"), true, ""
		}
		out = append(out, r)
	}
	return out
}

// howItGoes is what is asked of a part that was moved by hand.
func howItGoes(x *bench.Part) string {
	switch {
	case x.Def.TurnCheck:
		return "Turned by hand after each round of tightening: how does it go?"
	case x.CameStuck():
		return "It came off " + wording.Plain(x.Stuck) + ". Move it by hand through its whole way: how does it go?"
	}
	return "Move it by hand through its whole way: how does it go?"
}
