package bench

import (
	"slices"
	"strings"

	"corvek/core/build"
	"corvek/core/metrology"
	"corvek/core/search"
)

// mostChanges is how many changes are offered after a test, with that nothing was changed.
const mostChanges = 5

// Change is what was changed before an attempt, and a second change made at once with it.
type Change struct {
	Words, Kind, Part              string
	Second, SecondKind, SecondPart string
}

// Changes are single changes that fit this unit after a failed test: what the named cause
// asks for and where it points first, what tells most of what is left, then what is on the unit and can be changed
// alone.
func (st *Inferred) Changes() (out []Change) {
	offer := func(c Change) {
		if !slices.Contains(out, c) {
			out = append(out, c)
		}
	}
	add := func(kind search.Kind, part *Part, words string) {
		c := Change{Words: words, Kind: string(kind)}
		if part != nil {
			c.Part = part.Code
		}
		offer(c)
	}
	if st.Cause != nil && st.Cause.Remedy != "" {
		add(search.Renew, st.PointedAt(), strings.ToLower(st.Cause.Remedy))
	}
	for _, l := range st.Left() {
		if l.Next != nil {
			offer(l.Next.Change)
		}
	}
	if p := st.PointedAt(); p != nil {
		add(search.Inspect, p, strings.ToLower(p.Name)+" out, looked at and in again")
	}
	if r := st.Family.Relief; r != nil {
		add(search.Adjust, st.ByCode[r.Part], "relief shimmed")
	}
	if st.Family.Action == "cylinder" {
		add(search.Clean, nil, "bled again")
	}
	for _, p := range st.Parts {
		if p.Def.Kind == "lip_seal" || p.Def.Kind == "piston_seal" {
			offer(changeOf(search.Renew, p))
		}
	}
	for _, p := range st.Parts {
		if p.Def.Kind == "spool" || p.Def.Kind == "poppet" {
			offer(changeOf(search.Clean, p))
		}
	}
	out = out[:min(len(out), mostChanges-1)]
	add(search.Nothing, nil, "nothing, run once more")
	return out
}

// Failed are the steps that were last read, in whichever test that is closed, and did not come out, in
// words.
func (st *Tested) Failed() (out []string) {
	for _, step := range st.Plan() {
		s := st.Shown[step.Code]
		if s.NotHere != "" || !s.Read || !s.Closed {
			continue
		}
		switch s.Judged.Verdict {
		case metrology.Out:
			out = append(out, step.Name+" out")
		case metrology.Undecided:
			out = append(out, step.Name+" undecided")
		}
	}
	return out
}

// PointedAt is the part that a failed test goes back to: the step since which the shaft is
// stiff, else the part that the named causes lie in or that their remedy renews; nil where
// nothing points anywhere.
func (st *Decided) PointedAt() *Part {
	if i := build.StiffAt(st.Steps()); i >= 0 {
		return st.InOrder()[i]
	}
	blamed, remedies := st.causesOf()
	for _, of := range []map[string][]string{blamed, remedies} {
		for _, p := range st.Parts {
			if len(of[p.Code]) > 0 {
				return p
			}
		}
	}
	return nil
}
