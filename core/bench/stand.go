package bench

import (
	"slices"

	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/leakage"
	"corvek/core/mount"
	"corvek/core/proof"
	"corvek/core/strip"
	"corvek/core/unit"
)

// Facts are the rebuilt unit as the simulated stand needs to know it.
func (st *Modelled) Facts() (mount.Facts, error) {
	d := st.Duty
	if st.Family.Action == "pump" && (!d.Theory() || !d.HasPressure || !d.HasViscosity) {
		return mount.Facts{}, field.Errorf("stand", "the simulated stand needs displacement, speed, duty pressure and "+
			"viscosity from Receive")
	}
	u := mount.Facts{Tag: st.Job.Tag, Family: st.Family, Model: st.Rebuilt, Duty: d.Duty, Setting: st.Unit.Setting,
		Limit: st.Unit.StepLimit, Need: st.Need, Level: st.Level, SealOK: true}
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
	st.invent(&u)
	return u, nil
}

// invent gives the unit on the practice stand what of this one is not known, so that it can be run at all: a
// leak and a relief such as a unit of its kind might have. What is predicted of the unit itself knows none of it.
func (st *Modelled) invent(u *mount.Facts) {
	d := st.Duty
	if st.Family.Action == "pump" && len(u.Model.Paths) == 0 && len(st.Family.Leaks) > 0 {
		u.Model.Paths = []leakage.Path{mount.InventedLeak(u.Model, d.Pressure)}
		u.Invented = append(u.Invented, "its inner leak")
	}
	r := st.Family.Relief
	if r == nil || st.ByCode[r.Part] == nil || u.Model.Relief.Cracking > 0 {
		return
	}
	if band := proof.ReliefBand(st.Family.Accept, st.Unit.Setting, d.Pressure); !band.Empty() {
		u.Model.Relief = mount.InventedRelief(band)
		u.Invented = append(u.Invented, "its relief spring")
	}
}

// mistakes are those of the build that the record shows: what was not filled, a seal the wrong
// way round, springs in another order or number than belongs there.
func (st *Modelled) mistakes(u *mount.Facts) {
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
func (st *Modelled) worn(p *Part, u *mount.Facts) {
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
func (st *Modelled) Program(t *family.Test) proof.Program {
	var last *unit.Attempt
	if n := len(st.Unit.Attempts); n > 0 {
		last = st.Unit.Attempts[n-1]
	}
	level, needs := st.level(last, t.At)
	if needs != "" {
		level = st.Duty.Pressure
	}
	return proof.ProgramFor(t, level, st.Duty.Duty,
		proof.ReliefBand(st.Family.Accept, st.Unit.Setting, st.Duty.Pressure))
}

// Mixed says why figures of one kind do not go to an attempt; "" where they do. An exercise
// and figures of the unit itself never stand in one attempt.
func (a *Attempt) Mixed(source string) string {
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
