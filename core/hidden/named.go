package hidden

import (
	"slices"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/unit"
)

// Named is what a field of the record is called to somebody who looks there.
func (b *Bench) Named(ref unit.Ref) string {
	part := ""
	if p := b.Record.ByCode[ref.Part]; p != nil {
		part = p.Name
	}
	switch ref.Scope {
	case unit.ScopeJob:
		at := slices.IndexFunc(family.Symptoms, func(s family.Symptom) bool { return s.Code == ref.Code })
		if at >= 0 {
			return family.Symptoms[at].Text
		}
	case unit.ScopeEvidence:
		if e, known := b.True.Known.EvidenceByCode(ref.Code); known {
			return e.Text
		}
	case unit.ScopePartMark:
		if m, known := family.PartMark(ref.Code); known {
			return part + ": " + m.Text
		}
	case unit.ScopeReading:
		for _, f := range b.Record.ByCode[ref.Part].Features {
			if f.Code == ref.Feature {
				return part + ": " + f.Def.Name
			}
		}
	case unit.ScopePoint:
		if t, known := b.True.Step(ref.Code); known {
			return t.Name
		}
	}
	if ref.Name == "gauge" {
		if q, known := family.QuestionByCode(ref.Code); known {
			return q.Ask
		}
	}
	label := ref.Name
	if f, known := entry.Find(ref.Scope, ref.Name); known {
		label = f.Label
	}
	if ref.Name == "sound" {
		label = "looked all over"
	}
	if part == "" {
		return label
	}
	return part + ": " + label
}
