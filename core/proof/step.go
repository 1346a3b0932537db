package proof

import (
	"fmt"
	"math"
	"slices"

	"corvek/core/family"
	"corvek/core/fluidpower"
	"corvek/core/metrology"
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
	Own     func(step, figure string) *unit.StepLimit // the unit's own limit, nil for none
	Gauge   func(figure string) Gauge                 // what a figure was read with
	At      func(celsius float64) (float64, bool)     // dynamic viscosity, where the grade is known
	Read    func(figure string) quantity.Quantity     // of another step of the same run
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
	if r.Duty.HasPressure {
		j.Target = t.Pressure * r.Duty.Pressure
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
	switch worst := metrology.Worst(verdicts...); {
	case worst == metrology.Out:
		j.Verdict = worst
	case len(j.Missing) > 0:
	case worst == "":
		j.Verdict = metrology.Undecided
	default:
		j.Verdict = worst
	}
	return j
}

// figure judges one figure.
func (r Rules) figure(t *family.Test, read family.Read, p *unit.Point) Figured {
	g, _ := family.FigureByCode(read.Figure)
	f := Figured{Read: read, Name: g.Name, Q: p.Figure(read.Figure), Dim: g.Dim}
	if own := r.own(t.Code, read.Figure); own != nil {
		f.Limits, f.From = ownLimits(own), own.Source
		if f.From == "" {
			f.From = "shop"
		}
		if read.By != family.ByDecay {
			f.By, f.Of = family.ByLimit, ""
		}
	}
	if read.By != family.ByDecay && (math.IsNaN(f.Q.SI) || f.Q.IsZero()) {
		r.limits(t, &f)
		return f
	}
	f.Value = f.Q.SI
	f.Uncertainty = r.gauge(read.Figure).Uncertainty(f.Q)
	r.limits(t, &f)
	r.workOut(t, &f, p)
	if f.Needs == "" && !f.Q.IsZero() && !f.Limits.Empty() {
		f.Verdict = metrology.Judge(f.Value, f.Limits, f.Uncertainty, true).Verdict
	}
	return f
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

func (r Rules) gauge(figure string) Gauge {
	if r.Gauge == nil {
		return Gauge{}
	}
	return r.Gauge(figure)
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
	f.From = "guidance"
	switch f.By {
	case family.BySetting:
		f.Limits = ReliefBand(r.Accept, r.Setting, r.Duty.Pressure)
		if r.Setting.Low.IsZero() && r.Setting.High.IsZero() {
			break
		}
		f.From = "shop"
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
			f.Uncertainty = math.Hypot(f.Uncertainty, r.gauge("outlet_a").Uncertainty(other)) / mean
			f.Value, f.Dim = math.Abs(f.Value-other.SI)/mean, quantity.Number
		}
		return
	case family.ByRatio:
		supply := p.Figure("supply").SI
		if supply <= 0 {
			f.Needs = "supply pressure"
		} else {
			f.Note = fmt.Sprintf("%.1f to 1", f.Value/supply)
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
	}
	switch f.Of {
	case "start":
		if start := p.Figure("pressure").SI; start > 0 {
			share(start)
		} else {
			f.Needs = "pressure"
		}
	case "duty":
		if f.Needs = "duty pressure"; r.Duty.HasPressure {
			f.Needs = ""
			share(r.Duty.Pressure)
		}
	case "theory":
		if f.Needs = needs; needs == "" {
			share(theory)
		}
	case "torque":
		pressure := p.Figure("pressure").SI
		switch {
		case !r.Duty.HasDisplacement:
			f.Needs = "displacement"
		case pressure <= 0:
			f.Needs = "pressure"
		default:
			share(fluidpower.TheoreticalTorque(pressure, r.Duty.Displacement))
		}
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
// theory is laminar leak, which goes as one over the viscosity. Only where the oil's grade
// and the temperature at the test are known, and not where so much is missing that a relief
// holds the flow or a passage is open.
func (r Rules) corrected(f *Figured, p *unit.Point) {
	t := p.Figure("temperature")
	if t.IsZero() || !r.Duty.HasViscosity || r.At == nil || f.Value >= 1 || f.Value < leastLaminar {
		return
	}
	at, known := r.At(t.SI)
	if !known {
		return
	}
	raw := f.Value
	f.Value = 1 - (1-raw)*at/r.Duty.Viscosity
	f.Uncertainty = math.Hypot(f.Uncertainty, correctionDoubt*(f.Value-raw))
	f.Note = fmt.Sprintf("%.1f %% as read; brought to the viscosity at duty", 100*raw)
}
