package bench

import (
	"slices"
	"strings"

	"corvek/core/build"
	"corvek/core/metrology"
	"corvek/core/search"
	"corvek/core/wording"
)

// Told is a line of the ledger in words.
type Told struct {
	search.Line
	Words string
}

// tries are the attempts as the search sees them. An exercise finds nothing.
func (st *Tested) tries() (out []search.Try) {
	for _, a := range st.Attempts {
		if !a.Closed || a.Source == "simulated" {
			continue
		}
		t := search.Try{Number: a.Number, Steps: map[string]metrology.Verdict{}}
		if a.OneChange != "" {
			t.Moves = append(t.Moves, search.Move{Kind: search.Kind(a.ChangeKind), Part: a.ChangePart})
		}
		if a.SecondChange != "" {
			t.Moves = append(t.Moves, search.Move{Kind: search.Kind(a.SecondKind), Part: a.SecondPart})
		}
		for _, p := range a.Points {
			t.Steps[p.Test.Code] = p.Verdict
		}
		out = append(out, t)
	}
	return out
}

// Search is the ledger of the attempts, each line in words.
func (st *Tested) Search() (out []Told) {
	for _, l := range search.Ledger(st.tries()) {
		out = append(out, Told{l, st.toldWords(l)})
	}
	return out
}

func (st *Tested) toldWords(l search.Line) string {
	step := l.Step
	if t, known := st.Family.TestByCode(l.Step); known {
		step = strings.ToLower(t.Name)
	}
	if l.Step == "complaint" {
		step = "the complaint"
	}
	parts := st.partNames(l.Parts)
	switch {
	case l.Says == search.Masked:
		return step + " came right because the fault is hidden, not found"
	case l.Says == search.Blamed && parts == "":
		return step + " came right"
	case l.Says == search.Blamed:
		return step + " came right: " + parts + " bore it"
	case l.Says == search.OneOf:
		return step + " came right by one of several changes at once" + wording.Behind(": ", parts) +
			"; which, can no longer be told"
	case l.Says == search.Acquitted:
		return parts + " is acquitted of " + step
	case l.Says == search.Broken:
		return step + " went wrong with this change" + wording.Behind(": ", parts)
	case l.Says == search.Untold:
		return step + " was not done again: nothing is told of it"
	}
	return parts + " was looked at, not acquitted of " + step
}

func (st *Stripped) partNames(codes []string) string {
	var out []string
	for _, code := range codes {
		if p := st.ByCode[code]; p != nil {
			out = append(out, strings.ToLower(p.Name))
		}
	}
	return strings.Join(out, " and ")
}

// suspects are the parts with what speaks against each, in the order they lie in.
func (st *Inferred) suspects() (out []search.Suspect) {
	against := map[string]*search.Against{}
	for _, p := range st.Parts {
		against[p.Code] = &search.Against{Marks: len(p.Seen)}
	}
	for _, r := range st.Explained().Ranking {
		var renewed []*search.Against
		for _, p := range st.Parts {
			if r.Cause.RenewsPart(p.Code, p.Def.Kind) {
				renewed = append(renewed, against[p.Code])
			}
		}
		for _, a := range renewed {
			a.Cause += r.Posterior / float64(len(renewed))
		}
	}
	blamed, remedies := st.causesOf()
	for _, named := range []map[string][]string{blamed, remedies} {
		for code := range named {
			if a := against[code]; a != nil {
				a.Named += 1 / float64(len(named))
			}
		}
	}
	if i := build.StiffAt(st.Steps()); i >= 0 {
		against[st.InOrder()[i].Code].Stiff = true
	}
	for _, p := range st.Parts {
		out = append(out, search.Suspect{Part: p.Code, Weight: against[p.Code].Weight()})
	}
	return out
}

// Halving is what to change next so that either answer halves the search of a step that is
// still out.
type Halving struct {
	Step  string // in words
	Parts []*Part
	Left  int // suspects of it
}

// Halve proposes the next split for each step that the last attempt of this unit left out.
func (st *Inferred) Halve() (out []Halving) {
	tries := st.tries()
	if len(tries) == 0 {
		return nil
	}
	ledger, all := search.Ledger(tries), st.suspects()
	last := tries[len(tries)-1]
	for _, step := range st.Plan() {
		if last.Steps[step.Code] != metrology.Out {
			continue
		}
		left := search.Left(all, step.Code, ledger)
		h := Halving{Step: strings.ToLower(step.Name), Left: len(left)}
		for _, code := range search.Split(left) {
			h.Parts = append(h.Parts, st.ByCode[code])
		}
		same := slices.IndexFunc(out, func(o Halving) bool {
			return slices.Equal(o.Parts, h.Parts) && o.Left == h.Left
		})
		switch {
		case len(h.Parts) == 0:
		case same >= 0:
			out[same].Step += "; " + h.Step
		default:
			out = append(out, h)
		}
	}
	return out
}
