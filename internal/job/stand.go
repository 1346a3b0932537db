package job

import (
	"context"
	"fmt"
	"math"
	"slices"

	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/mount"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/strip"
	"corvek/core/unit"
	"corvek/internal/people"
)

// Facts are the rebuilt unit as the simulated stand needs to know it.
func (st *State) Facts() (mount.Facts, error) {
	d := st.Duty
	if st.Family.Action == "pump" && (!d.Theory() || !d.HasPressure || !d.HasViscosity) {
		return mount.Facts{}, field.Errorf("stand", "the simulated stand needs displacement, speed, duty pressure and "+
			"viscosity from Receive")
	}
	u := mount.Facts{Tag: st.Job.Tag, Family: st.Family, Model: st.Rebuilt, Duty: d.Duty, Setting: st.Unit.Setting,
		Limit: st.Unit.StepLimit, SealOK: true}
	hard := slices.Index(build.Turns, build.Turn("stiff"))
	for _, p := range st.Parts {
		if p.Def.Renew && p.Choice() != "replace" {
			u.SealOK = false
		}
		if p.Def.TurnCheck && hard >= 0 && slices.Index(build.Turns, build.Turn(p.Step.Turn)) >= hard {
			u.Stiff = true
		}
	}
	st.mistakes(&u)
	return u, nil
}

// mistakes are those of the build that the record shows: what was not filled, a seal the wrong
// way round, springs in another order or number than belongs there.
func (st *State) mistakes(u *mount.Facts) {
	for _, f := range st.Filling() {
		u.Air = u.Air || st.Unit.Filled[f.Code] == ""
	}
	for _, p := range st.Parts {
		st.worn(p, u)
		if _, right := build.FittingWays(p.Def); p.Def.Renew && p.Step.Done && right != "" && p.Step.Facing != "" {
			u.Ring = u.Ring || p.Step.Facing != right
		}
		if s := p.Stack; s != nil && len(s.Right) > 0 && len(s.FitDiff) > 0 {
			belongs := strip.Deliver(s.Def, s.Right)
			if belongs.HasForce && s.FitDoes.HasForce && belongs.Force > 0 {
				u.Springs = s.FitDoes.Force / belongs.Force
			}
		}
	}
}

// worn tells how far the clearances of a part have gone towards their wear limits, as they were
// measured after the build, else as they were found; a new part has used nothing.
func (st *State) worn(p *PartState, u *mount.Facts) {
	for _, f := range p.Features {
		r := f.Built
		if !r.Any && p.Choice() != decide.Replace {
			r = f.Found
		}
		switch {
		case !f.Def.Clearance:
		case r.Any && r.HasUsed:
			u.Wear, u.Worn = max(u.Wear, r.Used), true
		case p.Choice() == decide.Replace && p.Step.Done:
			u.Worn = true
		}
	}
}

// Program is how the stand is driven at a step.
func (st *State) Program(t *family.Test) proof.Program {
	return proof.ProgramFor(t, st.Duty.Duty, proof.ReliefBand(st.Family.Accept, st.Unit.Setting, st.Duty.Pressure))
}

// Mixed says why figures of one kind do not go to an attempt; "" where they do. An exercise
// and figures of the unit itself never stand in one attempt.
func (a *AttemptState) Mixed(source string) string {
	exercise := a.Source == unit.SourceSimulated
	empty := !slices.ContainsFunc(a.Attempt.Points, func(p *unit.Point) bool { return !p.Empty() })
	switch {
	case source == unit.SourceSimulated && !exercise && !empty:
		return "figures of the unit itself stand in this attempt; an exercise needs one of its own"
	case source != unit.SourceSimulated && exercise:
		return "this attempt is an exercise; the unit itself needs one of its own"
	}
	return ""
}

// BeginExercise makes the open attempt an exercise, before anything stands in it: from then on
// whatever is typed or taken in it says nothing of the unit.
func (s *Service) BeginExercise(ctx context.Context, who people.Actor, tag string, number int) error {
	return s.onUnit(ctx, who, people.RoleTechnician, tag, number, func(_ *writing, st *State) (string, error) {
		a := st.Attempt()
		if a == nil || a.Closed {
			return "", field.Errorf("attempt", "start an attempt first")
		}
		if why := a.Mixed(unit.SourceSimulated); why != "" {
			return "", field.Errorf("stand", "%s", why)
		}
		a.Attempt.Source = unit.SourceSimulated
		return "an exercise on the simulated stand", nil
	})
}

// TakePoint writes what a stand showed at a step of the open attempt, by figure in base
// units. A figure at the end of a hold is written once the one at its start is there.
func (s *Service) TakePoint(ctx context.Context, who people.Actor, tag string, number int, code, source string,
	shown map[string]float64) error {
	return s.onUnit(ctx, who, people.RoleTechnician, tag, number, func(w *writing, st *State) (string, error) {
		a := st.Attempt()
		if a == nil || a.Closed {
			return "", field.Errorf("attempt", "start an attempt first")
		}
		if why := a.Mixed(source); why != "" {
			return "", field.Errorf("stand", "%s", why)
		}
		at := slices.IndexFunc(a.Points, func(p PointState) bool { return p.Test.Code == code })
		if at < 0 || a.Points[at].Skipped != "" {
			return "", field.Errorf("stand", "is not a step of this test")
		}
		step := a.Points[at]
		taken := 0
		for figure, v := range figuresOf(step, shown) {
			g, _ := family.FigureByCode(figure)
			place, f, err := entry.Resolve(w.Job, st.Unit.PointRef(a.Number, code, figure), w.shop)
			if err != nil {
				return "", err
			}
			if err := place.Write(f, shownAs(v, g.Dim)); err != nil {
				return "", err
			}
			taken++
		}
		if taken == 0 {
			return "", field.Errorf("stand", "the stand reads nothing that %s asks for", step.Test.Name)
		}
		a.Attempt.Source = source
		return fmt.Sprintf("%s: %d figures from the stand", step.Test.Name, taken), nil
	})
}

// ends are figures at the end of a hold, by the one at its start.
var ends = map[string]string{"pressure": "pressure_end", "temperature": "temperature_end"}

// figuresOf picks what a step reads out of what a stand shows.
func figuresOf(step PointState, shown map[string]float64) map[string]float64 {
	out := map[string]float64{}
	for _, r := range step.Test.Reads {
		if v, is := shown[r.Figure]; is && !math.IsNaN(v) && ends[r.Figure] == "" {
			out[r.Figure] = v
		}
	}
	for first, end := range ends {
		v, is := shown[first]
		if _, reads := step.Test.ReadOf(first); !reads || !is || math.IsNaN(v) {
			continue
		}
		_, held := step.Test.ReadOf(end)
		if _, began := step.Read(first); held && began {
			out[end] = v
		} else {
			out[first] = v
		}
	}
	return out
}

// readTo is how finely a stand's figures are written down, in base units.
var readTo = map[quantity.Dimension]float64{
	quantity.Pressure: 0.1e5, quantity.Flow: 0.05e-3 / 60, quantity.Rotation: 1, quantity.Temperature: 1,
	quantity.Torque: 0.1, quantity.Force: 10, quantity.Length: 0.1e-3, quantity.Volume: 0.5e-6,
	quantity.Time: 1, quantity.Number: 0.01,
}

func shownAs(si float64, d quantity.Dimension) string {
	u, decimals := quantity.ShopUnit(si, d, quantity.Metric)
	step := readTo[d]
	if d == quantity.Flow && si < 2*step {
		step = 0.5e-6 / 60
	}
	si = max(0, math.Round(si/step)*step)
	if d == quantity.Number {
		return quantity.Figures(si, 3)
	}
	return u.Format(si, decimals)
}
