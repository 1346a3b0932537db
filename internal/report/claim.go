package report

import (
	"slices"
	"strings"

	"corvek/core/bench"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/core/wording"
)

// Standing is what may be said of the unit on paper, in the same size: how the job ends for it, what
// its test proves and up to what, and what is missing to that.
type Standing struct {
	Words   string
	Limits  string   // of what was tested and not proved: up to what, and what was not shown
	Missing []string // all that keeps it from being proved
	Besides []string // of that what is no claim by itself
	Masks   []string // what made a figure good besides the repair
	Proved  bool
}

// Line is the first line of a paper.
func (s Standing) Line() string { return s.Words + wording.Behind(": ", s.Limits) }

// Stands gives the standing of a unit.
func Stands(st *bench.State, units quantity.System) Standing {
	if st.Unit.Ending != unit.EndRebuilt && !st.Unit.Owes("prove") {
		words := wording.Endings[st.Unit.Ending]
		if st.Unit.EndingNote != "" {
			words += ": " + st.Unit.EndingNote
		}
		return Standing{Words: words}
	}
	claim, missing := st.Claim()
	s := Standing{Words: wording.Claims[string(claim)], Missing: missing, Proved: claim == proof.Proved,
		Masks: st.Masks()}
	if claim == proof.Tested {
		s.Limits = limits(st, units)
	}
	for _, m := range missing {
		if !slices.ContainsFunc(st.Claims, func(c proof.Told) bool { return strings.HasPrefix(m, c.Says+" (") }) {
			s.Besides = append(s.Besides, m)
		}
	}
	if st.Unit.Ending == unit.EndNoFault {
		s.Words = wording.Endings[unit.EndNoFault] + ". " + s.Words
	}
	return s
}

// limits say up to what pressure a unit was tested, and which claims were not shown.
func limits(st *bench.State, units quantity.System) string {
	var out []string
	if highest := st.Highest(); highest > 0 {
		out = append(out, "up to "+quantity.Show(highest, quantity.Pressure, units))
	} else {
		out = append(out, "no pressure was read of it as it is now")
	}
	var missing []string
	for i := range st.Claims {
		if c := &st.Claims[i]; !c.Shown() {
			missing = append(missing, c.Says)
		}
	}
	if len(missing) > 0 {
		out = append(out, "not shown: "+strings.Join(missing, ", "))
	}
	return strings.Join(out, "; ")
}
