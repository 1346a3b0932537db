package bench

import (
	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Poured is a portion of oil that was put in, with the stroke that it gave and the one that it explains.
type Poured struct {
	unit.Pour
	Gained   float64 // m, of the full stroke over that after the portion before
	Explains float64 // m, what the portion pushes the part; 0 where its size was not measured
	First    bool    // there is none before it: what it gained is not known
}

// shareExplained is how far what was gained may differ from what is explained, as a share of it, before
// it says something.
const shareExplained = 0.2

// Says is what the portion tells, "" where it did what it should or nothing can be told.
func (p Poured) Says() string {
	switch {
	case p.First || p.Explains == 0:
		return ""
	case p.Gained < (1-shareExplained)*p.Explains:
		return "less than this oil explains: air in it, or oil goes past a seal"
	case p.Gained > (1+shareExplained)*p.Explains:
		return "more than this oil explains: it was not home before, or the oil was cold"
	}
	return ""
}

// MayPour says what all portions come to with one more, in m3, and whether the book lets so much in; where
// it says nothing, all of it.
func MayPour(p *unit.Point, more, most quantity.Quantity) (all float64, ok bool) {
	all = p.Poured() + more.SI
	return all, most.IsZero() || all <= most.SI*(1+1e-9)
}

// Pours are the portions of a step, each with what it explains by the size of the part that it pushes.
func (st *Stripped) Pours(t *family.Test, p *unit.Point) (out []Poured) {
	part, feature := family.CutFeature(t.Pours)
	diameter, known := 0.0, false
	if pushed := st.ByCode[part]; pushed != nil {
		diameter, known = pushed.measured(feature)
	}
	for i, pour := range p.Pours {
		x := Poured{Pour: pour, First: i == 0}
		if known {
			x.Explains = pour.Volume.SI / circle(diameter)
		}
		if i > 0 {
			x.Gained = pour.Stroke.SI - p.Pours[i-1].Stroke.SI
		}
		out = append(out, x)
	}
	return out
}
