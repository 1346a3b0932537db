package report

import (
	"cmp"

	"corvek/core/bench"
	"corvek/core/family"
)

// Again asks on the start-up card for the complaint's own condition, where it could not
// be repeated at the stand; "" where it was, and where nobody complained.
func Again(st *bench.State) string {
	if !st.Unit.Owes("prove") {
		return ""
	}
	for _, step := range st.Plan() {
		if step.Code != family.ComplaintTest || st.ComplaintRepeated() {
			continue
		}
		return "Not repeated at our stand, so try it here: " +
			cmp.Or(
				family.SymptomWords(st.Job.Symptoms),
				"the complaint",
			) + between(" (", cmp.Or(family.AtWork(st.Job.Symptoms), step.How), ")") +
			". Came again: yes / no. Write it down and tell us."
	}
	return ""
}
