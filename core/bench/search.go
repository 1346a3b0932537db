package bench

import (
	"slices"
	"strings"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/search"
	"corvek/core/unit"
	"corvek/core/wording"
)

// Told is a line of the ledger in words.
type Told struct {
	search.Line
	Words string
}

// tries are the attempts as the search sees them. An exercise finds nothing.
func (st *Inferred) tries() (out []search.Try) {
	for _, a := range st.telling() {
		t := search.Try{Number: a.Number, Steps: map[string]search.Reading{}}
		if a.OneChange != "" {
			t.Moves = append(t.Moves, st.move(search.Kind(a.ChangeKind), a.ChangePart))
		}
		if a.SecondChange != "" {
			t.Moves = append(t.Moves, st.move(search.Kind(a.SecondKind), a.SecondPart))
		}
		for i := range a.Points {
			if p := &a.Points[i]; p.Verdict != "" {
				t.Steps[p.Test.Code] = readingOf(p)
			}
		}
		out = append(out, t)
	}
	return out
}

// telling are the attempts that tell something: closed, and no exercise.
func (st *Tested) telling() []*Attempt {
	return slices.DeleteFunc(slices.Clone(st.Attempts), func(a *Attempt) bool {
		return !a.Closed || a.Source == unit.SourceSimulated
	})
}

// move is a change of a part with what came off on the way to it.
func (st *Inferred) move(kind search.Kind, part string) search.Move {
	m := search.Move{Kind: kind, Part: part}
	switch kind {
	case search.Loosen, search.Adjust, search.Mask, search.Nothing:
	default:
		m.Off = st.ways()[part]
	}
	return m
}

// readingOf is how a step came out, with the figure that is out; where what was seen decides, the figure beside it
// tells how much.
func readingOf(p *Point) search.Reading {
	r := search.Reading{Verdict: p.Verdict}
	f := outOf(p)
	if f == nil {
		for i := range p.Figures {
			if g := &p.Figures[i]; g.Limits.Empty() && !g.Q.IsZero() && search.Amount(g.Figure) {
				f = g
				break
			}
		}
	}
	if f == nil || f.Q.IsZero() {
		return r
	}
	r.Off, r.Told, r.Shown = f.Value, true, f.Q.Typed
	switch {
	case f.Limits.HasUpper && (f.Value > f.Limits.Upper || !f.Limits.HasLower):
		r.Off = max(0, f.Value-f.Limits.Upper)
	case f.Limits.HasLower:
		r.Off = max(0, f.Limits.Lower-f.Value)
	}
	return r
}

// outOf is the first figure of a step that is out, nil for none.
func outOf(p *Point) *proof.Figured {
	at := slices.IndexFunc(p.Figures, func(f proof.Figured) bool { return f.Verdict == metrology.Out })
	if at < 0 {
		return nil
	}
	return &p.Figures[at]
}

// Search is what the attempts come to, weighed over what may be wrong.
func (st *Inferred) Search() *search.Search { return st.searched() }

func (st *Inferred) weighTries() *search.Search {
	return search.Weigh(st.tries(), func(step string) []search.Trouble {
		return search.TroublesOf(st.suspects(step), st.mannerOf(step))
	})
}

// mannerOf is how a step shows that it is out, by the first attempt in which it was.
func (st *Inferred) mannerOf(step string) search.Manner {
	for _, a := range st.telling() {
		for i := range a.Points {
			p := &a.Points[i]
			if p.Test.Code != step || p.Verdict != metrology.Out {
				continue
			}
			figure := ""
			if f := outOf(p); f != nil {
				figure = f.Figure
			}
			return search.MannerOf(p.Test, figure)
		}
	}
	return search.Answers
}

// Told is the ledger of the attempts, each line in words.
func (st *Inferred) Told() (out []Told) {
	for _, l := range st.Search().Lines {
		out = append(out, Told{l, st.toldWords(l)})
	}
	return out
}

// stepName is a step of the test in words.
func (st *Inferred) stepName(code string) string {
	if t, known := st.Family.TestByCode(code); known {
		return strings.ToLower(t.Name)
	}
	if code == family.ComplaintTest {
		return "the complaint"
	}
	return code
}

func (st *Inferred) toldWords(l search.Line) string {
	step, parts := st.stepName(l.Step), st.partNames(l.Parts)
	switch l.Says {
	case search.Masked:
		return step + " came right because the fault is hidden, not found"
	case search.Blamed:
		return step + " came right" + wording.Around(": ", parts, " bore it")
	case search.ByItself:
		return step + " came right with nothing done that cures it: it may come back"
	case search.OneOf:
		return step + " came right by one of several changes at once" + wording.Behind(": ", parts) +
			"; which, can no longer be told"
	case search.Partly:
		return step + " came nearer, " + l.Shown + ": " + wording.Around("", parts, " is a part of it, ") +
			"something else is left"
	case search.Behind:
		return step + " is right with " + parts + " slack: what that clamps binds, " + parts + " is in the clear"
	case search.NotBehind:
		return step + " is as bad with " + parts + " slack: what that clamps is not what binds, or not alone"
	case search.Acquitted:
		return parts + " is acquitted of " + step
	case search.Broken:
		return st.brokenWords(l, step, parts)
	case search.Untold:
		return step + " was not done again: nothing is told of it"
	}
	return parts + " was looked at, not acquitted of " + step
}

// brokenWords tells of a step that went wrong with a change; it need not be the changed part's.
func (st *Inferred) brokenWords(l search.Line, step, parts string) string {
	words := step + " went wrong with this change" + wording.Behind(": ", parts)
	if l.Shown != "" {
		words = step + " got worse with this change, " + l.Shown + wording.Behind(": ", parts)
	}
	if off := st.partNames(l.Off); off != "" {
		words += ", or how what came off for it went back: " + off
	}
	return words
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
