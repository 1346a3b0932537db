package web

import (
	"html/template"
	"slices"

	"corvek/core/entry"
	"corvek/core/unit"
	"corvek/core/wording"
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

// choose gives the choice of a value as the table of fields declares it. A tap on
// what is chosen takes it back, where the value may be empty.
func (l *look) choose(ref unit.Ref) Choice {
	c := Choice{Field: ref.String(), Locked: !l.CanWork()}
	place, f, err := entry.Resolve(l.job, ref, l.shop)
	if err != nil || f.Choices == nil {
		return Choice{Label: "cannot be chosen", Locked: true}
	}
	c.Label, c.Base = f.Label, f.Get(place)
	for _, code := range f.Choices(place) {
		o := Option{Words: wording.Choice(ref.Scope, ref.Name, code), Value: code, On: code == c.Base}
		if o.On && !f.Required {
			o.Value = ""
		}
		c.Options = append(c.Options, o)
	}
	return c
}

// listed gives the answers for a list that unfolds: it says what stands there,
// where a button would take back what is pressed.
func (l *look) listed(ref unit.Ref) Choice {
	c := l.choose(ref)
	known := false
	for i := range c.Options {
		o := &c.Options[i]
		known = known || o.On
		if o.On {
			o.Value = c.Base
		}
	}
	if _, f, err := entry.Resolve(l.job, ref, l.shop); err == nil && !f.Required {
		none := Option{Words: wording.Choice(ref.Scope, ref.Name, ""), On: !known}
		c.Options = append([]Option{none}, c.Options...)
	}
	return c
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

// markState is whether a mark was seen, or looked for and absent.
func (l *look) markState(code string) Choice { return l.choose(l.unit.EvidenceRef(code, "state")) }
