package bench

import (
	"strings"

	"corvek/core/build"
	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/origin"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Figures are the quantities of the unit that its pages and papers print, each with its origin: what it is made for,
// its sizes as new, limits and readings, its joints, springs and packs, what it leaks and where it opens. What is not
// known is none of them.
func (st *State) Figures() []origin.Figure {
	var out figures
	u := st.Unit
	for _, d := range []struct {
		name string
		q    quantity.Quantity
	}{
		{"Displacement", u.Displacement}, {"Speed", u.Speed}, {"Working pressure", u.DutyPressure},
		{"Rated for", u.RatedPressure}, {"Viscosity at duty", u.Viscosity}, {"Relief setting, at least", u.Setting.Low},
		{"Relief setting, at most", u.Setting.High},
	} {
		out.told("", d.name, d.q, "typed at Receive, or taken over from the sheet of its model")
	}
	for _, p := range st.Parts {
		for _, f := range p.Features {
			out.feature(f)
		}
		out.joint(p.AsFound)
		out.springs(p)
	}
	if st.Leak.Known {
		out.add(
			origin.Figure{Name: "Leak inside, as found", SI: st.Leak.Flow, Dim: quantity.Flow, Origin: origin.Worked,
				Words: "gaps as found, own sizes, duty pressure and viscosity"},
		)
	}
	if p := st.Found.Relief.Cracking; p > 0 {
		out.add(origin.Figure{Name: "Relief opens at, as found", SI: p, Dim: quantity.Pressure, Origin: origin.Worked,
			Words: "its spring as found, own rate, length as it sits and seat"})
	}
	if sh := st.Shims; sh != nil && sh.Fault == "" && sh.Choice.Possible {
		out.add(origin.Figure{Name: "Side clearance with the new pack", SI: sh.Choice.Resulting, Dim: quantity.Length,
			Origin: origin.Worked, Words: "clearance as found and the shims on the shelf"})
	}
	out.needs(u)
	for _, a := range st.Attempts {
		if a.Current {
			out.attempt(st, a)
		}
	}
	for _, k := range u.Kit {
		out.piece(k)
	}
	return out
}

type figures []origin.Figure

func (all *figures) add(f origin.Figure) { *all = append(*all, f) }

// told adds a quantity that somebody typed.
func (all *figures) told(part, name string, q quantity.Quantity, words string) {
	if si, known := q.Known(); known {
		all.add(origin.Figure{Part: part, Name: name, SI: si, Dim: q.Dim, Origin: origin.Typed, Words: words})
	}
}

// feature adds the size as new, the limits, the reading and the uncertainty of a feature.
func (all *figures) feature(f *Feature) {
	part, name := f.Part.Code, f.Part.Name+": "+f.Def.Name
	length := func(what string, v float64, from origin.Origin, words string, span float64) {
		all.add(origin.Figure{Part: part, Name: name + what, SI: v, Dim: quantity.Length, Origin: from, Words: words,
			Span: span})
	}
	if f.New.Holds() {
		from := map[string]origin.Origin{unit.NewDocument: origin.Document, unit.NewDrawing: origin.Document,
			unit.NewSheet: origin.Sheet, unit.NewUnworn: origin.Read, unit.NewSister: origin.Read}[f.New.From]
		if from == "" {
			from = origin.Typed
		}
		length(", as new", f.New.Middle(), from, f.New.Source, 0)
	}
	if made := f.Made.AsNew(); !made.Low.IsZero() {
		length(", brought to", made.Middle(), origin.Typed, made.Source, 0)
	}
	for _, r := range []struct {
		what string
		measure.Result
	}{{", as found", f.Found}, {", after the work", f.Built}} {
		if r.HasValue {
			length(r.what, r.Value, origin.Read, f.Instrument, 0)
			if r.Uncertainty > 0 {
				length(r.what+", uncertainty", r.Uncertainty, origin.Instrument, f.Instrument, 0)
			}
		}
	}
	from, words := limitFrom(f)
	if f.Found.Limits.HasLower {
		length(", at least", f.Found.Limits.Lower, from, words, f.Found.Span)
	}
	if f.Found.Limits.HasUpper {
		length(", at most", f.Found.Limits.Upper, from, words, f.Found.Span)
	}
}

// limitFrom is where a limit is from: typed with its document, kept on a sheet, or made by a rule of the family.
func limitFrom(f *Feature) (from origin.Origin, words string) {
	switch b := f.Found.Bound; {
	case b.Basis != "" && tabled(f.Def.Rule):
		return origin.Table, strings.TrimSpace(b.By + " " + b.Basis)
	case b.Basis != "":
		return origin.Rule, strings.TrimSpace(b.By + ", " + b.Basis)
	case b.Source == family.SourceSheet:
		return origin.Sheet, f.Source
	case b.Source == family.SourceMaker || b.Source == family.SourceStandard:
		return origin.Document, f.Source
	}
	return origin.Typed, f.Source
}

// tabled reports that a rule is a table of lengths: a film, steps by a size.
func tabled(r *family.Rule) bool {
	return r != nil && (len(r.Steps) > 0 || r.Least != "" || r.Most != "")
}

// joint adds the torque that a part is tightened with.
func (all *figures) joint(p *AsFound) {
	j, bolted := build.JointOf(p.Def, p.Part.Joint)
	if !bolted {
		return
	}
	t, err := build.Tighten(j)
	if err != nil || t.Torque <= 0 {
		return
	}
	from := origin.Typed
	switch {
	case j.Torque == 0:
		from = origin.Table
	case j.Documented && p.Part.Joint.Torque.IsZero():
		from = origin.Sheet
	case j.Documented:
		from = origin.Document
	}
	all.add(origin.Figure{Part: p.Code, Name: p.Name + ": torque", SI: t.Torque, Dim: quantity.Torque, Origin: from,
		Words: strings.TrimPrefix(t.Source, "table: ")})
}

// springs adds what the springs and packs of a part give.
func (all *figures) springs(p *Part) {
	all.told(p.Code, p.Name+": rate", p.Part.Coil.Rate, "or measured")
	if p.Stack == nil {
		return
	}
	all.told(p.Code, p.Name+": force it must give", p.Part.Spring.Needed, "at Strip")
	if does := p.Stack.FoundDoes; does.Force > 0 {
		all.add(origin.Figure{Part: p.Code, Name: p.Name + ": force as it came", SI: does.Force, Dim: quantity.Force,
			Origin: origin.Worked, Words: "own springs and their space, Almen and Laszlo"})
	}
}
