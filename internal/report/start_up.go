package report

import (
	"corvek/core/bench"
	"corvek/core/decide"
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
	out = append(out, circuit(st)...)
	for _, step := range st.Family.StartUp {
		if step = (handover.Circuit{Fluid: st.Unit.Fluid, Filtration: st.Unit.Filtration}).Fit(step); step != "" {
			out = append(out, step)
		}
	}
	out = append(out, renewed(st).Asks(st.Family.Action)...)
	if again := Again(st); again != "" {
		out = append(out, again)
	}
	out = append(out, handover.Notice(st.Family.Action))
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
