package job

import (
	"cmp"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// AttemptState is a run of the bench test with its verdicts.
type AttemptState struct {
	*unit.Attempt
	Points  []PointState
	Sum     metrology.Verdict
	Current bool // belongs to the current round
}

// PointState is one step of the test with what was read.
type PointState struct {
	Test        *family.Test
	Row         unit.Point
	Pressure    float64
	HasPressure bool
	Flow        float64
	HasFlow     bool
	Efficiency  float64
	Least       float64          // least efficiency accepted
	Limits      metrology.Limits // of the pressure a relief holds
	Verdict     metrology.Verdict
	Short       bool // the pressure of the step was not reached
	Target      float64
	Skipped     string // why it does not apply to this unit
}

// Plan is the test of this unit.
func (st *State) Plan() []proof.PlanStep {
	on := func(part string) bool { return st.ByCode[part] != nil }
	return proof.Plan(st.Family, on, st.Job.Symptoms, st.Job.Complaint)
}

// Under is under what pressure and temperature a step without figures was looked at.
func (p PointState) Under(units quantity.System) (out []string) {
	for _, q := range []quantity.Quantity{p.Row.Pressure, p.Row.Temperature} {
		if p.Test.Code == family.ComplaintTest && !q.IsZero() {
			out = append(out, quantity.Show(q.SI, q.Dim, units))
		}
	}
	return out
}

func (st *State) attempts() {
	plan := st.Plan()
	for _, a := range st.Unit.Attempts {
		as := &AttemptState{Attempt: a, Current: a.Round == st.Round}
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
			ps := st.point(step, *row)
			if step.Code == family.ComplaintTest && a.Source == unit.SourceSimulated && ps.Skipped == "" {
				ps.Skipped, ps.Verdict = "the simulated stand knows nothing of the complaint", ""
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
}

func (st *State) point(step *proof.PlanStep, row unit.Point) PointState {
	t := &step.Test
	ps := PointState{Test: t, Row: row, Target: t.Pressure * st.Duty.Pressure,
		Skipped: cmp.Or(step.Skipped, row.Skipped)}
	if ps.Skipped != "" {
		return ps
	}
	ps.Pressure, ps.HasPressure = known(row.Pressure)
	ps.Flow, ps.HasFlow = known(row.Flow)
	theory := st.Found.Theoretical()
	switch t.Kind {
	case family.TestFlow:
		ps.Least = proof.Band(st.Family.Accept, t.Pressure)
		if speed, ok := known(row.Speed); ok && speed > 0 {
			theory = st.Duty.Displacement * speed / 60
		}
		if !ps.HasFlow || theory <= 0 {
			return ps
		}
		ps.Efficiency = ps.Flow / theory
		ps.Verdict = proof.JudgeFlow(st.Family.Accept, t.Pressure, ps.Flow, theory).Verdict
		if st.Duty.HasPressure && ps.HasPressure && !proof.Reached(ps.Pressure, ps.Target) {
			ps.Short, ps.Verdict = true, metrology.Out
		}
	case family.TestRelief:
		ps.Limits = proof.ReliefBand(st.Family.Accept, st.Unit.Setting, st.Duty.Pressure)
		if ps.HasPressure {
			ps.Verdict = proof.JudgeRelief(ps.Limits, ps.Pressure, 1e5)
		}
	default:
		ps.Verdict = proof.JudgeWord(*t, row.Word)
	}
	return ps
}

// Attempt gives the newest attempt of the current round, nil when there is none.
func (st *State) Attempt() *AttemptState {
	for i := len(st.Attempts) - 1; i >= 0; i-- {
		if st.Attempts[i].Current {
			return st.Attempts[i]
		}
	}
	return nil
}

// Passed is the closed attempt of the current round that passed with figures of
// this unit, nil when none did. Figures from the simulated stand are an exercise.
func (st *State) Passed() *AttemptState {
	for _, a := range st.Attempts {
		if a.Current && a.Closed && a.Verdict == string(metrology.In) && a.Source != unit.SourceSimulated {
			return a
		}
	}
	return nil
}

// Counts is the attempt that counts: the one that passed, else the newest with
// figures of this unit, else the newest exercise.
func (st *State) Counts() *AttemptState {
	if a := st.Passed(); a != nil {
		return a
	}
	var exercise *AttemptState
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
			case s.Passed != nil:
				t.Stops = append(t.Stops, s.Text+" (waived: "+s.Passed.Reason+")")
			default:
				t.Stops = append(t.Stops, s.Text)
			}
		}
	}
	return t.Judge()
}

func (st *State) unfitted() (n int) {
	for _, p := range st.Parts {
		if !p.Step.Done {
			n++
		}
	}
	return n
}
