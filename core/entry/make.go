package entry

import (
	"corvek/core/quantity"
	"corvek/core/unit"
)

// table makes the fields of one scope.
type table unit.Scope

func (t table) line(name, label string, at func(*Place) *string) *Field {
	return &Field{Scope: unit.Scope(t), Name: name, Label: label, Kind: Line, text: at}
}

func (t table) area(name, label string, at func(*Place) *string) *Field {
	return &Field{Scope: unit.Scope(t), Name: name, Label: label, Kind: Area, text: at}
}

func (t table) choice(name, label string, offered func(*Place) []string, at func(*Place) *string) *Field {
	return &Field{Scope: unit.Scope(t), Name: name, Label: label, Kind: Choice, Choices: offered, text: at}
}

func (t table) part(name, label string, at func(*Place) *string) *Field {
	return &Field{Scope: unit.Scope(t), Name: name, Label: label, Kind: PartOf, text: at}
}

func (t table) count(name, label string, at func(*Place) *int) *Field {
	return &Field{Scope: unit.Scope(t), Name: name, Label: label, Kind: Whole, Required: true, whole: at}
}

func (t table) flag(name, label string, at func(*Place) *bool) *Field {
	return &Field{Scope: unit.Scope(t), Name: name, Label: label, Kind: Flag, flag: at}
}

func (t table) size(name, label string, dim quantity.Dimension, at func(*Place) *quantity.Quantity) *Field {
	return &Field{Scope: unit.Scope(t), Name: name, Label: label, Kind: Quantity, Dim: dim, number: at}
}

func (t table) day(name, label string, at func(*Place) *unit.Date) *Field {
	return &Field{Scope: unit.Scope(t), Name: name, Label: label, Kind: Day, date: at}
}

// required marks a field that cannot be left empty.
func (f *Field) required() *Field {
	f.Required = true
	return f
}

// bare gives the unit in which a figure without one is taken.
func (f *Field) bare(unit string) *Field {
	f.Bare = unit
	return f
}

// derived marks a value that a command sets.
func (f *Field) derived() *Field {
	f.Derived = true
	return f
}

// closing marks a value that is written while a job is closed.
func (f *Field) closing() *Field {
	f.Closing = true
	return f
}

// signed marks a value that somebody answers for.
func (f *Field) signed() *Field {
	f.Signed = true
	return f
}

// tightens marks the figure that tells that a fastener is more than in.
func (f *Field) tightens() *Field { f.Tightens = true; return f }

// orders marks the value that tells that something is awaited.
func (f *Field) orders() *Field { f.Orders = true; return f }

// lays marks a value that says of what parts the unit consists.
func (f *Field) lays() *Field {
	f.Lays = true
	return f
}

// checked adds a check of the field's own.
func (f *Field) checked(check func(*Place, string) error) *Field {
	f.check = check
	return f
}
