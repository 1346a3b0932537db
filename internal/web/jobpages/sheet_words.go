package jobpages

import (
	"fmt"
	"math"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/wording"
	"corvek/internal/draw"
	"corvek/internal/web/site"
)

// limitWords says a feature's limit and where it is from, or what it waits for.
func (l *look) limitWords(f *bench.Feature) string {
	if f.Def.Method == family.MethodGrade {
		return "by touch · guidance"
	}
	b := f.Found.Bound
	limit := wording.LimitOf(f.Feature, b, l.Units, draw.Length(l.Units))
	switch {
	case limit != "":
		return "limit " + limit + " · " + wording.LimitFrom(f.Feature, b, draw.Length(l.Units))
	case f.Def.Size:
		return "others go by it"
	case b.Lacks != "":
		return "no limit yet: " + l.lacks(f, b.Lacks) + " is not known"
	case b.ByTest:
		return b.By
	case f.Def.Mate != nil:
		return "judged by its gap to " + l.st.SizeName(f.Def.Mate.Of)
	case f.LimitSource == string(family.SourceEarlier):
		return "the limit of an earlier version was no size of this unit"
	}
	return "no limit"
}

// lacks names a size that a limit waits for.
func (l *look) lacks(f *bench.Feature, path string) string {
	if path == measure.AsNewLacks {
		if f.Def.Method == family.MethodFit {
			return "its own size"
		}
		return "its size as new"
	}
	return l.st.SizeName(path)
}

// verdictWords puts a verdict into a sentence.
func (l *look) verdictWords(f *bench.Feature, stage string) (word, sentence string) {
	r := f.Result(stage)
	show := draw.Length(l.Units)
	if f.Def.Method == family.MethodGrade && r.Grade >= 0 {
		if r.Verdict == metrology.Out {
			return "OUT", "by touch: " + family.Grades[r.Grade] + "; a figure is another matter"
		}
		return "PASSES", "by touch: " + family.Grades[r.Grade] + "; a figure is another matter"
	}
	if r.Deciding != "" {
		return map[metrology.Verdict]string{metrology.Out: "OUT", metrology.In: "IN",
			metrology.Undecided: "?"}[r.Verdict], l.deciding(f, r)
	}
	switch r.Verdict {
	case metrology.In:
		words := inWords(r.Limits, r.Value, r.IsLeaves, show)
		if r.Odd > 0 {
			words += fmt.Sprintf("; but no. %d is an outlier", r.Odd)
		}
		return "IN", words
	case metrology.Out:
		return "OUT", outWords(l.Reader, f, stage)
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
	switch {
	case r.Any && r.Odd > 0:
		return "?", fmt.Sprintf("no. %d is an outlier, %s apart; no limit is given", r.Odd, show(r.OddBy))
	case r.Any && r.Finer:
		return "", r.Settle
	case r.Any && r.ByTest:
		return "", "measured; its leak test says whether it is out, not its size"
	case r.Any && r.Bound.Lacks != "":
		return "", "measured; not judged against wear: " + l.lacks(f, r.Bound.Lacks) + " is not known"
	case r.Any:
		return "", "measured; there is no limit, so nothing is judged"
	}
	return "", "nothing entered yet"
}

// deciding says what decides beside the size.
func (l *look) deciding(f *bench.Feature, r measure.Result) string {
	if r.ToGo > 0 {
		return "undecided: " + r.Settle
	}
	for _, line := range r.Lines {
		if line.What == r.Deciding {
			return l.lineWords(line)
		}
	}
	return r.Settle
}

// lineWords says what a line beside the size comes to, and what it is held against.
func (l *look) lineWords(line measure.Line) string {
	show := draw.Length(l.Units)
	words := line.What
	if line.Of != "" {
		words += " to " + l.st.SizeName(line.Of)
	}
	if line.Value < 10e-6 {
		words += " " + fine(line.Value, l.Units)
	} else {
		words += " " + show(line.Value)
	}
	if limit := wording.Limit(line.Limits, show); limit != "" {
		words += ", " + limit
	}
	return words
}

// beside says what a line that needs no size as new comes to.
func (l *look) beside(line measure.Line) string {
	show, words := draw.Length(l.Units), l.lineWords(line)
	if line.By != "" {
		words += " (" + wording.Rule(line.By, line.Span, show) + ", guidance: " + line.Basis + ")"
	}
	switch {
	case line.Finer:
		return words + ": measure finer, the instrument cannot tell so little"
	case line.Verdict != "":
		return words + ": " + string(line.Verdict)
	}
	return words
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
			out = append(out, fmt.Sprintf("U = %s (k = 2) from the error its kind is allowed, its last digit and "+
				"the temperature; in only if the value ± U lies inside (ISO 14253-1)", fine(r.Uncertainty, l.Units)))
		}
	}
	for _, line := range r.Lines {
		out = append(out, l.beside(line))
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
