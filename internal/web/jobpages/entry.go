package jobpages

import (
	"html/template"
)

// Entry is one field that saves by itself.
type Entry struct {
	Field, Label, Value, Other string
	ID                         string // in the document: the field without blanks
	Hint                       string // units offered by the pad
	Unit                       string // in which a bare figure is taken
	Kind                       string // quantity, text, area, whole
	Place                      string // placeholder
	Planned                    string // figure of the plan, said beside an empty field and never in it
	ReadOnly                   bool
	Choices                    []string
	Questioned                 bool   // the figure waits for somebody to say that it is so
	Plain                      string // the figure without the question
	Steps                      bool   // counted up and down by a tap
	All                        *Press // and all that are expected
}

// With gives the entry ready-made answers to tap.
func (e Entry) With(choices ...string) Entry {
	e.Choices = choices
	return e
}

// Press is a button that writes a value: Base is what stands there now.
type Press struct {
	Field, Value, Base string
	On, Locked         bool
}

// Writes are the attributes of a button that writes a value. They stand on most
// elements of a page, so they are put together here rather than by the template.
func (p Press) Writes() template.HTMLAttr {
	return template.HTMLAttr(`data-set="` + template.HTMLEscapeString(p.Field) + `" data-value="` +
		template.HTMLEscapeString(p.Value) + `" data-base="` + template.HTMLEscapeString(p.Base) + `"`)
}

// Pressed are the same of a button that stays pressed.
func (p Press) Pressed() template.HTMLAttr {
	attrs := p.Writes()
	if p.On {
		attrs += ` aria-pressed="true"`
	} else {
		attrs += ` aria-pressed="false"`
	}
	if p.Locked {
		attrs += ` disabled`
	}
	return attrs
}
