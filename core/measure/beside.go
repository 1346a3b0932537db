package measure

import (
	"fmt"
	"math"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/tolerance"
	"corvek/core/unit"
)

// Line is something that judges a feature beside its size, and needs no size as new.
type Line struct {
	What    string // out of round, spread, gap
	Of      string // of a gap: the mate, part.feature
	Value   float64
	Limits  metrology.Limits
	U       float64
	Verdict metrology.Verdict
	Finer   bool   // the instrument cannot tell
	By      string // § stands for Span
	Span    float64
	Basis   string
}

// What a line is of.
const (
	OutOfRound = "out of round"
	Spread     = "spread"
	MateGap    = "gap"
)

// beside judges what needs no size as new: how round it is, how much sisters differ, and the gap to its mate.
func (r *Result) beside(s Spec, entries []*unit.Reading) {
	all := readings(entries, "")
	if s.Rule != nil && s.Rule.Round != "" && r.Summary.HasOutOfRound && len(all) > 0 {
		grade, _ := tolerance.Parse(s.Rule.Round)
		if width, ok := tolerance.Width(median(all), grade.Grade); ok {
			r.line(Line{What: OutOfRound, Value: r.Summary.OutOfRound, Limits: metrology.AtMost(width),
				U: s.apart(), By: s.Rule.Round + " of its diameter", Basis: s.Rule.Basis})
		}
	}
	if s.Rule != nil && s.Rule.Spread != "" && len(all) > 1 {
		r.line(Line{What: Spread, Value: r.Summary.Range, Limits: metrology.AtMost(lengthOf(s.Rule.Spread)),
			U: s.apart(), By: "sisters within §", Span: lengthOf(s.Rule.Spread), Basis: s.Rule.Basis})
	}
	r.mate(s, all)
}

// mate judges the gap to what runs in or on it by the worst reading and the mate's own size.
func (r *Result) mate(s Spec, all []float64) {
	m := s.Mate
	if m == nil || len(all) == 0 {
		return
	}
	mate, ok := s.Sizes.At(m.Of)
	if !ok || !mate.HasRead { // what it was as new does not say how far they stand apart now
		r.Lacks = append(r.Lacks, m.Of)
		return
	}
	v := r.Summary.Worst(metrology.Kind(s.Wears))
	gap := v - mate.Read
	if s.Wears == string(metrology.Shaft) {
		gap = mate.Read - v
	}
	b := Bound{}
	s.gapped(&family.Rule{Of: m.Of, Low: m.Low, High: m.High, Out: m.Out, Times: m.Times, Most: m.Most,
		Steps: m.Steps, Least: m.Least}, nil, &b)
	b.Limits.Lower, b.Limits.HasLower = 0, false // what binds is felt when it is put together
	if gap < 0 {
		r.Faults["mate"] = "is larger than what it runs in; check both readings"
		return
	}
	r.line(Line{What: MateGap, Of: m.Of, Value: gap, Limits: b.Limits, U: math.Hypot(r.Uncertainty, r.Uncertainty),
		By: b.By, Span: b.Span, Basis: m.Basis})
}

func (r *Result) line(l Line) {
	if l.Limits.Empty() {
		r.Lines = append(r.Lines, l)
		return
	}
	band := l.Limits.Upper
	if l.Limits.HasLower {
		band -= l.Limits.Lower
	}
	if metrology.TooFine(band, l.U) {
		l.Finer = true
	} else {
		l.Verdict = metrology.Judge(l.Value, l.Limits, l.U, true).Verdict
	}
	r.Lines = append(r.Lines, l)
}

// apart is the uncertainty of a difference that one instrument reads at one place: what it is off by falls
// out, its last digit stands twice.
func (s Spec) apart() float64 {
	q, ok := s.Resolution.Known()
	if !ok {
		return 0
	}
	return metrology.ExpandedFromResolution(q) * math.Sqrt2
}

// conclude takes what stands beside the size into the verdict. What is round and like its sisters is not in
// by that alone: its size may be worn all the same.
func (r *Result) conclude(s Spec) {
	for _, l := range r.Lines {
		if l.What == MateGap && l.Verdict == metrology.In && s.Needed() > r.Count { // as with sizes, in is all of it
			l.Verdict, r.ToGo = metrology.Undecided, s.Needed()-r.Count
			r.Settle = fmt.Sprintf("%d in so far, %d to go", r.Count, r.ToGo)
		}
		if l.What != MateGap && l.Verdict == metrology.In {
			continue
		}
		if worst := metrology.Worst(r.Verdict, l.Verdict); worst != r.Verdict {
			r.Verdict, r.Deciding = worst, l.What
		}
		if l.Verdict == metrology.Undecided && r.Settle == "" {
			r.Settle = "nearer to the limit than the instrument can tell; use a finer one"
		}
	}
}

// Allowance is what the limits leave: a band, or what may be worn off the size as new; 0 where one end alone
// says nothing of it.
func (s Spec) Allowance(l metrology.Limits) float64 {
	gap := !s.IsSize()
	switch {
	case s.New.Holds() && l.HasUpper && s.Wears == string(metrology.Bore):
		return l.Upper - s.New.Middle()
	case s.New.Holds() && l.HasLower && s.Wears == string(metrology.Shaft):
		return s.New.Middle() - l.Lower
	case l.HasLower && l.HasUpper:
		return l.Upper - l.Lower
	case l.HasUpper && gap:
		return l.Upper
	}
	return 0
}

// IsSize reports that the readings are sizes that wear, and not gaps, swings or grades.
func (s Spec) IsSize() bool {
	switch s.Method {
	case family.MethodValue, family.MethodGrid, family.MethodSisters:
		return s.Wears != ""
	}
	return false
}

// instrument is the uncertainty of one reading near a size, by its kind, its last digit and the temperature.
func (s Spec) instrument(size float64) float64 {
	l := metrology.Length{Size: size, Growth: s.Growth, Apart: s.Apart}
	l.Resolution, _ = s.Resolution.Known()
	l.Setting, _ = s.Setting.Known()
	if p, ok := s.Permitted.Known(); ok {
		l.Permitted = p
	} else {
		l.Permitted = s.Tool.Permitted(size)
	}
	if !s.IsSize() && s.Method != family.MethodFit {
		l.Size = 0 // a gap grows with its parts by nothing that an instrument sees
	}
	return l.Expanded()
}

// finer says that no verdict is given because the instrument cannot tell so little.
func finer(allowance, u float64) string {
	um := func(m float64) string { return quantity.Figures(m*1e6, 2) + " µm" }
	return fmt.Sprintf("measure finer: %s may be worn, and the instrument tells ±%s", um(allowance), um(u))
}
