package bench

import (
	"fmt"
	"strings"

	"corvek/core/calc"
	"corvek/core/decide"
	"corvek/core/family"
	"corvek/core/leakage"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Gap is a leaking clearance as found and after the work.
type Gap struct {
	Feature *Feature
	Name    string
	Found   proof.Gap
	Rebuilt proof.Gap
}

// Leak is what the clearances as found cost at duty.
type Leak struct {
	Known   bool
	Flow    float64 // m3/s
	Share   float64 // of theoretical flow
	Good    float64 // m3/s with every clearance at the middle of its limits
	HasGood bool    // there are limits to go by
	Rebuilt float64 // m3/s after the work, as far as known
	Paths   []PathFlow
	Needs   []string // what must be known for the estimate
	Lacks   []string // sizes of paths that are left out of it, part.feature
}

// PathFlow is the leak of one path.
type PathFlow struct {
	Name string
	Gap  float64
	Flow float64
}

// Shims is the shim choice for the side clearance.
type Shims struct {
	Feature   *Feature
	Fitted    []float64
	Available []metrology.ShimStock
	Choice    metrology.ShimChoice
	Lower     float64
	Upper     float64
	Measured  float64
	Fault     string
	Output    *calc.Output // with the working
}

func (st *Stripped) feature(path string) *Feature {
	part, code := family.CutFeature(path)
	if p := st.ByCode[part]; p != nil {
		for _, f := range p.Features {
			if f.Code == code {
				return f
			}
		}
	}
	return nil
}

func total(f *Feature, stage string) proof.Gap {
	r := f.Result(stage)
	return proof.Gap{Value: r.Total(f.Measured), Known: r.Figure()}
}

// Modelled is the unit as what leaks and what opens in it, as found and after the work.
type Modelled struct {
	*Supplied
	Shims   *Shims      // nil where nothing is set by shims
	Found   proof.Model // with the clearances as found
	Rebuilt proof.Model // with the best knowledge after the work
	Gaps    []Gap
	Leak    Leak
}

func modelled(s *Supplied) *Modelled {
	st := &Modelled{Supplied: s}
	st.shims()
	st.models()
	return st
}

// choiceOf is what is done with the part of a feature.
func (st *Decided) choiceOf(f *Feature) decide.Choice { return st.ByCode[f.Part.Code].Choice() }

// models builds the unit's leak model as found and as rebuilt.
func (st *Modelled) models() {
	st.Found = proof.Model{Displacement: st.Duty.Displacement, Speed: st.Duty.Speed, Viscosity: st.Duty.Viscosity}
	st.Rebuilt = st.Found
	found, rebuilt, good := map[string]float64{}, map[string]float64{}, map[string]float64{}
	for _, l := range st.Family.Leaks {
		f := st.feature(l.Feature)
		if f == nil {
			continue
		}
		g := Gap{Feature: f, Name: l.Name, Found: total(f, unit.StageFound)}
		g.Found.From = proof.FromFound
		var shimmed, renewed proof.Gap
		mid, hasMid := proof.Renewed(f.Found.Limits)
		if f.Measured == string(metrology.Each) {
			mid *= 2
		}
		if st.choiceOf(f) == decide.Replace {
			renewed = proof.Gap{Value: mid, Known: hasMid}
		}
		if sh := st.Shims; sh != nil && sh.Feature == f && sh.Fault == "" && sh.Choice.Possible &&
			st.choiceOf(f) == decide.Rework {
			shimmed = proof.Gap{Value: sh.Choice.Resulting, Known: true}
		}
		g.Rebuilt = proof.RebuiltGap(total(f, unit.StageBuilt), shimmed, renewed, g.Found)
		st.Gaps = append(st.Gaps, g)
		if g.Found.Known {
			found[l.Feature] = g.Found.Value
		}
		if g.Rebuilt.Known {
			rebuilt[l.Feature] = g.Rebuilt.Value
		}
		if hasMid {
			good[l.Feature] = mid
		}
	}
	lookup := func(m map[string]float64) func(string) (float64, bool) {
		return func(k string) (float64, bool) { v, ok := m[k]; return v, ok }
	}
	var lacks []string
	st.Found.Paths, lacks = proof.Paths(st.Family, lookup(found), st.length)
	st.Rebuilt.Paths, _ = proof.Paths(st.Family, lookup(rebuilt), st.length)
	st.reliefs()
	fit, _ := proof.Paths(st.Family, lookup(good), st.length)
	st.leak(fit, lacks)
}

// length is a size of the unit, in m.
func (st *Given) length(path string) (m float64, ok bool) {
	s, ok := st.Sizes.At(path)
	return s.SI, ok
}

// reliefs takes the spring as found, and as it will be after the decisions.
func (st *Modelled) reliefs() {
	r := st.Family.Relief
	if r == nil {
		return
	}
	f := st.feature(r.Part + "." + r.Feature)
	if f == nil {
		return
	}
	installed, _ := st.length(r.Installed)
	seat, _ := st.length(r.Seat)
	with := func(free float64) proof.Relief { return proof.ReliefOf(free, f.Part.rate(), installed, seat) }
	if f.Found.HasValue {
		st.Found.Relief = with(f.Found.Value)
	}
	switch {
	case f.Built.HasValue:
		st.Rebuilt.Relief = with(f.Built.Value)
	case st.choiceOf(f) == decide.Replace:
		st.Rebuilt.Relief = with(f.Found.Nominal)
	default:
		st.Rebuilt.Relief = st.Found.Relief
	}
}

func (st *Modelled) leak(good []leakage.Path, lacks []string) {
	if len(st.Gaps) == 0 { // nothing of this unit leaks by a gap that is measured
		return
	}
	l := &st.Leak
	if !st.Duty.HasPressure {
		l.Needs = append(l.Needs, "duty pressure")
	}
	if !st.Duty.HasViscosity {
		l.Needs = append(l.Needs, "viscosity at duty")
	}
	if len(st.Found.Paths) == 0 && len(lacks) == 0 {
		for _, g := range st.Gaps {
			l.Needs = append(l.Needs, strings.ToLower(g.Feature.Def.Name))
		}
	}
	l.Lacks = lacks
	if len(st.Found.Paths) == 0 {
		for _, path := range lacks {
			l.Needs = append(l.Needs, st.SizeName(path))
		}
	}
	if len(l.Needs) > 0 {
		return
	}
	l.Known = true
	c := leakage.Conditions{Drop: st.Duty.Pressure, Viscosity: st.Duty.Viscosity}
	for _, p := range st.Found.Paths {
		l.Paths = append(l.Paths, PathFlow{p.Name, p.Gap, p.Flow(c)})
	}
	l.Flow = leakage.Total(st.Found.Paths, c)
	l.Good, l.HasGood = leakage.Total(good, c), len(good) > 0
	l.Rebuilt = leakage.Total(st.Rebuilt.Paths, c)
	if th := st.Found.Theoretical(); th > 0 {
		l.Share = l.Flow / th
	}
}

// shims works the pack out when the unit has shims and a side clearance is known.
func (st *Modelled) shims() {
	var f *Feature
	for _, p := range st.Parts {
		for _, r := range p.Def.Reworks {
			if r.Code == "shim" {
				f = st.feature(p.Code + "." + r.For)
			}
		}
	}
	if f == nil {
		return
	}
	sh := &Shims{Feature: f}
	st.Shims = sh
	l := f.Spec
	lim := f.Found.Limits
	if new := f.Found.New; !new.Empty() { // it is brought back to what it has new
		lim = new
	}
	switch {
	case !f.Found.HasValue:
		sh.Fault = "measure the side clearance first"
	case f.Found.IsLeaves && !f.Found.Interval.Bounded:
		sh.Fault = "no leaf has stopped yet, so the clearance has no upper bound"
	case f.Found.Coarse:
		sh.Fault = "the leaves leave the whole band open; try one between before shims are chosen"
	case !lim.HasLower || !lim.HasUpper:
		sh.Fault = "a lower and an upper limit are needed"
	}
	var err error
	if sh.Fitted, err = metrology.ParseShims(st.Unit.ShimsFitted); err != nil {
		sh.Fault = "shims fitted: " + err.Error()
	}
	if sh.Available, err = metrology.ParseShimStock(st.Unit.ShimsAvailable); err != nil {
		sh.Fault = "shims available: " + err.Error()
	}
	if counted := st.shimsCounted(); sh.Fault == "" && counted > 0 && counted != len(sh.Fitted) {
		sh.Fault = fmt.Sprintf("%d shims were counted and the thickness of %d is written down under fitted", counted,
			len(sh.Fitted))
	}
	if sh.Fault != "" {
		return
	}
	scale := 1.0
	if l.Measured == string(metrology.Each) {
		scale = 2
	}
	sh.Measured, sh.Lower, sh.Upper = f.Found.Value*scale, lim.Lower*scale, lim.Upper*scale
	body := st.offBody()
	gears, _ := st.Unit.OffGears.Known()
	given := calc.NewGiven().SI("measured_clearance", sh.Measured, quantity.Length).SI("lower", sh.Lower,
		quantity.Length).SI("upper", sh.Upper, quantity.Length).
		SI("removed_from_body", body, quantity.Length).SI("removed_from_gears", gears,
		quantity.Length).Lengths("fitted", sh.Fitted)
	for _, x := range sh.Available {
		given.Object("available", map[string]quantity.Quantity{
			"thickness": {SI: x.Thickness, Dim: quantity.Length}, "count": {SI: float64(x.Count), Dim: quantity.Number},
		})
	}
	out, err := calc.Ask("shims", given)
	if err != nil {
		sh.Fault = err.Error()
		return
	}
	sh.Output, sh.Choice = out, shimChoice(out)
}

// offBody is what came off the body, in m: as typed beside the shims, else as the rework of
// the body says, which need not be typed twice.
func (st *Decided) offBody() (off float64) {
	if typed, ok := st.Unit.OffBody.Known(); ok {
		return typed
	}
	for _, p := range st.Parts {
		if p.Def.Kind != "body" {
			continue
		}
		for _, w := range p.Going() {
			off += w.Route.Taken
		}
	}
	return off
}

// shimsCounted is how many shims lay between body and plate; those of a valve on a
// branch are others.
func (st *Stripped) shimsCounted() (n int) {
	for _, p := range st.Parts {
		if p.Def.Kind == "shims" && p.Def.Branch == "" && p.Def.Stack == nil {
			found, _ := found(p)
			n += found
		}
	}
	return n
}

// shimChoice reads the calculator's answer.
func shimChoice(out *calc.Output) (c metrology.ShimChoice) {
	c.Predicted, _ = out.Value("predicted_clearance")
	c.ChangeNeeded, _ = out.Value("change_needed")
	c.Resulting, _ = out.Value("resulting_clearance")
	c.Possible, _ = out.Get("possible").(bool)
	pack, _ := out.Get("best").([]calc.Figure)
	for _, f := range pack {
		c.Pack = append(c.Pack, f.Value)
	}
	return c
}

// balance works the fluid balance out once capacity and what was drained are known.
func (st *Rated) balance() {
	u := st.Unit
	if u.Capacity.IsZero() || u.Drained.IsZero() {
		return
	}
	out, err := calc.Ask("fluid_balance", calc.NewGiven().Size("capacity", u.Capacity).Size("level_before",
		u.LevelBefore).Size("drained", u.Drained).
		Size("water", u.Water).Size("gained_elsewhere", u.GainedElsewhere).Size("vessel", u.Vessel))
	if err != nil {
		st.BalanceFault = err.Error()
		return
	}
	st.Balance = out
}

// SizeName is what a size is called: its part and the feature, in small letters.
func (st *Stripped) SizeName(path string) string {
	part, feature := family.CutFeature(path)
	p := st.ByCode[part]
	if p == nil {
		return strings.ReplaceAll(path, "_", " ")
	}
	name := strings.ReplaceAll(feature, "_", " ")
	if f, known := p.Def.FeatureByCode(feature); known {
		name = f.Name
	}
	return strings.ToLower(p.Name + ": " + name)
}
