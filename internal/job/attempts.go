package job

import (
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/proof"
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
	Least       float64 // least efficiency accepted
	Verdict     metrology.Verdict
	Short       bool // the pressure of the step was not reached
	Target      float64
}

func (st *State) attempts() {
	for _, a := range st.Unit.Attempts {
		as := &AttemptState{Attempt: a, Current: a.Round == st.Round}
		var verdicts []metrology.Verdict
		for k := range st.Family.Tests {
			t := &st.Family.Tests[k]
			if a.Number == 0 && !t.Received {
				continue
			}
			row := a.Point(t.Code)
			if row == nil {
				row = &unit.Point{Code: t.Code}
			}
			ps := st.point(t, *row)
			as.Points = append(as.Points, ps)
			verdicts = append(verdicts, ps.Verdict)
		}
		as.Sum = proof.Sum(verdicts)
		if a.Number == 0 {
			st.Received = as
		} else {
			st.Attempts = append(st.Attempts, as)
		}
	}
}

func (st *State) point(t *family.Test, row unit.Point) PointState {
	ps := PointState{Test: t, Row: row, Target: t.Pressure * st.Duty.Pressure}
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
		if ps.HasPressure && st.Duty.HasPressure {
			ps.Verdict = proof.JudgeRelief(st.Family.Accept, ps.Pressure, st.Duty.Pressure, 1e5).Verdict
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

// Proved is the closed attempt of the current round that passed, nil when none did.
func (st *State) Proved() *AttemptState {
	for _, a := range st.Attempts {
		if a.Current && a.Closed && a.Verdict == string(metrology.In) {
			return a
		}
	}
	return nil
}
