package report

import (
	"slices"
	"strings"

	"corvek/core/decide"
	"corvek/core/seal"
	"corvek/internal/job"
)

// StartUp is the card's list: what must be done first, what was done to the circuit, the
// family's steps as far as they fit this job, what the work asks for, what the operator must
// notice.
func StartUp(st *job.State) []string {
	var out []string
	for _, action := range actions(st) {
		out = append(out, "Before anything turns: "+action+".")
	}
	out = append(out, circuit(st)...)
	for _, step := range st.Family.StartUp {
		if step = fits(st, step); step != "" {
			out = append(out, step)
		}
	}
	out = append(out, renewed(st)...)
	if again := Again(st); again != "" {
		out = append(out, again)
	}
	if notice := notice(st); notice != "" {
		out = append(out, notice)
	}
	if st.Unit.Fluid != "" {
		out = append(out, "Fluid: "+st.Unit.Fluid+". Nothing else goes in.")
	}
	return out
}

// noFilter are the words by which a shop says that a circuit has no filter.
var noFilter = []string{"none", "no filter", "without", "no"}

// fits brings a step of the family to this job: the fluid by its name where it is no oil, and
// no filter where there is none. "" where nothing of it is left.
func fits(st *job.State, step string) string {
	if named, known := seal.NamedFluid(st.Unit.Fluid); known && !strings.Contains(named, "oil") {
		step = strings.NewReplacer("clean oil of the grade on this card", "the clean fluid on this card",
			"clean oil", "the clean fluid on this card", "ring of oil", "ring of fluid", "for oil", "for fluid",
		).Replace(step)
	}
	filtration := strings.ToLower(strings.TrimSpace(st.Unit.Filtration))
	switch {
	case !strings.Contains(step, "filter"):
	case slices.Contains(noFilter, filtration):
		return without(step, "filter")
	case filtration == "":
		step = strings.NewReplacer("change the return filter", "change the return filter, where there is one,",
			"Change the return filter", "Change the return filter, where there is one,").Replace(step)
	}
	return step
}

// without leaves out the clauses of a step that speak of something.
func without(step, of string) string {
	var left []string
	for _, clause := range strings.Split(strings.TrimSuffix(step, "."), ";") {
		if clause = strings.TrimSpace(clause); !strings.Contains(strings.ToLower(clause), of) {
			left = append(left, clause)
		}
	}
	if len(left) == 0 {
		return ""
	}
	return strings.Join(left, "; ") + "."
}

// renewed is what the parts that were fitted ask for: hard ones run in, soft ones are looked
// at once they have been warm.
func renewed(st *job.State) (out []string) {
	hard, soft := false, false
	for _, p := range st.Parts {
		if p.Choice() != decide.Replace || !p.Step.Done {
			continue
		}
		hard = hard || !p.Def.Renew
		soft = soft || p.Def.Renew
	}
	if soft {
		out = append(out, "New seals: wipe every joint dry after the first hour, warm, and look again after the first "+
			"day.")
	}
	if hard && (st.Family.Action == "pump" || st.Family.Action == "motor") {
		out = append(out, "New running parts: half load for the first hour, and look at the oil for bright metal "+
			"after it.")
	}
	if st.Family.Action == "pump" || st.Family.Action == "cylinder" {
		out = append(out, "Level: read it with the machine standing as its maker says, after the first hour and after "+
			"the first day.")
	}
	return out
}

// notice is what the operator must stop for.
func notice(st *job.State) string {
	switch st.Family.Action {
	case "pump", "motor":
		return "Stop it at once for a whine, foam in the tank, a shaft that sweats or a case that grows too hot to " +
			"touch."
	case "cylinder":
		return "Stop it for a rod that comes out wet, a load that sinks, or a stroke that jerks."
	}
	return "Stop it for a wet joint, a load that sinks, or a part that no longer comes back by itself."
}
