package metrology

import (
	"errors"
	"math"
)

// Sense tells what a clearance figure means: the whole play with the part
// pushed to one side, or the gap on each side of a centred part.
type Sense string

// Total is twice Each.
const (
	Total Sense = "total"
	Each  Sense = "each"
)

// convert brings v from one sense to another.
func convert(v float64, from, to Sense) float64 {
	switch {
	case from == to || from == "" || to == "":
		return v
	case from == Total:
		return v / 2
	default:
		return v * 2
	}
}

// Leaves is what a set of feeler leaves did, thicknesses in m.
type Leaves struct{ Goes, Drags, Stops []float64 }

// Interval is what leaves can say of a gap: it lies in [AtLeast, LessThan).
type Interval struct {
	AtLeast, LessThan float64
	Bounded           bool // false: no leaf stopped, LessThan means nothing
	DragsAt           bool // the leaf of AtLeast went with drag
}

// Errors of contradictory leaves.
var (
	ErrNoLeaf        = errors.New("try at least one leaf")
	ErrContradiction = errors.New("a leaf cannot go where the same or a thinner one stops; try those leaves again")
)

const leafSlack = 1e-9 // relative; mixes 7 thou with 0.007 in

func sameLeaf(a, b float64) bool { return math.Abs(a-b) <= leafSlack*math.Max(a, b) }

// Interval reads the leaves. Leaves that contradict one another are refused.
func (l Leaves) Interval() (Interval, error) {
	if len(l.Goes)+len(l.Drags)+len(l.Stops) == 0 {
		return Interval{}, ErrNoLeaf
	}
	iv := Interval{LessThan: math.Inf(1)}
	for _, v := range l.Goes {
		iv.AtLeast = math.Max(iv.AtLeast, v)
	}
	for _, v := range l.Drags {
		if v > iv.AtLeast || sameLeaf(v, iv.AtLeast) {
			iv.AtLeast, iv.DragsAt = math.Max(v, iv.AtLeast), true
		}
	}
	for _, v := range l.Goes {
		if iv.DragsAt && v > iv.AtLeast && !sameLeaf(v, iv.AtLeast) {
			iv.DragsAt = false
		}
	}
	for _, v := range l.Stops {
		iv.LessThan, iv.Bounded = math.Min(iv.LessThan, v), true
	}
	if iv.Bounded && (iv.AtLeast > iv.LessThan || sameLeaf(iv.AtLeast, iv.LessThan)) {
		return Interval{}, ErrContradiction
	}
	return iv, nil
}

// Midpoint is the best single figure for the gap, where there is one.
func (iv Interval) Midpoint() (float64, bool) {
	return (iv.AtLeast + iv.LessThan) / 2, iv.Bounded
}

// In converts the interval to another sense of the same clearance.
func (iv Interval) In(from, to Sense) Interval {
	iv.AtLeast = convert(iv.AtLeast, from, to)
	if iv.Bounded {
		iv.LessThan = convert(iv.LessThan, from, to)
	}
	return iv
}

// Judge holds the interval against limits in the same sense.
func (iv Interval) Judge(l Limits) Verdict {
	if l.Empty() {
		return ""
	}
	overUpper := l.HasUpper && iv.AtLeast > l.Upper && !sameLeaf(iv.AtLeast, l.Upper)
	underLower := l.HasLower && iv.Bounded && (iv.LessThan < l.Lower || sameLeaf(iv.LessThan, l.Lower))
	if overUpper || underLower {
		return Out
	}
	upperHeld := !l.HasUpper ||
		iv.Bounded && (iv.LessThan < l.Upper || sameLeaf(iv.LessThan, l.Upper)) ||
		iv.DragsAt && sameLeaf(iv.AtLeast, l.Upper)
	lowerHeld := !l.HasLower || iv.AtLeast > l.Lower || sameLeaf(iv.AtLeast, l.Lower)
	if upperHeld && lowerHeld {
		return In
	}
	return Undecided
}

// In converts limits to another sense.
func (l Limits) In(from, to Sense) Limits {
	l.Lower, l.Upper = convert(l.Lower, from, to), convert(l.Upper, from, to)
	return l
}
