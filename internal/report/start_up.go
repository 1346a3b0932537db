package report

import (
	"strings"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/fluid"
	"corvek/core/handover"
)

// StartUp is the card's list: what must be done first, what was done to the circuit, the
// family's steps as far as they fit this job, what the work asks for, what the operator must
// notice.
func StartUp(st *bench.State) []string {
	var out []string
	for _, action := range actions(st) {
		out = append(out, "Before anything turns: "+action+".")
	}
	out = append(out, uncured(st)...)
	out = append(out, circuit(st)...)
	goes := handover.Circuit{Fluid: st.Unit.Fluid, Filtration: st.Unit.Filtration}
	for _, step := range st.Family.StartUp {
		if step = goes.Fit(step); step != "" {
			out = append(out, step)
		}
	}
	out = append(out, nonEmpty(handover.Never(st.Family.Action))...)
	out = append(out, renewed(st).Asks(st.Family.Action)...)
	out = append(out, nonEmpty(handover.Bolts, goes.Oil(), sumpAgain(st))...)
	if again := Again(st); again != "" {
		out = append(out, again)
	}
	for _, mask := range st.Masks() {
		out = append(out, "Keep an eye on it: "+lowered(mask)+".")
	}
	out = append(out, handover.Normal(st.Family.Action), handover.Notice(st.Family.Action))
	if s, told := fluid.ScreenIn(st.Unit.Filtration); told {
		if words, tooFine := s.Says(st.Unit.Viscosity.SI, st.Unit.Fluid); tooFine {
			out = append(out, "The strainer: "+words+".")
		}
	}
	if st.Unit.Fluid != "" {
		out = append(out, "Fluid: "+st.Unit.Fluid+". Nothing else goes in.")
	}
	return out
}

// renewed is what was fitted new.
func renewed(st *bench.State) (r handover.Renewed) {
	for _, p := range st.Parts {
		if p.Choice() != decide.Replace || !p.Step.Done {
			continue
		}
		r.Soft = r.Soft || p.Def.Renew
		r.Running = r.Running || handover.Runs(p.Def.Kind)
	}
	return r
}

// uncured says that what ended the old unit was not cured, where it lies outside: whatever runs there
// runs on it.
func uncured(st *bench.State) (out []string) {
	for _, n := range st.Uncured() {
		out = append(
			out,
			"Not cured, as far as we know: "+lowered(n.Name)+". Every hour on it costs this one the same; "+
				"call before it runs.",
		)
	}
	return out
}

// sumpAgain asks to look at a sump that had gained oil of this unit's.
func sumpAgain(st *bench.State) string {
	if st.Unit.GainedElsewhere.IsZero() {
		return ""
	}
	return "The other sump had gained " + st.Unit.GainedElsewhere.Typed + ": mark its level, and look after the " +
		"first hours and after the first day whether it gains again."
}

// lowered is a sentence as it stands within another.
func lowered(text string) string {
	if text == "" {
		return ""
	}
	return strings.ToLower(text[:1]) + text[1:]
}
