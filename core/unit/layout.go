package unit

import (
	"fmt"
	"slices"
	"time"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
)

// New lays out a unit of a family with all its parts and features.
func New(f *family.Family, number int, by string, at time.Time) *Unit {
	u := &Unit{
		Number: number, Family: f.Code, Name: f.Name,
		Gauge: map[string]string{}, Identity: map[string]string{}, Flushes: map[string]string{},
		Filled:   map[string]string{},
		More:     map[string]string{},
		Rounds:   []*Round{{Number: 1, OpenedAt: at, OpenedBy: by}},
		Attempts: []*Attempt{{Number: 0, Round: 1, Source: SourceTyped, At: at, By: by}},
	}
	for i := range f.Parts {
		u.Parts = append(u.Parts, newPart(&f.Parts[i]))
	}
	return u
}

func newPart(def *family.Part) *Part {
	p := &Part{Code: def.Code, Name: def.Name, Expected: def.Count, Fastener: fastened(def)}
	for i := range def.Features {
		p.Features = append(p.Features, newFeature(&def.Features[i]))
	}
	return p
}

// fastened says how the family has a part bolted on.
func fastened(def *family.Part) string {
	if def.Bolt == nil || def.Bolt.Thread == "" {
		return ""
	}
	if def.Bolt.Class == "" {
		return def.Bolt.Thread
	}
	return def.Bolt.Thread + ", class " + def.Bolt.Class
}

// newFeature gives a feature the family's limits and senses.
func newFeature(def *family.Feature) *Feature {
	f := &Feature{Code: def.Code, LimitSource: string(def.LimitSource), Measured: def.Measured, LimitFor: def.LimitFor,
		Instrument: def.Instrument, Source: def.Source, New: asNew(def)}
	if f.Measured == "" && !def.AsksEach() {
		f.Measured = string(metrology.Total)
	}
	if f.LimitFor == "" {
		f.LimitFor = string(metrology.Total)
	}
	f.Lower, f.Upper, f.Resolution = length(def.Lower), length(def.Upper), length(def.Resolution)
	return f
}

// asNew is the size as new that the sheet of the model gives a feature.
func asNew(def *family.Feature) AsNew {
	if def.AsNew == "" {
		return AsNew{}
	}
	return AsNew{Low: length(def.AsNew), High: length(def.AsNewTo), From: NewSheet, Source: def.Source}
}

// length reads a figure of a family, which was checked when that was loaded.
func length(text string) quantity.Quantity { return quantity.Loaded(text, quantity.Length) }

// Def is what is known of a part: the family's entry, or for a part the family
// does not know a drawing of what it was said to look like.
func (p *Part) Def(f *family.Family) *family.Part {
	if def, ok := f.PartByCode(p.Code); ok {
		return def
	}
	kind := p.Kind
	if kind == "" {
		kind = "plug"
	}
	return f.PartNamed(p.Code, p.Name, kind, p.Branch, p.Expected)
}

// OfKind lays out a part that no family told of, with what its kind brings.
func OfKind(code, name, kind, branch string, expected int) *Part {
	p := newPart(family.PartOfKind(code, name, kind, branch, expected))
	p.Kind, p.Branch = kind, branch
	return p
}

// AddPart puts a part that the family does not know into the order at an index,
// with a code of its own.
func (u *Unit) AddPart(index int, name, kind, branch string, expected int) *Part {
	code := ""
	for n := 1; code == "" || u.Part(code) != nil; n++ {
		code = fmt.Sprintf("extra-%d", n)
	}
	p := OfKind(code, name, kind, branch, expected)
	u.Parts = slices.Insert(u.Parts, min(max(index, 0), len(u.Parts)), p)
	return p
}

// AddLoose writes down what was found lying loose.
func (u *Unit) AddLoose(what, place string, count int) *Loose {
	l := &Loose{Number: next(u.Loose, func(l *Loose) int { return l.Number }), What: what, Place: place, Count: count}
	u.Loose = append(u.Loose, l)
	return l
}

// AddPiece writes down a piece of the repair kit.
func (u *Unit) AddPiece(code, name string, count int, part string) *Piece {
	k := &Piece{Number: next(u.Kit, func(k *Piece) int { return k.Number }), Code: code, Name: name, Count: count,
		Part: part}
	u.Kit = append(u.Kit, k)
	return k
}

// AddAccount writes down what somebody told.
func (u *Unit) AddAccount(teller, words string) *Account {
	a := &Account{Number: next(u.Accounts, func(a *Account) int { return a.Number }), Teller: teller, Words: words}
	u.Accounts = append(u.Accounts, a)
	return a
}

// AddPicture gives a picture the next number of the job.
func (j *Job) AddPicture(p *Picture) *Picture {
	p.Number = next(j.Pictures, func(p *Picture) int { return p.Number })
	j.Pictures = append(j.Pictures, p)
	return p
}

// AddMark gives a mark the next number of the picture.
func (p *Picture) AddMark(m *PictureMark) *PictureMark {
	m.Number = next(p.Marks, func(m *PictureMark) int { return m.Number })
	p.Marks = append(p.Marks, m)
	return m
}

// AddWorked puts a calculation on the job.
func (j *Job) AddWorked(w *Worked) *Worked {
	w.Number = next(j.Worked, func(w *Worked) int { return w.Number })
	j.Worked = append(j.Worked, w)
	return w
}

// next is one more than the highest number given out.
func next[T any](rows []*T, number func(*T) int) int {
	n := 1
	for _, r := range rows {
		n = max(n, number(r)+1)
	}
	return n
}
