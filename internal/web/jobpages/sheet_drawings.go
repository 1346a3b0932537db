package jobpages

import (
	"fmt"
	"html/template"
	"math"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/internal/draw"
)

// toleranceBar draws a feature's readings against its limits.
func (l *look) toleranceBar(f *bench.Feature, stage string) template.HTML {
	r := f.Result(stage)
	return template.HTML(draw.ToleranceBar{Limits: r.Limits, Uncertainty: guard(f, r.Uncertainty),
		Value: r.Value, HasValue: r.HasValue && !r.IsLeaves, Interval: r.Interval, IsLeaves: r.IsLeaves,
		Verdict: r.Verdict, Show: draw.Length(l.Units), Others: others(f, stage),
		Narrow: f.Def.Method == family.MethodGrid}.SVG())
}

// guard is the uncertainty band that a leaf measurement does not have.
func guard(f *bench.Feature, u float64) float64 {
	if f.Def.Method == family.MethodFeeler {
		return 0
	}
	return u
}

// others are the readings beside the worst one.
func others(f *bench.Feature, stage string) []float64 {
	var out []float64
	if f.Def.Method == family.MethodFeeler {
		return nil
	}
	if f.Def.Method == family.MethodFit {
		for _, gap := range f.Result(stage).Fits {
			if !math.IsNaN(gap) {
				out = append(out, gap)
			}
		}
		return out
	}
	for _, slot := range f.Spec.Slots() {
		if m, ok := f.Size(stage, slot); ok {
			out = append(out, m)
		}
	}
	return out
}

// profile draws a bore or a rod over its length.
func profile(f *bench.Feature, stage string) template.HTML {
	r := f.Result(stage)
	if !r.HasNominal || !r.Any {
		return ""
	}
	d := draw.Profile{Nominal: r.Nominal, Bore: f.Def.Wears == "bore"}
	if d.Bore {
		d.Limit, d.HasLimit = r.Limits.Upper, r.Limits.HasUpper
	} else {
		d.Limit, d.HasLimit = r.Limits.Lower, r.Limits.HasLower
	}
	for i := range f.Def.Rows {
		var row []float64
		for c := range f.Def.Cols {
			v := math.NaN()
			if m, ok := f.Size(stage, fmt.Sprintf("r%dc%d", i+1, c+1)); ok {
				v = m
			}
			row = append(row, v)
		}
		d.Grid = append(d.Grid, row)
	}
	return template.HTML(d.SVG())
}

// sisters draws pieces against one another.
func (l *look) sisters(f *bench.Feature, stage string) template.HTML {
	r := f.Result(stage)
	if !r.Any {
		return ""
	}
	d := draw.Sisters{Odd: r.Odd, Show: draw.Length(l.Units), Lower: r.Limits.Lower, HasLower: r.Limits.HasLower,
		Upper: r.Limits.Upper, HasUpper: r.Limits.HasUpper}
	for _, slot := range f.Spec.Slots() {
		v := math.NaN()
		if m, ok := f.Size(stage, slot); ok {
			v = m
		}
		d.Values = append(d.Values, v)
	}
	d.Middle = r.Summary.Mean
	return template.HTML(d.SVG())
}
