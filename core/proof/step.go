package proof

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"corvek/core/family"
	"corvek/core/fluidpower"
	"corvek/core/metrology"
	"corvek/core/origin"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Duty is what a unit works at, in base units; the Has flags tell what is known.
type Duty struct {
	Displacement, Speed, Pressure, Viscosity             float64
	HasDisplacement, HasSpeed, HasPressure, HasViscosity bool
}

// Rules are what the figures of a test are judged by, besides its plan.
type Rules struct {
	Accept  family.Accept
	Setting unit.Setting
	Duty    Duty
	Own     func(step, figure string) *unit.StepLimit      // the unit's own limit, nil for none
	Gauge   func(figure string, q quantity.Quantity) Gauge // what a figure was read with
	Read    func(figure string) quantity.Quantity          // of another step of the same run
	// Dynamic viscosity in Pa·s of what a step was run on, where it is known
	Viscosity func(p *unit.Point) (float64, bool)
	// Why what a step was run on is not known well enough, "" where it is
	Oil func(p *unit.Point) string
	// What the job needs, by what limits are shares of; needs says what must be told first.
	Need func(of string) (value float64, needs string)
	// The pressure in Pa that a step is run at; needs says what must be told first.
	Level func(at family.Tight) (pressure float64, needs string)
	// Late tells that a limit of the unit's own was typed after the figure that it judges.
	Late func(step, figure string) bool
}

// Figured is a figure of a step as it was read and judged.
type Figured struct {
	family.Read
	Name        string
	Q           quantity.Quantity
	Value       float64            // what is held against the limits
	Dim         quantity.Dimension // of value and limits; Number of a share
	Uncertainty float64            // expanded, k = 2
	Limits      metrology.Limits
	From        string // who gives the limits
	Verdict     metrology.Verdict
	Needs       string  // what is missing to judge it
	Note        string  // what was worked out
	Heat        float64 // of a decay: what temperature did to it, Pa; valid with Told
	Told        bool    // both temperatures were taken
	Cooling     float64 // of a decay without temperatures: what cooling alone could do, Pa
	Base        float64 // what its limits are a share of, where that is what the job needs; else 0
	Weak        string  // why its verdict carries no claim by itself, "" where it does
}

// Judged is a step of the test with its verdict: out when anything is out, nothing while a
// figure or a word that must be there is missing, undecided where a gauge cannot tell or
// where nothing of it could be judged.
type Judged struct {
	Figures []Figured
	Word    metrology.Verdict
	Verdict metrology.Verdict
	Missing []string // names of what was not read
	Short   bool     // the pressure of the step was not reached
	Target  float64  // pressure in Pa that must be reached, 0 for none
	Needs   string   // what must be told before its level is known
}

// Judgeable reports that anything of the step is held against something.
func (j *Judged) Judgeable() bool {
	return j.Word != "" || slices.ContainsFunc(j.Figures, func(f Figured) bool { return f.Verdict != "" })
}

// Figure finds a figure of the step, nil where it does not read it.
func (j *Judged) Figure(code string) *Figured {
	for i := range j.Figures {
		if j.Figures[i].Figure == code {
			return &j.Figures[i]
		}
	}
	return nil
}

// JudgeStep judges what was noted at a step.
func JudgeStep(t *family.Test, p *unit.Point, r Rules) Judged {
	var j Judged
	if t.Pressure > 0 {
		level, needs := r.level(t.At)
		j.Target, j.Needs = t.Pressure*level, needs
	}
	if len(t.Words) > 0 {
		j.Word = JudgeWord(*t, p.Word)
		if p.Word == "" {
			j.Missing = append(j.Missing, "what was seen")
		}
	}
	verdicts := []metrology.Verdict{j.Word}
	for _, read := range t.Reads {
		f := r.figure(t, read, p)
		if f.Q.IsZero() && !read.May {
			j.Missing = append(j.Missing, f.Name)
		}
		if read.Figure == "pressure" && j.Target > 0 && !f.Q.IsZero() && f.Limits.Empty() {
			if j.Short = !Reached(f.Q.SI, j.Target); j.Short {
				verdicts = append(verdicts, metrology.Out)
			}
		}
		verdicts = append(verdicts, f.Verdict)
		j.Figures = append(j.Figures, f)
	}
	if t.Any && !slices.ContainsFunc(j.Figures, func(f Figured) bool { return f.May && !f.Q.IsZero() }) {
		j.Missing = append(j.Missing, "one of "+strings.Join(mayRead(t), ", "))
	}
	switch worst := metrology.Worst(verdicts...); {
	case worst == metrology.Out:
		j.Verdict = worst
	case len(j.Missing) > 0:
	case worst == "" || j.Needs != "":
		j.Verdict = metrology.Undecided
	default:
		j.Verdict = worst
	}
	return j
}

// mayRead are the names of the figures that can be left out.
func mayRead(t *family.Test) (out []string) {
	for _, read := range t.Reads {
		if g, _ := family.FigureByCode(read.Figure); read.May {
			out = append(out, strings.ToLower(g.Name))
		}
	}
	return out
}

// level is the pressure that a step is run at.
func (r Rules) level(at family.Tight) (pressure float64, needs string) {
	switch {
	case r.Level != nil:
		return r.Level(at)
	case !r.Duty.HasPressure:
		return 0, "duty pressure"
	}
	return r.Duty.Pressure, ""
}

// figure judges one figure, and says why its verdict carries no claim where it does not.
func (r Rules) figure(t *family.Test, read family.Read, p *unit.Point) Figured {
	f := r.judge(t, read, p, true)
	level := read.Figure == "pressure" && t.Pressure >= 1
	oil := r.oil(read.Figure, p)
	switch g := r.gaugeOf(read.Figure, p); {
	case f.Q.IsZero() || f.Weak != "":
		return f
	case p.Taking(read.Figure).From == unit.SourceUnknown:
		f.Weak = "read from a stand that did not say what it is"
	case f.Verdict != "" && oil != "":
		f.Weak = oil
	case f.Verdict != "" || level:
		f.Weak = g.Weak(f.Q)
	case g.Overdue != "" && !read.May: // low figures on the way up are no level
		f.Weak = g.Weak(f.Q)
	}
	if f.Verdict == "" || f.Weak != "" {
		return f
	}
	if own := r.own(t.Code, read.Figure); own != nil {
		f.Weak = r.weak(t, read, p, own.Source)
	} else if read.By == family.BySetting && f.From != guidance {
		f.Weak = r.weak(t, read, p, r.Setting.Source)
	}
	return f
}

// oil says why a figure that goes with the thickness of the oil carries no claim.
func (r Rules) oil(figure string, p *unit.Point) string {
	if g, _ := family.FigureByCode(figure); !g.Thins || r.Oil == nil {
		return ""
	}
	return r.Oil(p)
}

// weak says why a limit that was typed carries no claim: what ships would not let the figure pass,
// nobody says where it is from, or it came after the figure. Where the figure holds against what
// ships as well, the claim rests on that.
func (r Rules) weak(t *family.Test, read family.Read, p *unit.Point, source string) string {
	shipped := r.judge(t, read, p, false)
	switch {
	case shipped.Verdict == metrology.In:
		return ""
	case shipped.Verdict != "":
		return "its limit is looser than guidance"
	case r.Late != nil && r.Late(t.Code, read.Figure):
		return "its limit was typed after it was read"
	case source == "":
		return "nobody says where its limit is from"
	}
	return ""
}

// Who gives a limit: what ships, or what the machine needs.
const (
	guidance = "guidance"
	shop     = "shop" // and nobody says on what paper it stands
	needed   = "as the machine needs"

	complained = "as it was complained of"
)

// Origin tells where the limits of the figure are from.
func (f *Figured) Origin() origin.Origin {
	switch f.From {
	case guidance:
		return origin.Rule
	case needed, complained, shop:
		return origin.Typed
	}
	return origin.Document
}

// judge judges a figure, by the unit's own limits or by what ships alone.
func (r Rules) judge(t *family.Test, read family.Read, p *unit.Point, typed bool) Figured {
	g, _ := family.FigureByCode(read.Figure)
	f := Figured{Read: read, Name: g.Name, Q: p.Figure(read.Figure), Dim: g.Dim}
	if !typed {
		r.Own, r.Setting = nil, unit.Setting{}
	}
	if own := r.own(t.Code, read.Figure); own != nil {
		f.Limits, f.From = ownLimits(own), own.Source
		if f.From == "" {
			f.From = shop
		}
		if read.By != family.ByDecay {
			f.By, f.Of = family.ByLimit, ""
		}
	}
	if read.By != family.ByDecay && (math.IsNaN(f.Q.SI) || f.Q.IsZero()) {
		r.limits(t, &f)
		if family.OfNeed(f.Of) {
			f.Base, f.Needs = r.need(f.Of)
		}
		return f
	}
	f.Value = f.Q.SI
	f.Uncertainty = r.gauge(read.Figure, f.Q).Uncertainty(f.Q)
	r.limits(t, &f)
	r.workOut(t, &f, p)
	if f.Needs == "" && !f.Q.IsZero() && !f.Limits.Empty() {
		f.Verdict = metrology.Judge(f.Value, f.Limits, f.Uncertainty, true).Verdict
	}
	if supply := p.Figure("supply").SI; read.By == family.ByRatio && supply > 0 && !f.Q.IsZero() {
		f.Note = fmt.Sprintf("%.1f to 1", f.Q.SI/supply) // told where the limit is a pressure, too
	}
	r.tooGood(&f)
	r.needed(&f)
	return f
}

// catalogue is the expanded relative uncertainty (k = 2) of an efficiency whose displacement is that
// of a catalogue.
const catalogue = 0.03

// tooGood leaves a figure open that no unit can give: more comes out than goes in.
func (r Rules) tooGood(f *Figured) {
	u := math.Max(f.Uncertainty, catalogue)
	switch {
	case f.Verdict == "":
		return
	case f.By == family.ByEfficiency && f.Value > 1+u, f.By == family.BySlip && f.Value < -u,
		f.By == family.ByOverall && f.Value > 1+u:
		f.Verdict, f.Weak = metrology.Undecided, "more than can be: a gauge is to be found that is wrong"
	}
}

// needed holds a figure against what the machine needs of it, where that was told.
func (r Rules) needed(f *Figured) {
	if f.Read.Need == "" || r.Need == nil || f.Q.IsZero() {
		return
	}
	least, needs := r.Need(f.Read.Need)
	if needs != "" {
		return
	}
	v := metrology.Judge(f.Q.SI, metrology.AtLeast(least), r.gauge(f.Figure, f.Q).Uncertainty(f.Q), true).Verdict
	if f.Verdict = metrology.Worst(f.Verdict, v); v != metrology.In {
		f.Note = "needed: " + quantity.Show(least, f.Q.Dim, quantity.Metric)
	}
}

func (r Rules) own(step, figure string) *unit.StepLimit {
	if r.Own == nil {
		return nil
	}
	own := r.Own(step, figure)
	if own == nil || own.Least.IsZero() && own.Most.IsZero() {
		return nil
	}
	return own
}

func (r Rules) gauge(figure string, q quantity.Quantity) Gauge {
	if r.Gauge == nil {
		return Gauge{}
	}
	return r.Gauge(figure, q)
}

// gaugeOf is what a figure of a step was read with; a stand and its log name their own sensors.
func (r Rules) gaugeOf(figure string, p *unit.Point) Gauge {
	g := r.gauge(figure, p.Figure(figure))
	switch p.Taking(figure).From {
	case unit.SourceStand, unit.SourceLog:
		g.Unnamed = false
	}
	return g
}

func ownLimits(l *unit.StepLimit) metrology.Limits {
	return metrology.Limits{Lower: l.Least.SI, HasLower: !l.Least.IsZero(), Upper: l.Most.SI,
		HasUpper: !l.Most.IsZero()}
}

// limits fills in the shipped limits where the unit has none of its own.
func (r Rules) limits(t *family.Test, f *Figured) {
	if f.From != "" {
		return
	}
	f.From = guidance
	switch f.By {
	case family.BySetting:
		f.Limits = ReliefBand(r.Accept, r.Setting, r.Duty.Pressure)
		if r.Setting.Low.IsZero() && r.Setting.High.IsZero() {
			break
		}
		f.From = shop
		if r.Setting.Source != "" {
			f.From = r.Setting.Source
		}
		return
	case family.ByEfficiency:
		if r.Accept.EfficiencyDuty > 0 {
			f.Limits, f.Dim = metrology.AtLeast(Band(r.Accept, t.Pressure)), quantity.Number
		}
		return
	}
	dim := f.Dim
	if f.Relative() {
		dim = quantity.Number
	}
	if q, err := quantity.Parse(f.Least, dim); err == nil && f.Least != "" {
		f.Limits.Lower, f.Limits.HasLower = q.SI, true
	}
	if q, err := quantity.Parse(f.Most, dim); err == nil && f.Most != "" {
		f.Limits.Upper, f.Limits.HasUpper = q.SI, true
	}
	f.Dim = dim
	if f.Of != "" && family.OfNeed(f.Of) {
		f.From = needed
	}
	if t.Code == family.ComplaintTest {
		f.From = complained
	}
	if apart, needs := r.need("need_apart"); f.By == family.ByTwin && needs == "" {
		f.Limits, f.From = metrology.AtMost(apart), needed
	}
}

// workOut turns the figure into what its limits speak of.
func (r Rules) workOut(t *family.Test, f *Figured, p *unit.Point) {
	theory, needs := r.theory(p)
	share := func(of float64) {
		f.Value, f.Uncertainty, f.Dim = f.Value/of, f.Uncertainty/of, quantity.Number
	}
	switch f.By {
	case family.ByEfficiency:
		if f.Needs = needs; needs == "" {
			share(theory)
			r.corrected(f, p)
		}
		return
	case family.ByDisplacement:
		speed := p.Figure("speed").SI
		switch {
		case !r.Duty.HasDisplacement:
			f.Needs = "displacement"
		case speed <= 0:
			f.Needs = "speed"
		default:
			f.Note = quantity.Show(f.Value*60/speed, quantity.Displacement, quantity.Metric)
			share(r.Duty.Displacement * speed / 60)
		}
		return
	case family.BySlip:
		if f.Needs = needs; needs == "" {
			f.Uncertainty /= theory
			f.Value, f.Dim = (f.Value-theory)/theory, quantity.Number
		}
		return
	case family.ByTwin:
		other := p.Figure("outlet_a")
		if mean := (f.Value + other.SI) / 2; other.IsZero() || mean <= 0 {
			f.Needs = "the other outlet"
		} else {
			f.Uncertainty = math.Hypot(f.Uncertainty, r.gauge("outlet_a", other).Uncertainty(other)) / mean
			f.Value, f.Dim = math.Abs(f.Value-other.SI)/mean, quantity.Number
		}
		return
	case family.ByRatio:
		supply := p.Figure("supply").SI
		if supply <= 0 {
			f.Needs = "supply pressure"
		} else {
			share(supply)
		}
		return
	case family.ByReseat:
		if cracked := r.other("cracking"); cracked.SI <= 0 {
			f.Needs = "the cracking pressure"
		} else {
			share(cracked.SI)
		}
		return
	case family.ByDecay:
		r.decay(t, f, p)
		return
	case family.ByOverall:
		r.overall(t, f, p)
		return
	case family.ByShot:
		r.shot(f, p)
		return
	}
	switch f.Of {
	case family.OfStart:
		if start := p.Figure("pressure").SI; start > 0 {
			share(start)
		} else {
			f.Needs = "pressure"
		}
	case family.OfDuty:
		if f.Needs = "duty pressure"; r.Duty.HasPressure {
			f.Needs = ""
			share(r.Duty.Pressure)
		}
	case family.OfTheory:
		if f.Needs = needs; needs == "" {
			share(theory)
		}
	case family.OfTorque:
		pressure := p.Figure("pressure").SI
		switch {
		case !r.Duty.HasDisplacement:
			f.Needs = "displacement"
		case pressure <= 0:
			f.Needs = "pressure"
		default:
			share(fluidpower.TheoreticalTorque(pressure, r.Duty.Displacement))
		}
	case "":
	default:
		of, needs := r.need(f.Of)
		if f.Needs = needs; needs == "" {
			f.Base = of
			share(of)
		}
	}
}

// need is what the job needs, above zero.
func (r Rules) need(of string) (value float64, needs string) {
	if r.Need == nil {
		return 0, family.NeedWords(of)
	}
	if value, needs = r.Need(of); needs == "" && value <= 0 {
		needs = family.NeedWords(of) + " above zero"
	}
	return value, needs
}

// shot is what was caught over the strokes that gave it, as a share of the shot that is needed.
func (r Rules) shot(f *Figured, p *unit.Point) {
	shot, needs := r.need("need_shot")
	strokes := p.Figure("strokes").SI
	switch {
	case strokes <= 0:
		f.Needs = "strokes"
	case needs != "":
		f.Needs = needs
	default:
		f.Note = quantity.Show(f.Value/strokes, quantity.Volume, quantity.Metric) + " a stroke"
		f.Value, f.Uncertainty, f.Dim = f.Value/strokes/shot, f.Uncertainty/strokes/shot, quantity.Number
	}
}

func (r Rules) other(figure string) quantity.Quantity {
	if r.Read == nil {
		return quantity.Quantity{}
	}
	return r.Read(figure)
}

// theory is the theoretical flow at the speed that was read, else at duty speed, m3/s.
func (r Rules) theory(p *unit.Point) (flow float64, needs string) {
	speed := r.Duty.Speed
	if s := p.Figure("speed").SI; s > 0 {
		speed = s
	}
	switch {
	case !r.Duty.HasDisplacement:
		return 0, "displacement"
	case speed <= 0:
		return 0, "speed"
	}
	return fluidpower.TheoreticalFlow(r.Duty.Displacement, speed), ""
}

// correctionDoubt is the share of a viscosity correction that is taken as its uncertainty.
const correctionDoubt = 0.2

// leastLaminar is the share of theory under which what is missing is no leak past clearances.
const leastLaminar = 0.5

// corrected brings a volumetric efficiency to the viscosity at duty: what is missing to
// theory is laminar leak, which goes as one over the viscosity. Only where the viscosity of the oil
// at the test is known, and not where so much is missing that a relief
// holds the flow or a passage is open.
func (r Rules) corrected(f *Figured, p *unit.Point) {
	if !r.Duty.HasViscosity || r.Viscosity == nil || f.Value >= 1 || f.Value < leastLaminar {
		return
	}
	at, known := r.Viscosity(p)
	if !known {
		return
	}
	raw := f.Value
	f.Value = 1 - (1-raw)*at/r.Duty.Viscosity
	f.Uncertainty = math.Hypot(f.Uncertainty, correctionDoubt*(f.Value-raw))
	f.Note = fmt.Sprintf("%.1f %% as read; brought to the viscosity at duty", 100*raw)
}
