package entry

import (
	"reflect"
	"strings"

	"corvek/core/quantity"
	"corvek/core/unit"
)

// Path is where the value stands in the JSON of the thing it belongs to: seal, standard for the
// standard of a part's seal. One that is told apart by a code stands under it in an object.
func (f *Field) Path() []string { return f.path }

// Nothing is a place where everything is, and nothing is said.
func nothing() *Place {
	return &Place{Job: &unit.Job{}, Unit: &unit.Unit{}, Part: &unit.Part{}, Feature: &unit.Feature{},
		Decision: &unit.Decision{}, Rework: &unit.Rework{}, Step: &unit.Step{}, Mark: &unit.Mark{},
		Conclusion: &unit.Conclusion{}, Cause: &unit.NamedCause{}, Loose: &unit.Loose{}, Piece: &unit.Piece{},
		Attempt: &unit.Attempt{}, Point: &unit.Point{}, Limit: &unit.StepLimit{}, Picture: &unit.Picture{}}
}

// pathOf finds the member that the field points at among those of its thing: the type says once
// what it is called. A field that points at none is called as it is.
func pathOf(f *Field) []string {
	p := nothing()
	var at reflect.Value
	switch {
	case f.text != nil:
		at = reflect.ValueOf(f.text(p))
	case f.number != nil:
		at = reflect.ValueOf(f.number(p))
	case f.flag != nil:
		at = reflect.ValueOf(f.flag(p))
	case f.whole != nil:
		at = reflect.ValueOf(f.whole(p))
	case f.moment != nil:
		at = reflect.ValueOf(f.moment(p))
	case f.date != nil:
		at = reflect.ValueOf(f.date(p))
	default:
		return []string{f.Name}
	}
	for _, thing := range []any{p.Job, p.Unit, p.Part, p.Feature, p.Decision, p.Rework, p.Step, p.Mark, p.Conclusion,
		p.Cause, p.Loose, p.Piece, p.Attempt, p.Point, p.Limit, p.Picture} {
		if path := memberAt(reflect.ValueOf(thing).Elem(), at); path != nil {
			return path
		}
	}
	panic("the field " + string(f.Scope) + " " + f.Name + " points at no member of its thing")
}

// memberAt gives the names of the members that lead to an address, nil where none does.
func memberAt(v, at reflect.Value) []string {
	for i := range v.NumField() {
		member, is := v.Field(i), v.Type().Field(i)
		name, _, _ := strings.Cut(is.Tag.Get("json"), ",")
		switch {
		case name == "-":
		case member.Type() == at.Type().Elem() && member.Addr().Pointer() == at.Pointer():
			return []string{name}
		case member.Kind() == reflect.Struct && member.Type() != reflect.TypeFor[quantity.Quantity]():
			if below := memberAt(member, at); below != nil {
				return append([]string{name}, below...)
			}
		}
	}
	return nil
}
