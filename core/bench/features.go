package bench

import (
	"strings"

	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/core/unit"
)

// Feature is a feature with what its readings say.
type Feature struct {
	*unit.Feature
	Def     *family.Feature
	Part    *AsFound
	Spec    measure.Spec
	Found   measure.Result
	Built   measure.Result
	entries map[string]map[string]*unit.Reading // stage → slot
}

// Path is the name used by leaks and knowledge: part.feature.
func (f *Feature) Path() string { return f.Part.Code + "." + f.Code }

// Entry is what was typed in a slot.
func (f *Feature) Entry(stage, slot string) string {
	if r := f.entries[stage][slot]; r != nil {
		return r.Value
	}
	return ""
}

// Size is the figure in a slot, in m; ok is false where there is none.
func (f *Feature) Size(stage, slot string) (m float64, ok bool) {
	r := f.entries[stage][slot]
	if r == nil {
		return 0, false
	}
	return r.Size.Known()
}

// Result is the evaluation of a stage.
func (f *Feature) Result(stage string) measure.Result {
	if stage == unit.StageBuilt {
		return f.Built
	}
	return f.Found
}

// ExtraLeaves are leaves tried that are not in the usual set.
func (f *Feature) ExtraLeaves(stage string) []string {
	var out []string
	for slot := range f.entries[stage] {
		leaf, ok := strings.CutPrefix(slot, "leaf:")
		if !ok {
			continue
		}
		known := false
		for _, l := range f.Def.Leaves {
			known = known || l == leaf
		}
		if !known {
			out = append(out, leaf)
		}
	}
	return out
}

func newFeature(u *unit.Unit, row *unit.Feature, def *family.Feature, p *AsFound) *Feature {
	fs := &Feature{Feature: row, Def: def, Part: p, Spec: measure.SpecOf(u, p.Def, def, row),
		entries: map[string]map[string]*unit.Reading{}}
	for _, stage := range []string{unit.StageFound, unit.StageBuilt} {
		fs.entries[stage] = map[string]*unit.Reading{}
		for _, r := range row.Newest(stage) {
			fs.entries[stage][r.Slot] = r
		}
	}
	fs.Found = measure.Evaluate(fs.Spec, row.Newest(unit.StageFound))
	fs.Built = measure.Evaluate(fs.Spec.After(u, row), row.Newest(unit.StageBuilt))
	return fs
}

// Life is how fast a feature wears and how long it still has, where the hours
// run, the size when new and the limit are known.
func (st *Given) Life(f *Feature) (l metrology.Life, ok bool) {
	r := f.Found
	seconds, ok := st.Unit.Hours.Known()
	hours := seconds / 3600
	if !ok || hours <= 0 || !r.HasValue || !r.HasNominal || r.IsLeaves {
		return l, false
	}
	limit := 0.0
	switch {
	case f.Def.Wears == "bore" && r.Limits.HasUpper:
		limit = r.Limits.Upper
	case f.Def.Wears == "shaft" && r.Limits.HasLower:
		limit = r.Limits.Lower
	default:
		return l, false
	}
	if limit == r.Nominal {
		return l, false
	}
	return metrology.WearLife(r.Nominal, limit, r.Value, hours), true
}
