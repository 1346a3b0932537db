package unit

import (
	"strings"
	"time"

	"corvek/core/family"
	"corvek/core/quantity"
)

// Feature is something measured, with the limit that holds on this unit.
type Feature struct {
	Code       string
	Lower      quantity.Quantity
	Upper      quantity.Quantity
	Standing   string // where the limit is from
	Source     string // the document it stands in
	Measured   string // total or each
	LimitFor   string // total or each
	Instrument string
	Resolution quantity.Quantity
	Readings   []*Reading
}

// Typed notes that a limit was typed here: it is the shop's then, and no longer what
// shipped.
func (f *Feature) Typed() {
	if f.Standing == string(family.StandingGuidance) || f.Standing == string(family.StandingNone) {
		f.Standing = string(family.StandingShop)
	}
}

// Stands is what the limit is worth: a maker's or a standard's only with the document
// it stands in.
func (f *Feature) Stands() family.Standing {
	s := family.Standing(f.Standing)
	if f.Source == "" && (s == family.StandingMaker || s == family.StandingStandard) {
		return family.StandingShop
	}
	return s
}

// The stages a reading belongs to.
const (
	StageFound = "found"
	StageBuilt = "built"
)

// Reading is one figure, leaf or grade.
type Reading struct {
	Round int
	Stage string
	Slot  string
	Value string            // as typed
	Size  quantity.Quantity // the figure, where the slot holds one
	By    string
	At    time.Time
}

// QuestionMark stands behind a figure that lies far from the unit's own size, until
// somebody says that it is so. It is kept with the figure, so that every paper shows it.
const QuestionMark = " ?"

// Questioned reports that nobody has said yet that the figure is so.
func (r *Reading) Questioned() bool { return strings.HasSuffix(r.Value, QuestionMark) }

// Plain is what was typed, without the question.
func (r *Reading) Plain() string { return strings.TrimSuffix(r.Value, QuestionMark) }

// Measure reads the figure of a reading once, where its slot holds one.
func (r *Reading) Measure() {
	r.Size = quantity.Quantity{}
	if q, err := quantity.Parse(r.Value, quantity.Length); err == nil {
		r.Size = q
	}
}

// Newest are a stage's readings of the last round that has any. A later round's
// readings replace those of an earlier one as a whole: mixing leaves of before
// and after a rework would contradict itself.
func (f *Feature) Newest(stage string) []*Reading {
	newest := 0
	for _, r := range f.Readings {
		if r.Stage == stage {
			newest = max(newest, r.Round)
		}
	}
	var out []*Reading
	for _, r := range f.Readings {
		if r.Stage == stage && r.Round == newest {
			out = append(out, r)
		}
	}
	return out
}
