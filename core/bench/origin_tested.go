package bench

import (
	"cmp"
	"strings"

	"corvek/core/family"
	"corvek/core/origin"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// needs adds what the machine asks of the unit.
func (all *figures) needs(u *unit.Unit) {
	for _, field := range family.Asks() {
		all.told("", "Asked of it: "+family.NeedWords(field), u.Needed(field), "what the machine needs, as it was told")
	}
}

// attempt adds what was read at a run of the test and what it is held against.
func (all *figures) attempt(st *State, a *Attempt) {
	for _, p := range a.Points {
		for i := range p.Figures {
			f := &p.Figures[i]
			name := p.Test.Name + ": " + strings.ToLower(f.Name)
			if si, known := f.Q.Known(); known {
				from, words := readFrom(st, a, &p.Row, f.Figure, f.Q)
				all.add(origin.Figure{Name: name, SI: si, Dim: f.Q.Dim, Origin: from, Words: words})
			}
			if f.Limits.HasLower {
				all.add(origin.Figure{Name: name + ", at least", SI: f.Limits.Lower, Dim: f.Dim, Origin: f.Origin(),
					Words: f.From})
			}
			if f.Limits.HasUpper {
				all.add(origin.Figure{Name: name + ", at most", SI: f.Limits.Upper, Dim: f.Dim, Origin: f.Origin(),
					Words: f.From})
			}
		}
	}
}

// readFrom is where a figure of a test is from: a gauge that somebody read, a stand over its link, a log, or an
// exercise.
func readFrom(st *State, a *Attempt, p *unit.Point, figure string, q quantity.Quantity) (origin.Origin, string) {
	switch cmp.Or(p.Taking(figure).From, a.Source) {
	case unit.SourceSimulated:
		return origin.Simulated, ""
	case unit.SourceStand:
		return origin.Read, "live from the stand"
	case unit.SourceLog:
		return origin.Read, "from a log of the stand"
	case unit.SourceUnknown:
		return origin.Read, "from a stand that did not say what it is"
	}
	return origin.Read, cmp.Or(st.gauge(a.Attempt, figure, q).Name, "typed; the gauge was not named")
}

// piece adds the sizes that a piece of the kit was sold by.
func (all *figures) piece(k *unit.Piece) {
	name := k.Name
	for _, x := range []struct {
		what string
		q    quantity.Quantity
	}{
		{"inside", k.Seal.Inside}, {"section", k.Seal.Section}, {"shaft", k.Seal.Shaft}, {"housing", k.Seal.Bore},
		{"width", k.Seal.Width},
	} {
		all.told(k.Part, name+": "+x.what, x.q, "off the bag, or measured at Kit")
	}
}
