package bench

import (
	"cmp"
	"strings"

	"corvek/core/family"
	"corvek/core/fluid"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/seal"
	"corvek/core/unit"
)

// Attempt is a run of the bench test with its verdicts.
type Attempt struct {
	*unit.Attempt
	Points  []Point
	Sum     metrology.Verdict
	Current bool // belongs to the current round
}

// Point is one step of the test with what was read.
type Point struct {
	proof.Judged
	Test    *family.Test
	Row     unit.Point
	Skipped string // why it does not apply to this unit
}

// Read is a figure of the step in base units; ok is false where it was not read.
func (p *Point) Read(figure string) (si float64, ok bool) {
	return p.Row.Figure(figure).Known()
}

// Efficiency is the volumetric efficiency at the step; ok is false where it cannot be told.
func (p *Point) Efficiency() (share float64, ok bool) {
	f := p.Figure("flow")
	if f == nil || f.By != family.ByEfficiency || f.Q.IsZero() || f.Needs != "" {
		return 0, false
	}
	return f.Value, true
}

// Plan is the test of this unit.
func (st *Rated) Plan() []proof.PlanStep {
	on := func(part string) bool { return st.ByCode[part] != nil }
	return proof.Plan(st.Family, on, st.Job.Symptoms, st.Job.Complaint)
}

// Tested is the unit with what its tests showed.
type Tested struct {
	*Modelled
	Attempts []*Attempt // without the as-received one
	Received *Attempt
}

func tested(m *Modelled) *Tested {
	st := &Tested{Modelled: m}
	plan := st.Plan()
	for _, a := range st.Unit.Attempts {
		as := &Attempt{Attempt: a, Current: a.Round == st.Round}
		var verdicts []metrology.Verdict
		for k := range plan {
			step := &plan[k]
			if a.Number == 0 && !step.Received {
				continue
			}
			row := a.Point(step.Code)
			if row == nil {
				row = &unit.Point{Code: step.Code}
			}
			ps := st.point(a, step, *row)
			if step.Code == family.ComplaintTest && a.Source == unit.SourceSimulated && ps.Skipped == "" {
				ps.Skipped, ps.Judged = "the simulated stand knows nothing of the complaint", proof.Judged{}
			}
			as.Points = append(as.Points, ps)
			if ps.Skipped == "" {
				verdicts = append(verdicts, ps.Verdict)
			}
		}
		as.Sum = proof.Sum(verdicts)
		if a.Number == 0 {
			st.Received = as
		} else {
			st.Attempts = append(st.Attempts, as)
		}
	}
	return st
}

func (st *Rated) point(a *unit.Attempt, step *proof.PlanStep, row unit.Point) Point {
	ps := Point{Test: &step.Test, Row: row, Skipped: cmp.Or(step.Skipped, row.Skipped)}
	if ps.Skipped == "" {
		ps.Judged = proof.JudgeStep(&step.Test, &row, st.rules(a))
	}
	return ps
}

// rules are what the figures of an attempt are judged by.
func (st *Rated) rules(a *unit.Attempt) proof.Rules {
	return proof.Rules{Accept: st.Family.Accept, Setting: st.Unit.Setting, Duty: st.Duty.Duty, At: st.viscosityAt,
		Own:   st.Unit.StepLimit,
		Gauge: func(figure string) proof.Gauge { return st.gauge(a, figure) },
		Read: func(figure string) quantity.Quantity {
			for _, p := range a.Points {
				if q := p.Figure(figure); !q.IsZero() {
					return q
				}
			}
			return quantity.Quantity{}
		}}
}

// viscosityAt is the dynamic viscosity of the unit's oil at a temperature; ok is false where
// its grade is not named.
func (st *Rated) viscosityAt(celsius float64) (si float64, ok bool) {
	if named, other := seal.NamedFluid(st.Unit.Fluid); other && named != "mineral oil" {
		return 0, false // an ester or a glycol of the same grade thins in another way
	}
	nu, ok := fluid.GradeAt(st.Unit.Fluid, celsius)
	return nu * st.Duty.Density, ok
}

// gauge is what a figure of an attempt was read with.
func (st *Given) gauge(a *unit.Attempt, figure string) proof.Gauge {
	f, _ := family.FigureByCode(figure)
	name := map[quantity.Dimension]string{quantity.Pressure: a.PressureGauge, quantity.Flow: a.FlowMeter,
		quantity.Temperature: a.Thermometer}[f.Dim]
	i, known := st.Tools.Named(name)
	if !known {
		return proof.Gauge{}
	}
	size := func(text string) float64 {
		q, err := quantity.Parse(text, f.Dim)
		if err != nil {
			return 0
		}
		return q.SI - q.Unit.Offset // a step of a thermometer is no temperature
	}
	class, _ := quantity.Parse(i.Class, quantity.Number)
	return proof.Gauge{Name: i.Name, Resolution: size(i.Resolution), Class: class.SI, FullScale: size(i.FullScale)}
}

// Attempt gives the newest attempt of the current round, nil when there is none.
func (st *Tested) Attempt() *Attempt {
	for i := len(st.Attempts) - 1; i >= 0; i-- {
		if st.Attempts[i].Current {
			return st.Attempts[i]
		}
	}
	return nil
}

// Passed is the closed attempt of the current round that passed with figures of
// this unit, nil when none did. Figures from the simulated stand are an exercise.
func (st *Tested) Passed() *Attempt {
	for _, a := range st.Attempts {
		if a.Current && a.Closed && a.Verdict == string(metrology.In) && a.Source != unit.SourceSimulated {
			return a
		}
	}
	return nil
}

// Counts is the attempt that counts: the one that passed, else the newest with
// figures of this unit, else the newest exercise.
func (st *Tested) Counts() *Attempt {
	if a := st.Passed(); a != nil {
		return a
	}
	var exercise *Attempt
	for i := len(st.Attempts) - 1; i >= 0; i-- {
		a := st.Attempts[i]
		switch {
		case !a.Current || len(a.Attempt.Points) == 0:
		case a.Source != unit.SourceSimulated:
			return a
		case exercise == nil:
			exercise = a
		}
	}
	return exercise
}

// Claim gives what may be said of the unit after its test, and all that keeps it
// from being proved.
func (st *State) Claim() (proof.Claim, []string) {
	a := st.Counts()
	t := proof.Trial{Unfitted: st.unfitted()}
	if a != nil {
		t.Simulated = a.Source == unit.SourceSimulated
		t.Tested, t.Closed, t.Passed = !t.Simulated, a.Closed, a.Verdict == string(metrology.In)
		for _, p := range a.Points {
			hold, _ := quantity.Parse(p.Test.Hold, quantity.Time)
			t.Steps = append(t.Steps, proof.TrialStep{Name: p.Test.Name, Done: p.Verdict != "",
				Applicable: p.Skipped == "", Held: p.Row.Held().Seconds(), Hold: hold.SI})
		}
	}
	for _, station := range []string{"strip", "measure", "build", "prove"} {
		for _, s := range st.Stops[station] {
			switch {
			case s.Kind == unit.StopProved || s.Kind == unit.StopUnfitted:
			case s.Waived != nil:
				t.Stops = append(t.Stops, s.Text+" (waived: "+s.Waived.Reason+")")
			default:
				t.Stops = append(t.Stops, s.Text)
			}
		}
	}
	return t.Judge()
}

func (st *Decided) unfitted() (n int) {
	for _, p := range st.Parts {
		if !p.Step.Done {
			n++
		}
	}
	return n
}

// NotReady says what keeps the unit from the stand: it is not whole, does not turn
// freely, or a serious caution of the test was not read.
func (st *State) NotReady() string {
	holds := func(s Stop) bool {
		switch s.Kind {
		case unit.StopUnfitted, unit.StopTurn, unit.StopStiff, unit.StopFacing, unit.StopStack, unit.StopCaution,
			unit.StopOrder, unit.StopCount, unit.StopTorque, unit.StopLip, unit.StopProud, unit.StopFill,
			unit.StopRework:
			return s.Waived == nil
		}
		return false
	}
	for _, station := range []string{"build", "prove"} {
		for _, s := range st.Stops[station] {
			if holds(s) {
				return strings.ToLower(s.Text[:1]) + s.Text[1:]
			}
		}
	}
	return ""
}

// TurnWords is how a shaft's feel is spoken of.
func TurnWords(turn string) string { return strings.ReplaceAll(turn, "_", " ") }
