package jobpages

import (
	"fmt"
	"html/template"
	"slices"
	"strings"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/fluid"
	"corvek/core/machine"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/answer"
	"corvek/internal/draw"
	"corvek/internal/job"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// ReceivePage is what came in: the complaint, the unit and its duty, and as it
// was received.
type ReceivePage struct {
	JobPage
	Told      []Entry // the complaint and who told it
	Accounts  []*unit.Account
	Symptoms  []SymptomPress
	Changes   []Entry
	Families  []site.Named // for another unit
	Stands    Press        // the machine, with none in its place
	Hold      Press        // the warranty hold
	HoldNote  Entry
	Plate     []Entry
	Rotation  *Choice       // nil of what does not turn
	Gears     template.HTML // a gear pair that turns as chosen
	Variants  string        // how the family tells its variants apart
	Duty      []Entry
	Tabs      Tabs
	Face      string
	Flow      *Answer // theoretical
	WantsFlow bool
	Notes     []Note     // of its duty
	Points    []PointRow // as received
	NoBefore  Entry      // why there are none
	PartOnly  []Entry    // that only a part is asked for, and what is asked then
	AsksPart  bool
	Gauge     *Verdict // what the gauges say, over the page
	Gauges    *GaugeFace
	OnBench   []store.Same // open jobs of this very unit
	Perhaps   []store.Same // of this customer and model, where a serial is missing
	Before    []BeforeRow
	History   string   // address of all that was found on this unit over the years, "" of one that was never here
	Shares    []string // what of this unit can be said of the others of its job
	Variant   *VariantFace
	Sheets    []SheetOffer
	Fluid     *FluidFace
	Needs     *NeedFace
	Cautions  Cautions
	Stops     []StopRow
	Waiting   Choice
	WaitNote  Entry
}

// Note is something that follows from what was told.
type Note struct{ Tone, Text string }

// SymptomPress is a symptom that may be tapped.
type SymptomPress struct {
	Press
	Text string
}

// Answer is a figure with the same in the other units.
type Answer struct{ Text, Other string }

// Verdict is what something comes to: a word and a sentence.
type Verdict struct{ Tone, Verdict, Words string }

// BeforeRow is an earlier job of this very unit, in words.
type BeforeRow struct {
	Tag   string
	Unit  int
	Words string
}

func beforeRows(before []job.Before) (out []BeforeRow) {
	for _, b := range before {
		words := "handed over " + b.At.Format("2 Jan 2006") + "."
		if b.Ending != "" {
			words += " " + wording.Endings[b.Ending] + "."
		}
		if b.Cause != "" {
			words += " Cause then: " + b.Cause + "."
		}
		if b.Statement != "" {
			words += " “" + b.Statement + "”"
		}
		if len(b.Renewed) > 0 {
			words += " Renewed: " + strings.ToLower(strings.Join(b.Renewed, ", ")) + "."
		}
		out = append(out, BeforeRow{b.Tag, b.Unit, words})
	}
	return out
}

// turns reports that the unit is asked displacement, speed and way round, or that one of them was told all the same.
func (l *look) turns() bool {
	u := l.unit
	return l.st.Family.Turned() || u.Rotation != "" || !u.Displacement.IsZero() || !u.Speed.IsZero()
}

func receivePage(l *look, families []site.Named, same job.Same) ReceivePage {
	f := l.st.Family
	p := ReceivePage{
		Gauge:    l.overGauges(),
		JobPage:  l.page(),
		OnBench:  same.Open,
		Perhaps:  same.Perhaps,
		Before:   beforeRows(same.Before),
		Shares:   entry.SharedLabels(entry.SharedBy(l.st.Job, l.unitNo, l.st.Asks)),
		PartOnly: l.ofJob("part_only", "valves_at"), AsksPart: l.st.Job.PartOnly != "",
		Told:     l.ofJob("complaint", "caller"),
		Accounts: l.unit.Accounts,
		Symptoms: l.symptoms(),
		Changes:  l.ofUnit("changed", "modification"),
		Families: families,
		Stands:   l.toggle(unit.JobRef("stands"), l.job.Stands),
		Hold:     l.toggle(unit.JobRef("warranty_hold"), l.job.WarrantyHold),
		HoldNote: l.field(unit.JobRef("warranty_note")),
		Plate:    l.ofUnit("maker", "model", "serial", "variant"),
		Variants: f.Variants,
		Face:     l.face,
		NoBefore: l.field(l.unit.Ref("no_before")),
		Cautions: l.cautions(),
		Stops:    l.stops(),
		Waiting:  l.choose(unit.JobRef("waiting")).Wrap(),
		WaitNote: l.field(unit.JobRef("waiting_note")),
	}
	if len(same.Before)+len(same.Open) > 0 {
		p.History = l.link("history", "", "")
	}
	duty := []string{"machine", "asset"}
	if l.turns() {
		p.Plate = append(p.Plate, l.field(l.unit.Ref("displacement")))
		rotation := l.choose(l.unit.Ref("rotation"))
		p.Rotation = &rotation
		duty = append(duty, "speed")
	}
	duty = append(duty, "duty_pressure", "rated_pressure", "fluid", "viscosity", "density", "temperature", "hours",
		"filtration")
	p.Duty = append(l.ofUnit(duty...), l.field(unit.JobRef("promised_on")))
	sets := func(t family.Test) bool { return t.Judges(family.BySetting) }
	if slices.ContainsFunc(f.Tests, sets) {
		p.Duty = append(p.Duty, l.ofUnit("setting_low", "setting_high", "setting_source")...)
	}
	p.Notes = l.dutyNotes()
	if len(f.Axes) > 1 {
		p.Gears = template.HTML(draw.GearPair(l.unit.Rotation))
	}
	p.Tabs = Tabs{l.tab("", "As received")}
	if len(f.Gauge) > 0 {
		p.Tabs = append(p.Tabs, l.tab("gauges", "Gauges first"))
	}
	if len(f.Marks) > 0 || len(f.VariantRules) > 0 {
		p.Tabs = append(p.Tabs, l.tab("variant", "Variant"))
	}
	p.Tabs = append(p.Tabs, l.tab("needs", "What it must do"), l.tab("fluid", "Fluid"))
	switch l.face {
	case "gauges":
		p.Gauges = l.gaugeFace()
	case "variant":
		p.Variant = l.variantFace()
	case "needs":
		p.Needs = l.needFace()
	case "fluid":
		p.Fluid = l.fluidFace()
	default:
		p.asReceived(l)
	}
	return p
}

// dutyNotes are what follows from the duty as it was told: what it is asked against its rating, and whether the
// strainer lets this fluid through.
func (l *look) dutyNotes() (out []Note) {
	if r, told := l.st.Rating(); told {
		tone := ""
		if r.Over {
			tone = "red"
		}
		out = append(out, Note{tone, r.Words})
	}
	if s, told := fluid.ScreenIn(l.unit.Filtration); told {
		if words, fine := s.Says(l.unit.Viscosity.SI, l.unit.Fluid); fine {
			out = append(out, Note{"ochre", words})
		} else if words != "" {
			out = append(out, Note{"", words})
		}
	}
	return out
}

// asReceived lays out what the unit must do, and what it did.
func (p *ReceivePage) asReceived(l *look) {
	if l.st.Duty.Theory() {
		flow := l.st.Found.Theoretical()
		p.Flow = &Answer{l.Show(flow, quantity.Flow), l.Other(flow, quantity.Flow)}
	}
	p.WantsFlow = l.st.Family.Action == "pump"
	if l.st.Received != nil {
		p.Points = l.pointRows(l.st.Received)
	}
}

func (l *look) symptoms() (out []SymptomPress) {
	for _, code := range l.st.Family.Symptoms {
		text, _ := family.SymptomText(code)
		out = append(out, SymptomPress{l.toggle(unit.SymptomRef(code), l.job.HasSymptom(code)), text})
	}
	return out
}

// GaugeFace is what is asked at the machine before the unit is blamed.
type GaugeFace struct {
	Verdict
	NotAsked  Entry
	Questions []Question
}

// Question is something asked, with its answers to tap.
type Question struct {
	Ask, How string
	Answers  Choice
}

func (l *look) gaugeFace() *GaugeFace {
	face := &GaugeFace{Verdict: l.gaugeVerdict(), NotAsked: l.field(l.unit.Ref("not_asked"))}
	for _, code := range l.st.Family.Gauge {
		q, ok := family.QuestionByCode(code)
		if !ok {
			continue
		}
		answers := l.choose(l.unit.GaugeRef(code)).Named(q.Ask).Wrap()
		for i := range answers.Options {
			answers.Options[i].Words = q.Answers[i].Say
		}
		face.Questions = append(face.Questions, Question{q.Ask, q.How, answers})
	}
	return face
}

// overGauges is what the gauges say where it stands over a page, nil where the
// family has no questions.
func (l *look) overGauges() *Verdict {
	if len(l.st.Family.Gauge) == 0 {
		return nil
	}
	v := l.gaugeVerdict()
	return &v
}

// gaugeVerdict says what the answers come to.
func (l *look) gaugeVerdict() Verdict {
	g := l.st.Gauge
	because, ask := strings.Join(g.Because, "; "), ""
	if q, known := family.QuestionByCode(g.Ask); known {
		ask = q.Ask
	}
	story := ""
	if g.Lead != nil {
		story = " (" + strings.ToLower(g.Lead.Name) + ")"
	}
	switch nobody := l.unit.NotAsked; g.Holds(nobody != "") {
	case machine.HoldCleared:
		return Verdict{"red", "CLEARED", "Do not open: " + because + story}
	case machine.HoldFirst:
		return Verdict{"red", "FIRST", "before anything is opened: " + ask}
	case machine.HoldElsewhere:
		return Verdict{"ochre", "ELSEWHERE", "Look there first: " + because + story}
	case machine.HoldNotTold:
		if g.Told == 0 {
			return Verdict{"ochre", "?", "not checked at the machine yet. Begin with: " + ask}
		}
		return Verdict{"ochre", "?", "not settled yet. What would tell most: " + ask}
	default:
		switch {
		case g.Verdict == machine.AtUnit:
			return Verdict{"petrol", "AT THE UNIT", because + story}
		case nobody != "":
			return Verdict{"ochre", "NOT ASKED", nobody}
		}
		return Verdict{"petrol", "TO BE OPENED",
			"what can be asked at the machine was asked; nothing points elsewhere"}
	}
}

// VariantFace is which variant the marks on the outside make it.
type VariantFace struct {
	Verdict
	Facts   []Fact // of the variant, in words
	Adopt   *Press // writes its name on the plate
	Doubts  []string
	Marks   []Question
	Matches []family.Match
}

// Fact is a named value.
type Fact struct{ Name, Value string }

func (l *look) variantFace() *VariantFace {
	r := l.st.Variant
	face := &VariantFace{Doubts: r.Doubts, Matches: r.Matches}
	if r.Chosen != nil {
		v := r.Chosen.Variant
		face.Verdict = Verdict{"petrol", v.Name, "by: " + r.Why}
		for _, f := range []Fact{{"kit", v.Kit}, {"stack", v.Stack}, {"spring", v.Spring}, {"note", v.Note}} {
			if f.Value != "" {
				face.Facts = append(face.Facts, f)
			}
		}
		if l.unit.Variant != v.Name && l.CanWork() {
			adopt := l.press(l.unit.Ref("variant"), v.Name, l.unit.Variant)
			face.Adopt = &adopt
		}
	} else if r.Why != "" {
		face.Verdict = Verdict{"ochre", "?", r.Why}
	}
	for _, m := range l.st.Family.Marks {
		q := Question{Ask: answer.Capital(m.What), How: "weak: finishes and labels change",
			Answers: l.choose(l.unit.IdentityRef(m.Code)).Named(m.What)}
		if m.Strong {
			q.How = "cast or stamped: strong"
		}
		face.Marks = append(face.Marks, q)
	}
	return face
}

// FluidFace is what was in it and what came out.
type FluidFace struct {
	Verdict
	Fields []Entry
	Look   Entry
	Fault  string
	Rows   []answer.Row
	Until  string // how the timer stands
	Timer  []Entry
}

func (l *look) fluidFace() *FluidFace {
	face := &FluidFace{
		Fields: l.ofUnit("capacity", "level_before", "drained", "water", "gained_elsewhere", "vessel"),
		Look:   l.field(l.unit.Ref("drained_look")), Fault: l.st.BalanceFault,
		Until: timerWords(&l.job.TimerUntil, l.Now), Timer: l.ofJob("timer_until", "timer_note"),
	}
	if l.st.Balance != nil {
		face.Verdict, face.Rows = l.balanceVerdict(), answer.Rows(l.st.Balance, l.Units)
	}
	return face
}

// balanceVerdict says how the fluid balance stands.
func (l *look) balanceVerdict() Verdict {
	verdict, _ := l.st.Balance.Get("verdict").(string)
	missing, known := l.st.Balance.Value("unexplained")
	switch {
	case verdict == "balanced":
		if !l.unit.GainedElsewhere.IsZero() {
			held := l.unit.GainedElsewhere.In(l.Units)
			return Verdict{"ochre", "ACCOUNTED FOR", "another sump holds " + held + " of it"}
		}
		return Verdict{"petrol", "BALANCED", "what came out accounts for what was in it"}
	case verdict == "short":
		return Verdict{"red", "SHORT",
			l.Show(missing, quantity.Volume) + " went somewhere: look for a sump that gained"}
	case known:
		return Verdict{"ochre", "?", "undecided: more came out than was in it; look at the level before again"}
	}
	return Verdict{"ochre", "?", "undecided: the level before draining is not known"}
}

func (s *Pages) addUnit(c *echo.Context) error {
	n, err := s.Jobs.AddUnit(
		c.Request().Context(),
		site.Who(c),
		c.Param("tag"),
		c.FormValue("family"),
		c.FormValue("name"),
	)
	if err != nil {
		return err
	}
	return site.OK(c, map[string]any{"go": fmt.Sprintf("/jobs/%s/receive?unit=%d", c.Param("tag"), n)})
}

func (s *Pages) share(c *echo.Context) error {
	return site.Done(c, s.Jobs.SayOfAll(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c)))
}

func (s *Pages) addAccount(c *echo.Context) error {
	return site.Done(c, s.Jobs.AddAccount(c.Request().Context(), site.Who(c), c.Param("tag"), unitNo(c),
		c.FormValue("teller"), c.FormValue("words")))
}

// join hands what was told here over to another open job of the same unit.
func (s *Pages) join(c *echo.Context) error {
	to := c.FormValue("to")
	if err := s.Jobs.JoinAsAccount(c.Request().Context(), site.Who(c), c.Param("tag"), to); err != nil {
		return err
	}
	return site.OK(c, map[string]any{"go": "/jobs/" + to + "/receive"})
}
