package report

import (
	"fmt"
	"strings"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/strip"
	"corvek/core/unit"
	"corvek/core/wording"
)

// Stacks tell of each pack how it came off, what belongs and from where that is known,
// and how it was fitted: three records, and none stands for another.
func Stacks(st *bench.State, units quantity.System) (out []string) {
	for _, p := range st.Parts {
		s := p.Stack
		if s == nil || len(s.Found)+len(s.Fit) == 0 {
			continue
		}
		if len(s.Found) > 0 {
			out = append(out, p.Name+", as removed: "+stackWords(s.Found, s.FoundDoes, units))
		}
		belongs := "not known; nothing is called wrong"
		if len(s.Right) > 0 {
			belongs = pieces(s.Right) + " (" + wording.Choice(unit.ScopePart, "stack_from", p.StackFrom) + ")"
		}
		out = append(out, p.Name+", as it belongs: "+belongs)
		if len(s.Fit) > 0 {
			out = append(out, p.Name+", as fitted: "+stackWords(s.Fit, s.FitDoes, units))
		}
		out = append(out, differs(p.Name+", removed against what belongs: ", s.FoundDiff)...)
		out = append(out, differs(p.Name+", fitted against what belongs: ", s.FitDiff)...)
		out = append(out, differs(p.Name+", fitted against what was removed: ", s.Changed)...)
	}
	return out
}

func differs(head string, list []strip.Difference) []string {
	if len(list) == 0 {
		return nil
	}
	words := make([]string, len(list))
	for i, d := range list {
		words[i] = d.Text
	}
	return []string{head + strings.Join(words, "; ")}
}

// stackWords are the pieces in order, and the force where the springs and their room
// are known.
func stackWords(list []family.Piece, does strip.Delivery, units quantity.System) string {
	words := fmt.Sprintf("%d pieces: %s", len(list), pieces(list))
	if len(list) == 1 {
		words = "one piece: " + pieces(list)
	}
	if does.HasForce {
		words += "; " + quantity.Show(does.Force, quantity.Force, units) + " at the installed height"
	}
	return words
}

func pieces(list []family.Piece) string {
	words := make([]string, len(list))
	for i, p := range list {
		words[i] = p.Text()
	}
	return strings.Join(words, " ")
}
