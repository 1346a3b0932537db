package report

import (
	"corvek/core/bench"
	"corvek/core/proof"
	"corvek/core/unit"
	"corvek/core/wording"
)

// Standing is what may be said of the unit on paper, in the same size: how the job
// ends for it, what its test proves, and what is missing to that.
type Standing struct {
	Words   string
	Missing []string
	Proved  bool
}

// Stands gives the standing of a unit.
func Stands(st *bench.State) Standing {
	if st.Unit.Ending != unit.EndRebuilt && !st.Unit.Owes("prove") {
		words := wording.Endings[st.Unit.Ending]
		if st.Unit.EndingNote != "" {
			words += ": " + st.Unit.EndingNote
		}
		return Standing{Words: words}
	}
	claim, missing := st.Claim()
	s := Standing{Words: wording.Claims[string(claim)], Missing: missing, Proved: claim == proof.Proved}
	if st.Unit.Ending == unit.EndNoFault {
		s.Words = wording.Endings[unit.EndNoFault] + ". " + s.Words
	}
	return s
}
