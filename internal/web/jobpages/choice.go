package jobpages

import (
	"html/template"
	"slices"
)

// Choice is a value that is chosen by a tap.
type Choice struct {
	Field, Label, Base string
	Options            []Option
	Locked             bool
	Look               string // wrap or tall
}

// Option is one of a choice's answers; Value is what a tap on it writes.
type Option struct {
	Words, Value string
	On           bool
	Proposed     bool
}

// Reached reports that the Tab key stops at an option: at the chosen one, else at
// the first. Arrows move between them.
func (c Choice) Reached(i int) bool {
	return i == max(0, slices.IndexFunc(c.Options, func(o Option) bool { return o.On }))
}

// Pressed are the attributes of an option's button.
func (c Choice) Pressed(i int) template.HTMLAttr {
	o := c.Options[i]
	return Press{Field: c.Field, Value: o.Value, Base: c.Base, On: o.On, Locked: c.Locked}.Pressed()
}

// Wrap lets the answers run over several lines.
func (c Choice) Wrap() Choice {
	c.Look = "wrap"
	return c
}

// Tall makes the answers large, for the main act of a page.
func (c Choice) Tall() Choice {
	c.Look = "tall"
	return c
}

// Named gives the choice another label.
func (c Choice) Named(label string) Choice {
	c.Label = label
	return c
}
