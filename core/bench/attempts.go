package bench

import (
	"strings"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
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
func (st *Rated) Plan() []proof.PlanStep { return proof.Plan(st.asked()) }

// Step finds a step of the test of this unit by its code.
func (st *Rated) Step(code string) (t *family.Test, ok bool) {
	plan := st.Plan()
	for i := range plan {
		if plan[i].Code == code {
			return &plan[i].Test, true
		}
	}
	return nil, false
}

func (st *Rated) asked() proof.Asked {
	n := st.Unit.Need
	return proof.Asked{Family: st.Family, On: func(part string) bool { return st.ByCode[part] != nil },
		Rotation: st.Unit.Rotation, Symptoms: st.Job.Symptoms, Words: st.Job.Complaint,
		Condition: family.Condition{Pressure: n.ComplaintPressure, Temperature: n.ComplaintTemperature,
			Time: n.ComplaintTime}}
}

// Tested is the unit with what its tests showed.
type Tested struct {
	*Modelled
	Attempts []*Attempt // without the as-received one
	Received *Attempt
	Shown    map[string]*proof.Shown // what was last read, by step
	Claims   []proof.Told            // that the unit owes, in the order of its family
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
			if ps.Skipped == "" && read(row) {
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
	st.claims(plan)
	return st
}

func (st *Rated) point(a *unit.Attempt, step *proof.PlanStep, row unit.Point) Point {
	ps := Point{Test: &step.Test, Row: row, Skipped: step.Skipped}
	switch {
	case step.Skipped != "":
	case row.Skipped != "" && !read(&row):
		ps.Skipped = "not possible on this stand: " + row.Skipped
	default:
		ps.Judged = proof.JudgeStep(&step.Test, &row, st.rules(a))
	}
	return ps
}

// read reports that something of this unit was read or seen at a step.
func read(p *unit.Point) bool { return len(p.Figures) > 0 || p.Word != "" }

// rules are what the figures of an attempt are judged by.
func (st *Rated) rules(a *unit.Attempt) proof.Rules {
	return proof.Rules{Accept: st.Family.Accept, Setting: st.Unit.Setting, Duty: st.Duty.Duty,
		Viscosity: func(p *unit.Point) (float64, bool) {
			o := st.RanOn(a, p)
			return o.Viscosity * st.Duty.Density, o.Known
		},
		Oil: func(p *unit.Point) string { return st.unknownOil(a, p) },
		Own: st.Unit.StepLimit, Need: st.Need,
		Level: func(at family.Tight) (float64, string) { return st.level(a, at) },
		Late:  func(step, figure string) bool { return st.late(a, step, figure) },
		Gauge: func(figure string, q quantity.Quantity) proof.Gauge { return st.gauge(a, figure, q) },
		Read: func(figure string) quantity.Quantity {
			for _, p := range a.Points {
				if q := p.Figure(figure); !q.IsZero() {
					return q
				}
			}
			return quantity.Quantity{}
		}}
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
			unit.StopRework, unit.StopEmpty:
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
