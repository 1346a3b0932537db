package sheet

import (
	"fmt"
	"slices"
	"strconv"

	"corvek/core/entry"
	"corvek/core/unit"
	"corvek/core/wording"
)

// FormOf makes the form of a unit that of its sheet: parts that the family has not, and those that are not
// there. Variant and assemblies are the unit's own fields and go before.
func (s *Sheet) FormOf(u *unit.Unit) {
	for _, x := range s.Parts {
		p := u.Part(x.Code)
		switch {
		case x.Absent != "" && p != nil && p.OnUnit() && !p.Handled():
			p.Absent, p.From, p.Why = x.Absent, unit.CountVariant, "sheet "+s.Name()
		case x.Absent == "" && p == nil:
			at := 0
			if i := slices.IndexFunc(u.Parts, func(p *unit.Part) bool { return p.Code == x.After }); i >= 0 {
				at = i + 1
			}
			p := unit.OfKind(x.Code, x.Name, x.Kind, x.Branch, max(1, x.Count))
			p.Why = "sheet " + s.Name()
			u.Parts = slices.Insert(u.Parts, at, p)
		}
	}
}

// Write puts what the sheet knows into a unit, where that says nothing itself. It tells how many values were
// put, and which could not be: what the unit cannot hold any more is told and left.
func (s *Sheet) Write(j *unit.Job, u *unit.Unit, shop *entry.Shop) (put int, left []string) {
	own := map[string]bool{} // features whose size as new or limit the unit has itself
	for _, p := range u.Parts {
		for _, f := range p.Features {
			at := "part/" + p.Code + "/feature/" + f.Code + "/"
			own[at+"new_low"] = !f.New.Low.IsZero()
			own[at+"limit"] = !f.Lower.IsZero() || !f.Upper.IsZero()
		}
	}
	for _, l := range u.Limits {
		own["limit/"+l.Code+"/limit"] = true
	}
	for _, v := range s.Values {
		if own[Group(v.Key)] {
			continue
		}
		wrote, err := s.value(j, u, shop, v)
		switch {
		case err != nil:
			left = append(left, v.Key)
		case wrote:
			put++
		}
	}
	s.told(u, own)
	return put, left
}

func (s *Sheet) value(j *unit.Job, u *unit.Unit, shop *entry.Shop, v Value) (wrote bool, err error) {
	ref, err := unit.ParseRef(fmt.Sprintf("u%d/%s", u.Number, v.Key))
	if err != nil {
		return false, err
	}
	if !belongs(ref) {
		return false, unit.ErrRef
	}
	if ref.Scope == unit.ScopePart && ref.Name == "expected" {
		return s.count(u.Part(ref.Part), v.Text)
	}
	place, f, err := entry.Resolve(j, ref, shop)
	if err != nil {
		return false, err
	}
	switch name := ref.Name; {
	case name == "new_from" || name == "new_source" || name == "standing" || name == "source" && place.Feature != nil:
		return false, nil // told by the sheet itself, below
	case name == "stack_right" && place.Part.StackFrom == unit.StackFamily:
		place.Part.StackFrom = unit.StackVariant
	case f.Get(place) != "" && name != "limit_for":
		return false, nil // the unit wins
	}
	return true, place.Write(f, v.Text)
}

// count puts the number of pieces that a part of the model has, where nobody counted them on this unit.
func (s *Sheet) count(p *unit.Part, text string) (wrote bool, err error) {
	n, err := strconv.Atoi(text)
	switch {
	case err != nil || n < 0 || p == nil:
		return false, unit.ErrRef
	case p.From != unit.CountFamily || p.Expected == n:
		return false, nil
	}
	p.Expected, p.From, p.Why = n, unit.CountVariant, "sheet "+s.Name()
	return true, nil
}

// told notes at each feature that the sheet says its size as new or its limit, and whence the sheet has it.
func (s *Sheet) told(u *unit.Unit, own map[string]bool) {
	for _, p := range u.Parts {
		for _, f := range p.Features {
			at := "part/" + p.Code + "/feature/" + f.Code + "/"
			if v := s.Value(at + "new_low"); v != nil && !own[at+"new_low"] && f.New.Low.Typed == v.Text {
				f.New.From, f.New.Source = unit.NewSheet, s.source(v, at+"new_from", at+"new_source", "new_from")
			}
			for _, end := range []string{"lower", "upper"} {
				v := s.Value(at + end)
				typed := map[string]string{"lower": f.Lower.Typed, "upper": f.Upper.Typed}[end]
				if v != nil && !own[at+"limit"] && typed == v.Text {
					f.LimitSource, f.Source = unit.NewSheet, s.source(v, at+"standing", at+"source", "standing")
				}
			}
		}
	}
}

// source says whence a sheet has a value: the document behind it, else the job.
func (s *Sheet) source(v *Value, from, document, choice string) string {
	words := "measured on " + v.Source
	if x := s.Value(from); x != nil && x.Text != unit.NewUnworn && x.Text != unit.NewSister {
		words = wording.Choice(unit.ScopeFeature, choice, x.Text)
	}
	if x := s.Value(document); x != nil {
		words += ", " + x.Text
	}
	return s.Name() + ": " + words
}
