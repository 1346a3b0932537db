// Package metrology turns readings into figures and figures into verdicts.
//
// A verdict is one of three: in, out, or undecided where the instrument cannot
// tell. The guarded rule is that of ISO 14253-1: conformity is claimed only when
// the value with its expanded uncertainty lies inside the limits, and
// nonconformity only when it lies wholly outside. All lengths in m; the rules
// hold for any quantity.
package metrology

import "math"

// Verdict is the outcome of holding a value against its limits.
type Verdict string

// The three verdicts. The empty Verdict means nothing was asked.
const (
	In        Verdict = "in"
	Out       Verdict = "out"
	Undecided Verdict = "undecided"
)

// Limits are a lower and an upper bound, either of which may be absent.
type Limits struct {
	Lower, Upper       float64
	HasLower, HasUpper bool
}

// Between gives limits with both ends.
func Between(lower, upper float64) Limits { return Limits{lower, upper, true, true} }

// AtMost gives an upper limit alone.
func AtMost(upper float64) Limits { return Limits{Upper: upper, HasUpper: true} }

// AtLeast gives a lower limit alone.
func AtLeast(lower float64) Limits { return Limits{Lower: lower, HasLower: true} }

// Empty reports that there is no limit at all.
func (l Limits) Empty() bool { return !l.HasLower && !l.HasUpper }

// Middle is the centre of the band; ok is false with an end missing.
func (l Limits) Middle() (m float64, ok bool) {
	return (l.Lower + l.Upper) / 2, l.HasLower && l.HasUpper
}

// Judgement is a verdict with its distances to the limits, positive inside.
type Judgement struct {
	Verdict                  Verdict
	MarginLower, MarginUpper float64
	Uncertainty              float64
}

// ExpandedFromResolution is the expanded uncertainty (k = 2) that the digit or
// graduation of an instrument alone brings: a rectangular distribution of
// half-width r/2 has the standard deviation r/(2√3).
func ExpandedFromResolution(resolution float64) float64 { return resolution / math.Sqrt(3) }

// ExpandedFromClass is the expanded uncertainty (k = 2) of a gauge of an accuracy class, in
// the unit of its full scale: the class is the largest error in percent of full scale
// (EN 837-1), taken as the half-width of a rectangular distribution.
func ExpandedFromClass(class, fullScale float64) float64 {
	return 2 * class / 100 * fullScale / math.Sqrt(3)
}

// above reports a > b beyond the rounding of figures typed in mixed units.
func above(a, b float64) bool {
	return a-b > 1e-12*math.Max(math.Abs(a), math.Abs(b))
}

// Judge holds value against the limits with expanded uncertainty u. With
// guarded false the value alone decides.
func Judge(value float64, l Limits, u float64, guarded bool) Judgement {
	j := Judgement{Verdict: In, MarginLower: value - l.Lower, MarginUpper: l.Upper - value, Uncertainty: u}
	if !guarded {
		u = 0
	}
	switch {
	case l.HasUpper && above(value-u, l.Upper), l.HasLower && above(l.Lower, value+u):
		j.Verdict = Out
	case l.HasUpper && above(value+u, l.Upper), l.HasLower && above(l.Lower, value-u):
		j.Verdict = Undecided
	}
	return j
}

// Worst is the gravest of several verdicts: out, then undecided, then in.
func Worst(vs ...Verdict) Verdict {
	worst := Verdict("")
	rank := map[Verdict]int{"": 0, In: 1, Undecided: 2, Out: 3}
	for _, v := range vs {
		if rank[v] > rank[worst] {
			worst = v
		}
	}
	return worst
}
