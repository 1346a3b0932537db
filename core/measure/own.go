package measure

import (
	"math"
	"regexp"
	"slices"
	"strings"

	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// How far a reading may lie from the unit's own size before it is questioned, as shares of
// it: from those read beside it, and from the size as new; and so many times what it may
// wear, up to twice the share. Guidance: a slip of a digit, a unit or the wrong part lies
// beyond, wear does not.
const (
	farFromSisters = 0.05
	farFromNew     = 0.15
	farAllowance   = 20
)

// own is the size that a reading of a slot should lie near, in m: the middle one of those
// read beside it on this unit and not questioned, else the size as new; and the share of it
// that a reading may lie away. 0 is not known.
func (s Spec) own(entries []*unit.Reading, slot string) (size, share float64) {
	var sisters []float64
	for _, e := range entries {
		if e.Slot != slot && IsFigure(e.Slot) && !e.Questioned() && !e.Size.IsZero() && s.alike(e.Slot, slot) {
			sisters = append(sisters, e.Size.SI)
		}
	}
	if len(sisters) > 0 {
		slices.Sort(sisters)
		return sisters[len(sisters)/2], farFromSisters
	}
	if s.New.Holds() {
		return s.New.Middle(), farFromNew
	}
	return 0, 0
}

// alike reports that two slots are of one size: of a fit, holes are not shafts.
func (s Spec) alike(a, b string) bool {
	return s.Method != family.MethodFit || a[:1] == b[:1]
}

// Far reports that a reading lies so far from the unit's own size that it is likelier a
// slip than wear.
func (s Spec) Far(entries []*unit.Reading, slot string, v float64) bool {
	own, share := s.own(entries, slot)
	if own <= 0 || s.Method == family.MethodTIR {
		return false
	}
	allowance := 0.0
	l := s.bound(entries).Limits
	if l.HasUpper {
		allowance = math.Max(allowance, math.Abs(l.Upper-own))
	}
	if l.HasLower {
		allowance = math.Max(allowance, math.Abs(own-l.Lower))
	}
	if own < 4*allowance { // a clearance: it wears by as much as it is
		return v > 3*own+farAllowance*allowance
	}
	return math.Abs(v-own) > math.Max(share*own, math.Min(farAllowance*allowance, 2*share*own))
}

var thousand = regexp.MustCompile(`^(\d{1,3}),(\d{3})(\D.*)?$`)

// Decimal reads the comma of 80,064 as a decimal one where the unit's own size makes a
// thousand times as much absurd; elsewhere it is left for its writer to say.
func (s Spec) Decimal(entries []*unit.Reading, slot, text, bare string) string {
	m := thousand.FindStringSubmatch(text)
	if m == nil {
		return text
	}
	point := m[1] + "." + m[2] + m[3]
	own, _ := s.own(entries, slot)
	q, err := quantity.ParseDefault(point, quantity.Length, bare)
	if err != nil || q.SI > 3*own || q.SI < own/3 {
		return text
	}
	return point
}

// Asked gives what is kept of a reading: with the mark of a question where it lies far
// from the unit's own size, unless the same figure was questioned already and is said
// again.
func (s Spec) Asked(entries []*unit.Reading, slot, text string) string {
	text = strings.TrimSuffix(text, unit.QuestionMark)
	q, err := quantity.Parse(text, quantity.Length)
	if err != nil || !IsFigure(slot) || !s.Far(entries, slot, q.SI) {
		return text
	}
	for _, e := range entries {
		if e.Slot != slot {
			continue
		}
		was, err := quantity.Parse(e.Plain(), quantity.Length)
		if err == nil && math.Abs(was.SI-q.SI) < 1e-9 {
			return text // said twice, or settled before
		}
	}
	return text + unit.QuestionMark
}
