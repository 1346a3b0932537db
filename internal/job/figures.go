package job

import (
	"encoding/json"
	"strconv"
	"strings"

	"corvek/core/calc"
	"corvek/core/decide"
	"corvek/core/economics"
	"corvek/core/leakage"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
)

// GapState is a leaking clearance as found and after the work.
type GapState struct {
	Feature *FeatureState
	Name    string
	Found   proof.Gap
	Rebuilt proof.Gap
}

// LeakState is what the clearances as found cost at duty.
type LeakState struct {
	Known   bool
	Flow    float64 // m3/s
	Share   float64 // of theoretical flow
	Good    float64 // m3/s with every clearance at the middle of its limits
	Rebuilt float64 // m3/s after the work, as far as known
	Paths   []PathFlow
	Needs   []string // what must be known for the estimate
}

// PathFlow is the leak of one path.
type PathFlow struct {
	Name string
	Gap  float64
	Flow float64
}

// ShimState is the shim choice for the side clearance.
type ShimState struct {
	Feature   *FeatureState
	Fitted    []float64
	Available []metrology.ShimStock
	Choice    metrology.ShimChoice
	Lower     float64
	Upper     float64
	Measured  float64
	Fault     string
	Output    *calc.Output // with the working
}

func (st *State) feature(path string) *FeatureState {
	part, code, _ := strings.Cut(path, ".")
	if p := st.ByCode[part]; p != nil {
		for _, f := range p.Features {
			if f.Code == code {
				return f
			}
		}
	}
	return nil
}

func total(f *FeatureState, stage string) proof.Gap {
	r := f.Result(stage)
	return proof.Gap{Value: r.Total(f.Measured), Known: r.HasValue}
}

// models builds the unit's leak model as found and as rebuilt.
func (st *State) models() {
	st.Found = proof.Model{Displacement: st.Duty.Displacement, Speed: st.Duty.Speed, Viscosity: st.Duty.Viscosity}
	st.Rebuilt = st.Found
	found, rebuilt, good := map[string]float64{}, map[string]float64{}, map[string]float64{}
	for _, l := range st.Family.Leaks {
		f := st.feature(l.Feature)
		if f == nil {
			continue
		}
		g := GapState{Feature: f, Name: l.Name, Found: total(f, StageFound)}
		g.Found.From = proof.FromFound
		var shimmed, renewed proof.Gap
		mid, hasMid := proof.Renewed(f.Found.Limits)
		if f.Measured == string(metrology.Each) {
			mid *= 2
		}
		if f.Part.Choice() == decide.Replace {
			renewed = proof.Gap{Value: mid, Known: hasMid}
		}
		if sh := st.Shims; sh != nil && sh.Feature == f && sh.Fault == "" && sh.Choice.Possible && f.Part.Choice() == decide.Rework {
			shimmed = proof.Gap{Value: sh.Choice.Resulting, Known: true}
		}
		g.Rebuilt = proof.RebuiltGap(total(f, StageBuilt), shimmed, renewed, g.Found)
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
	st.Found.Paths = proof.Paths(st.Family, lookup(found))
	st.Rebuilt.Paths = proof.Paths(st.Family, lookup(rebuilt))
	st.reliefs()
	st.leak(proof.Paths(st.Family, lookup(good)))
}

// reliefs takes the spring as found, and as it will be after the decisions.
func (st *State) reliefs() {
	r := st.Family.Relief
	if r == nil {
		return
	}
	f := st.feature(r.Part + "." + r.Feature)
	if f == nil {
		return
	}
	nominal := f.Found.Nominal
	asFound := nominal
	if f.Found.HasValue {
		asFound = f.Found.Value
	}
	after := asFound
	switch {
	case f.Built.HasValue:
		after = f.Built.Value
	case f.Part.Choice() == decide.Replace:
		after = nominal
	}
	st.Found.Relief = proof.ReliefFor(st.Family, asFound)
	st.Rebuilt.Relief = proof.ReliefFor(st.Family, after)
}

func (st *State) leak(good []leakage.Path) {
	if len(st.Family.Leaks) == 0 {
		return
	}
	l := &st.Leak
	if !st.Duty.HasPressure {
		l.Needs = append(l.Needs, "duty pressure")
	}
	if !st.Duty.HasViscosity {
		l.Needs = append(l.Needs, "viscosity at duty")
	}
	if len(st.Found.Paths) == 0 {
		for _, g := range st.Gaps {
			l.Needs = append(l.Needs, strings.ToLower(g.Feature.Def.Name))
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
	l.Good = leakage.Total(good, c)
	l.Rebuilt = leakage.Total(st.Rebuilt.Paths, c)
	if th := st.Found.Theoretical(); th > 0 {
		l.Share = l.Flow / th
	}
}

// ParseShims reads a list such as "0.10 mm, 0.05 mm".
func ParseShims(text string) ([]float64, error) {
	var out []float64
	for _, part := range splitList(text) {
		q, err := quantity.Parse(part, quantity.Length)
		if err != nil {
			return nil, err
		}
		out = append(out, q.SI)
	}
	return out, nil
}

// ParseShimStock reads a list such as "0.05 mm x2, 0.02 mm".
func ParseShimStock(text string) ([]metrology.ShimStock, error) {
	var out []metrology.ShimStock
	for _, part := range splitList(text) {
		count := 1
		if thickness, n, ok := strings.Cut(strings.ReplaceAll(part, "×", "x"), "x"); ok {
			c, err := strconv.Atoi(strings.TrimSpace(n))
			if err != nil || c < 1 || c > 200 {
				return nil, errShimCount
			}
			part, count = thickness, c
		}
		q, err := quantity.Parse(part, quantity.Length)
		if err != nil {
			return nil, err
		}
		out = append(out, metrology.ShimStock{Thickness: q.SI, Count: count})
	}
	return out, nil
}

func splitList(text string) []string {
	var out []string
	for _, part := range strings.FieldsFunc(text, func(r rune) bool { return r == ',' || r == ';' || r == '\n' }) {
		if part = strings.TrimSpace(part); part != "" {
			out = append(out, part)
		}
	}
	return out
}

// shims works the pack out when the unit has shims and a side clearance is known.
func (st *State) shims() {
	var f *FeatureState
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
	sh := &ShimState{Feature: f}
	st.Shims = sh
	l := f.Spec
	lim := f.Found.Limits
	switch {
	case !f.Found.HasValue:
		sh.Fault = "measure the side clearance first"
	case f.Found.IsLeaves && !f.Found.Interval.Bounded:
		sh.Fault = "no leaf has stopped yet, so the clearance has no upper bound"
	case !lim.HasLower || !lim.HasUpper:
		sh.Fault = "a lower and an upper limit are needed"
	}
	var err error
	if sh.Fitted, err = ParseShims(st.Unit.ShimsFitted); err != nil {
		sh.Fault = "shims fitted: " + err.Error()
	}
	if sh.Available, err = ParseShimStock(st.Unit.ShimsAvailable); err != nil {
		sh.Fault = "shims in the drawer: " + err.Error()
	}
	if sh.Fault != "" {
		return
	}
	scale := 1.0
	if l.Measured == string(metrology.Each) {
		scale = 2
	}
	sh.Measured, sh.Lower, sh.Upper = f.Found.Value*scale, lim.Lower*scale, lim.Upper*scale
	body, _ := parse(st.Unit.OffBody, quantity.Length)
	gears, _ := parse(st.Unit.OffGears, quantity.Length)
	sh.Choice = metrology.ChooseShims(sh.Measured, sh.Lower, sh.Upper, sh.Fitted, sh.Available, body, gears)
	sh.Output = st.shimWorking(sh, body, gears)
}

// shimWorking runs the registry's calculator, so that the page's working is the one a shell gives.
func (st *State) shimWorking(sh *ShimState, body, gears float64) *calc.Output {
	metre := func(v float64) string { return strconv.FormatFloat(v, 'g', -1, 64) + " m" }
	in := map[string]any{"measured_clearance": metre(sh.Measured), "lower": metre(sh.Lower), "upper": metre(sh.Upper), "removed_from_body": metre(body), "removed_from_gears": metre(gears)}
	fitted := []string{}
	for _, t := range sh.Fitted {
		fitted = append(fitted, metre(t))
	}
	in["fitted"] = fitted
	stock := []map[string]any{}
	for _, s := range sh.Available {
		stock = append(stock, map[string]any{"thickness": metre(s.Thickness), "count": s.Count})
	}
	in["available"] = stock
	return run("shims", in)
}

func run(name string, in map[string]any) *calc.Output {
	body, err := json.Marshal(in)
	if err != nil {
		return nil
	}
	out, err := calc.Run(name, body)
	if err != nil {
		return nil
	}
	return out
}

// Economy is rebuild against replace with what was entered.
type Economy struct {
	Known  bool
	Case   economics.Case
	Advice economics.Advice
	Output *calc.Output
}

func (st *State) economy() {
	j := st.Job
	in := map[string]any{}
	need := []struct{ key, text string }{{"parts", j.PartsCost}, {"labour_hours", j.LabourHours}, {"rate", j.LabourRate}, {"rebuild_days", j.RebuildDays}}
	for _, n := range need {
		if n.text == "" {
			return
		}
		in[n.key] = n.text
	}
	for key, text := range map[string]string{"outside_work": j.OutsideCost, "new_price": j.NewPrice, "new_days": j.NewDays, "downtime_cost_per_day": j.DowntimeCost} {
		if text != "" {
			in[key] = text
		}
	}
	out := run("rebuild_or_replace", in)
	if out == nil {
		return
	}
	advice, _ := out.Get("advice").(string)
	st.Economy = Economy{Known: true, Advice: economics.Advice(advice), Output: out}
}
