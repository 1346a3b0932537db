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
	return []unit.Ref{st.Unit.EvidenceRef(e.Code, "state")}
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
		return []unit.Ref{unit.SymptomRef(from.Symptom)}
	case from.Gauge.Asked() && slices.Contains(st.Family.Gauge, from.Gauge.To):
		return []unit.Ref{u.GaugeRef(from.Gauge.To)}
	case from.Mark != nil:
		for _, p := range st.Parts {
			for _, mark := range from.Mark.Marks {
				if is := st.Knowledge.Marked(p.Code, p.Def.Kind, mark); is != nil && is.Code == e.Code {
					out = append(out, u.PartMarkRef(p.Code, mark, "state"))
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

// telling are the marks of which each field of a unit's record tells, by its place: Where the other way round, for
// every way in which a mark can be told.
func telling(st *bench.State) map[unit.Ref][]*explain.Evidence {
	out := map[unit.Ref][]*explain.Evidence{}
	add := func(ref unit.Ref, e *explain.Evidence) {
		ref = place(ref)
		if !slices.Contains(out[ref], e) {
			out[ref] = append(out[ref], e)
		}
	}
	for i := range st.Knowledge.Evidence {
		e := &st.Knowledge.Evidence[i]
		add(st.Unit.EvidenceRef(e.Code, "state"), e)
		for _, from := range e.Froms() {
			for _, ref := range whereFrom(st, e, from) {
				add(ref, e)
			}
			step, _ := from.OfStep()
			for _, code := range []string{step, from.Efficiency} { // what its figures come to
				if code != "" {
					add(st.Unit.PointRef(0, code, "word"), e)
				}
			}
		}
	}
	return out
}

// place is what is looked at with a field: all points of a feature are one, and so is all that a step shows.
func place(ref unit.Ref) unit.Ref {
	switch ref.Scope {
	case unit.ScopeReading:
		ref.Stage, ref.Name = "", ""
	case unit.ScopePoint:
		ref.Name = ""
	}
	return ref
}
