package report

import (
	"cmp"
	"corvek/core/family"
	"corvek/core/unit"
	"corvek/internal/job"
)

// Again asks on the start-up card for the complaint's own condition, where it could not
// be repeated at the stand; "" where it was, and where nobody complained.
func Again(st *job.State) string {
	if !st.Unit.Owes("prove") {
		return ""
	}
	for _, step := range st.Plan() {
		if step.Code != family.ComplaintTest || repeated(st.Counts()) {
			continue
		}
		return "Not repeated at our stand, so try it here: " +
			cmp.Or(family.SymptomWords(st.Job.Symptoms), "the complaint") + between(" (", step.How, ")") +
			". Came again: yes / no. Write it down and tell us."
	}
	return ""
}

// repeated reports that the complaint's step was done on this unit, not on a simulated one.
func repeated(a *job.AttemptState) bool {
	if a == nil || a.Source == unit.SourceSimulated {
		return false
	}
	p := a.Attempt.Point(family.ComplaintTest)
	return p != nil && p.Word != "" && p.Skipped == ""
}
