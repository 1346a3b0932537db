package hidden

import (
	"slices"

	"corvek/core/bench"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/unit"
)

// Where are the fields of a unit's record by which a mark is told: at the station that has one for it, else among the
// marks.
func Where(st *bench.State, e *explain.Evidence) (out []unit.Ref) {
	for _, from := range e.Froms() {
		if out = whereFrom(st, e, from); len(out) > 0 {
			return out
		}
	}
	return []unit.Ref{{Scope: unit.ScopeEvidence, Unit: st.Unit.Number, Code: e.Code, Name: "state"}}
}

func whereFrom(st *bench.State, e *explain.Evidence, from explain.From) (out []unit.Ref) {
	u := st.Unit
	ofParts := func(name string, of explain.PartOf) {
		for _, p := range st.Parts {
			if of.Of(p.Code, p.Def.Kind) {
				out = append(out, u.PartRef(p.Code, name))
			}
		}
	}
	switch {
	case from.Symptom != "":
		ref := unit.JobRef("symptom")
		ref.Code = from.Symptom
		return []unit.Ref{ref}
	case from.Gauge.Asked() && slices.Contains(st.Family.Gauge, from.Gauge.To):
		ref := u.Ref("gauge")
		ref.Code = from.Gauge.To
		return []unit.Ref{ref}
	case from.Mark != nil:
		for _, p := range st.Parts {
			for _, mark := range from.Mark.Marks {
				if is := st.Knowledge.Marked(p.Code, p.Def.Kind, mark); is != nil && is.Code == e.Code {
					out = append(out, unit.Ref{Scope: unit.ScopePartMark, Unit: u.Number, Part: p.Code, Code: mark,
						Name: "state"})
				}
			}
		}
	case from.Facing != nil:
		ofParts("facing", *from.Facing)
		return slices.DeleteFunc(out, func(r unit.Ref) bool { return st.ByCode[r.Part].Def.Facing == "" })
	case from.Stuck != nil:
		ofParts("stuck", *from.Stuck)
	case from.Fluid != "":
		return []unit.Ref{u.Ref("drained_look")}
	case from.Missing != "" && st.ByCode[from.Missing] != nil:
		return []unit.Ref{u.PartRef(from.Missing, "found")}
	case from.Stack != "" && st.ByCode[from.Stack] != nil:
		return []unit.Ref{u.PartRef(from.Stack, "stack_found")}
	case from.Word.Asked():
		if t, known := st.Step(from.Word.To); known && t.Received {
			return []unit.Ref{u.PointRef(0, from.Word.To, "word")}
		}
	}
	for _, path := range []string{from.Used, from.Grade, from.Odd, from.Off.Path} {
		part, code := family.CutFeature(path)
		if st.ByCode[part] == nil {
			continue
		}
		for _, f := range st.ByCode[part].Features {
			if f.Code != code {
				continue
			}
			for _, slot := range f.Spec.Slots() {
				out = append(out, u.ReadingRef(part, code, unit.StageFound, slot))
			}
		}
	}
	return out
}
