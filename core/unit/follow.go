package unit

import (
	"slices"
	"strconv"

	"corvek/core/family"
)

// MoreOf is how often each assembly stands in this unit beyond its family.
func (u *Unit) MoreOf() map[string]int {
	if len(u.More) == 0 {
		return nil
	}
	out := map[string]int{}
	for code, text := range u.More {
		if n, err := strconv.Atoi(text); err == nil && n > 0 {
			out[code] = n
		}
	}
	return out
}

// Follow brings the parts of the unit to what its family is for it now, after its
// variant or its assemblies became others. What a hand has counted, measured or
// written stays as it is. From and rule say where that is known from and why; both are
// printed beside what differs from the plain family.
func (u *Unit) Follow(plain, was, is *family.Family, from, rule string) {
	at := 0
	for i := range is.Parts {
		def := &is.Parts[i]
		p := u.Part(def.Code)
		if p == nil {
			p = newPart(def)
			p.From, p.Why = from, rule
			u.Parts = slices.Insert(u.Parts, at, p)
		} else {
			old, known := was.PartByCode(def.Code)
			if !known {
				old = def
			}
			p.follow(old, def)
		}
		usual, known := plain.PartByCode(def.Code)
		p.why(!known || usual.Count != def.Count, def.Count, from, rule)
		at = slices.Index(u.Parts, p) + 1
	}
	for _, p := range u.Parts { // those that no family knows are measured as this unit has it
		if _, known := is.PartByCode(p.Code); !known && p.Kind != "" {
			p.measures(p.Def(is))
		}
	}
	u.Parts = slices.DeleteFunc(u.Parts, func(p *Part) bool {
		old, was := was.PartByCode(p.Code)
		_, is := is.PartByCode(p.Code)
		_, usual := plain.PartByCode(p.Code)
		switch {
		case is || !was:
			return false
		case p.Handled(): // it lies on the bench, whatever the variant has
			p.Kind, p.Branch, p.From, p.Why = old.Kind, old.Branch, CountCounted, "on this unit all the same: "+rule
			return false
		case !usual:
			return true
		case p.OnUnit():
			p.Absent, p.From, p.Why = rule, from, rule
		}
		return false
	})
}

// follow takes over what the new definition has another way, where the old one stood.
func (p *Part) follow(old, def *family.Part) {
	if p.From == CountVariant {
		p.Absent = ""
	}
	if p.Kind != "" { // it was an odd one, and now belongs
		p.Kind, p.Branch, p.From, p.Why = "", "", CountFamily, ""
	}
	if p.From == CountVariant || p.From == CountFamily {
		p.Expected = def.Count
	}
	if p.Fastener == fastened(old) {
		p.Fastener = fastened(def)
	}
	for i := range def.Features {
		is := &def.Features[i]
		f := p.Feature(is.Code)
		if f == nil {
			p.Features = append(p.Features, newFeature(is))
			continue
		}
		before, known := old.FeatureByCode(is.Code)
		if !known {
			continue
		}
		if a := newFeature(before); f.Lower == a.Lower && f.Upper == a.Upper && f.LimitSource == a.LimitSource {
			b := newFeature(is)
			f.Lower, f.Upper, f.LimitSource, f.Source = b.Lower, b.Upper, b.LimitSource, b.Source
		}
		if f.New == asNew(before) {
			f.New = asNew(is)
		}
	}
}

// measures gives the part a row for each of its features that has none.
func (p *Part) measures(def *family.Part) {
	for i := range def.Features {
		if p.Feature(def.Features[i].Code) == nil {
			p.Features = append(p.Features, newFeature(&def.Features[i]))
		}
	}
}

// why keeps where the number of pieces is from, unless it was entered by hand.
func (p *Part) why(differs bool, count int, from, rule string) {
	switch {
	case !p.OnUnit() || p.Expected != count || p.From == CountCounted || p.From == CountDrawing:
	case differs:
		p.From, p.Why = from, rule
	default:
		p.From, p.Why = CountFamily, ""
	}
}

// Handled reports that anything was done with the part or said of it.
func (p *Part) Handled() bool {
	return p.Off || p.Found != "" || p.Fragments != "" || p.Note != "" || p.Stuck != "" || p.Sound ||
		p.StackFound != "" ||
		p.Witness != "" ||
		len(p.Marks)+len(p.Decisions)+len(p.Steps) > 0 ||
		slices.ContainsFunc(p.Features, func(f *Feature) bool { return len(f.Readings) > 0 })
}
