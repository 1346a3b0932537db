package jobpages

import (
	"fmt"
	"math"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/draw"
	"corvek/internal/web/site"
)

// limitWords says a feature's limit and where it is from.
func limitWords(f *bench.Feature, units quantity.System) string {
	source := " · " + wording.Choice(unit.ScopeFeature, "standing", string(f.LimitFrom()))
	if f.Source != "" {
		source += ": " + f.Source
	}
	switch {
	case f.Def.Method == family.MethodGrade:
		return "by touch · guidance"
	case !f.Lower.IsZero() && !f.Upper.IsZero():
		return "limit " + between(f.Lower.In(units), f.Upper.In(units)) + source
	case !f.Upper.IsZero():
		return "limit up to " + f.Upper.In(units) + source
	case !f.Lower.IsZero():
		return "limit at least " + f.Lower.In(units) + source
	}
	return "no limit"
}

// between writes a band, its unit once where both ends have the same.
func between(lower, upper string) string {
	if number, in, _ := strings.Cut(lower, " "); strings.HasSuffix(upper, " "+in) {
		lower = number
	}
	return lower + " to " + upper
}

// verdictWords puts a verdict into a sentence.
func verdictWords(by site.Reader, f *bench.Feature, stage string) (word, sentence string) {
	r := f.Result(stage)
	show := draw.Length(by.Units)
	if f.Def.Method == family.MethodGrade && r.Grade >= 0 {
		if r.Verdict == metrology.Out {
			return "OUT", "by touch: " + family.Grades[r.Grade] + "; a figure is another matter"
		}
		return "PASSES", "by touch: " + family.Grades[r.Grade] + "; a figure is another matter"
	}
	switch r.Verdict {
	case metrology.In:
		words := inWords(r.Limits, r.Value, r.IsLeaves, show)
		if r.Odd > 0 {
			words += fmt.Sprintf("; but no. %d is an outlier", r.Odd)
		}
		return "IN", words
	case metrology.Out:
		return "OUT", outWords(by, f, stage)
	case metrology.Undecided:
		text := "undecided: " + r.Settle
		if r.HasNext {
			text = "undecided: try the " + show(r.NextLeaf) + " leaf"
			if !r.Interval.Bounded {
				text = "no leaf has stopped yet: go on with " + show(r.NextLeaf)
			}
		}
		if len(r.Faults) > 0 && r.Faults["leaves"] != "" {
			text = r.Faults["leaves"]
		}
		return "?", text
	}
	if r.Any {
		if r.Odd > 0 {
			return "?", fmt.Sprintf("no. %d is an outlier, %s apart; no limit is given", r.Odd, show(r.OddBy))
		}
		return "", "measured; no limit is published, so nothing is judged"
	}
	return "", "nothing entered yet"
}

func inWords(l metrology.Limits, v float64, leaves bool, show func(float64) string) string {
	if leaves {
		return "as far as the leaves can tell"
	}
	room := math.Inf(1)
	if l.HasLower {
		room = v - l.Lower
	}
	if l.HasUpper {
		room = math.Min(room, l.Upper-v)
	}
	return "worst reading " + show(v) + ", " + show(room) + " to spare"
}

func outWords(by site.Reader, f *bench.Feature, stage string) string {
	r := f.Result(stage)
	show := draw.Length(by.Units)
	switch {
	case r.IsLeaves && r.Limits.HasUpper && r.Interval.AtLeast > r.Limits.Upper:
		return "at least " + show(r.Interval.AtLeast-r.Limits.Upper) + " over, by the thickest leaf that goes in"
	case r.IsLeaves:
		return "under the lower limit"
	case r.Limits.HasUpper && r.Value > r.Limits.Upper:
		return "worst reading " + show(r.Value) + ", " + show(r.Value-r.Limits.Upper) + " over the limit"
	}
	return "worst reading " + show(r.Value) + ", " + show(r.Limits.Lower-r.Value) + " under the limit"
}

// workings are the steps behind a verdict.
func (l *look) workings(f *bench.Feature, stage string) []string {
	r := f.Result(stage)
	var out []string
	if !r.Any {
		return nil
	}
	show := draw.Length(l.Units)
	if r.IsLeaves {
		out = append(out, fmt.Sprintf("measured %s, limit for %s", f.Measured, f.LimitFor))
		if r.Interval.Bounded {
			out = append(out, fmt.Sprintf("thickest leaf that goes %s ≤ gap < thinnest that stops %s",
				show(r.Interval.AtLeast), show(r.Interval.LessThan)))
		}
	} else if f.Def.Method == family.MethodFit {
		for i, gap := range r.Fits {
			if !math.IsNaN(gap) {
				out = append(out, fmt.Sprintf("pair %d: hole less its own shaft = %s", i+1, show(gap)))
			}
		}
	} else if r.HasValue {
		if r.Odd > 0 {
			out = append(out, fmt.Sprintf("no. %d is an outlier: %s from the middle one, more than their "+
				"own scatter makes", r.Odd, show(r.OddBy)))
		}
		if r.HasBow {
			out = append(out, "bow = half of the whole swing = "+show(r.Bow))
		}
		out = append(out, fmt.Sprintf("%d readings, mean %s, from %s to %s", r.Summary.N, show(r.Summary.Mean),
			show(r.Summary.Minimum), show(r.Summary.Maximum)))
		if r.Summary.HasOutOfRound {
			out = append(out, "out of round "+show(r.Summary.OutOfRound))
		}
		if r.Summary.HasTaper {
			out = append(out, "taper "+show(r.Summary.Taper))
		}
		if r.Uncertainty > 0 {
			out = append(out, fmt.Sprintf("U = resolution %s/√3 = %s (k = 2); in only if the value ± U lies inside "+
				"(ISO 14253-1)", f.Resolution.Typed, fine(r.Uncertainty, l.Units)))
		}
	}
	if r.HasUsed {
		out = append(out, fmt.Sprintf("%.0f %% of the wear limit used", 100*r.Used))
	}
	return out
}

// fine writes a length that is smaller than a shop usually writes, such as an
// uncertainty: with three figures rather than to a thousandth.
func fine(m float64, system quantity.System) string {
	name := "µm"
	if system.For(quantity.Length) == quantity.Inch {
		name = "thou"
	}
	u, _ := quantity.UnitByName(name, quantity.Length)
	return quantity.Figures(u.In(m), 3) + " " + u.Name
}
