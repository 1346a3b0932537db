// Package search keeps the ledger of a search for the fault after a failed test: what each
// attempt changed, what that acquits, what it blames, and what can no longer be told. It
// works step by step of the test, because a unit may have several faults that show at
// different steps.
package search

import (
	"slices"

	"corvek/core/metrology"
)

// Kind is what was done between two attempts.
type Kind string

// The kinds of change.
const (
	Swap    Kind = "swap"    // a piece known to be good in its place
	Renew   Kind = "renew"   // a new piece, or reworked and measured
	Loosen  Kind = "loosen"  // a joint slackened, to see whether it binds
	Adjust  Kind = "adjust"  // a setting brought to its book
	Clean   Kind = "clean"   // washed, bled, worked free
	Inspect Kind = "inspect" // out, looked at and in again, nothing changed
	Mask    Kind = "mask"    // hides the fault: a relief raised over its book, thicker oil
	Nothing Kind = "nothing" // run once more as it is: a hold run out, a gauge read right
)

// Kinds are all of them, in the order they are offered.
var Kinds = []Kind{Swap, Renew, Loosen, Adjust, Clean, Inspect, Mask, Nothing}

// Acquits reports that a part is free of blame where the step stays as bad as it was. Who
// only looked has acquitted nothing, and what was cleaned may have another fault.
func (k Kind) Acquits() bool { return k == Swap || k == Renew || k == Loosen || k == Adjust }

// Move is one change. Without a part it says nothing of any.
type Move struct {
	Kind Kind
	Part string
}

// Try is an attempt: what was changed before it, and how its steps came out.
type Try struct {
	Number int
	Moves  []Move
	Steps  map[string]metrology.Verdict // by code of the step; "" where it was not done
}

// Says is what an attempt tells of a part at a step.
type Says string

// What can be told.
const (
	Blamed    Says = "blamed"     // it alone was changed, and the step came right
	OneOf     Says = "one_of"     // one of several changed at once: which, can no longer be told
	Acquitted Says = "acquitted"  // it was changed, and the step is as bad as before
	Broken    Says = "broken"     // it was changed, and the step went wrong
	Open      Says = "open"       // inspected or cleaned is not acquitted
	Masked    Says = "masked"     // the step came right because the fault was hidden
	Untold    Says = "not_tested" // the step was not done again
)

// Line is a line of the ledger.
type Line struct {
	Try   int
	Step  string
	Parts []string
	Says  Says
}

// Ledger works through the attempts in their order. Only steps that were out before or are
// out now say anything.
func Ledger(tries []Try) (out []Line) {
	for i := 1; i < len(tries); i++ {
		before, now := tries[i-1].Steps, tries[i]
		for _, step := range steps(before, now.Steps) {
			out = append(out, now.line(step, before[step], now.Steps[step])...)
		}
	}
	return out
}

// steps are those that have anything to tell, by code.
func steps(before, now map[string]metrology.Verdict) (out []string) {
	for step, v := range before {
		if v == metrology.Out || now[step] == metrology.Out {
			out = append(out, step)
		}
	}
	slices.Sort(out)
	return out
}

// line tells what an attempt says at one step.
func (t Try) line(step string, was, is metrology.Verdict) (out []Line) {
	var parts []string
	mask := false
	for _, m := range t.Moves {
		mask = mask || m.Kind == Mask
		if m.Part != "" && m.Kind != Mask && !slices.Contains(parts, m.Part) {
			parts = append(parts, m.Part)
		}
	}
	tell := func(says Says, parts ...string) {
		out = append(out, Line{t.Number, step, parts, says})
	}
	switch {
	case is == "" || is == metrology.Undecided:
		tell(Untold, parts...)
	case was == metrology.Out && is == metrology.In && mask:
		tell(Masked, parts...)
	case was == metrology.Out && is == metrology.In && len(t.Moves) == 1:
		tell(Blamed, parts...)
	case was == metrology.Out && is == metrology.In:
		tell(OneOf, parts...)
	case was != metrology.Out:
		tell(Broken, parts...)
	default:
		for _, m := range t.Moves {
			switch {
			case m.Part == "" || m.Kind == Mask:
			case m.Kind.Acquits():
				tell(Acquitted, m.Part)
			default:
				tell(Open, m.Part)
			}
		}
	}
	return out
}

// Suspect is a part that may bear the fault of a step, with the weight of what speaks for it.
type Suspect struct {
	Part   string
	Weight float64
}

// Left are the suspects of a step that the ledger has not acquitted of it, in their order.
func Left(all []Suspect, step string, ledger []Line) (out []Suspect) {
	gone := map[string]bool{}
	for _, l := range ledger {
		if l.Step == step && l.Says == Acquitted {
			for _, p := range l.Parts {
				gone[p] = true
			}
		}
	}
	for _, s := range all {
		if !gone[s.Part] && s.Weight > 0 {
			out = append(out, s)
		}
	}
	return out
}

// Split proposes what to change next: the neighbouring parts whose weight together comes
// nearest to half of all, so that either answer halves the search. Neighbours, because they
// come out together.
func Split(suspects []Suspect) (parts []string) {
	total := 0.0
	for _, s := range suspects {
		total += s.Weight
	}
	if total <= 0 {
		return nil
	}
	from, to, nearest := 0, 0, 2.0
	for i := range suspects {
		sum := 0.0
		for j := i; j < len(suspects); j++ {
			sum += suspects[j].Weight
			off := sum/total - 0.5
			if off < 0 {
				off = -off
			}
			// Of two that are as near the one with fewer parts is less work.
			if off < nearest-1e-12 || off < nearest+1e-12 && j-i < to-from {
				from, to, nearest = i, j, off
			}
		}
	}
	for _, s := range suspects[from : to+1] {
		parts = append(parts, s.Part)
	}
	return parts
}
