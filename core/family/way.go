package family

import "slices"

// Way is what kind of work saves a part.
type Way struct {
	Code     string
	Flat     bool // the face must be flat afterwards: how flat, and how that was found, is asked
	Takes    bool // how much came off is asked
	Oversize bool // seals of the next size go in afterwards
}

// Ways are the kinds of work that a family's rework can be.
var Ways = []Way{
	{Code: "lap", Flat: true, Takes: true},
	{Code: "grind", Flat: true, Takes: true},
	{Code: "hone", Takes: true, Oversize: true},
	{Code: "rechrome", Takes: true},
	{Code: "polish", Takes: true},
	{Code: "sleeve"},
	{Code: "lap_seat"},
	{Code: "shim"},
	{Code: "straighten"},
}

// saved gives a part that names no rework itself those of its kind, as far as it is
// measured where they work. An empty list says that nothing saves it.
func (p *Part) saved() {
	k, known := KindByCode(p.Kind)
	if !known || p.Reworks != nil {
		return
	}
	for _, r := range k.Reworks {
		if _, is := p.FeatureByCode(r.For); !is {
			continue
		}
		r.Also = slices.DeleteFunc(slices.Clone(r.Also), func(code string) bool {
			_, is := p.FeatureByCode(code)
			return !is
		})
		p.Reworks = append(p.Reworks, r)
	}
}

// WayByCode finds a kind of work.
func WayByCode(code string) (Way, bool) {
	for _, w := range Ways {
		if w.Code == code {
			return w, true
		}
	}
	return Way{}, false
}
