package site

import (
	"errors"

	"corvek/core/field"
)

// Plain is a field of a form that is sent as a whole: it shows what was typed and
// what is wrong with it.
type Plain struct {
	Name, Label, Value string
	Type               string // of the input: text, password
	Mode               string // which keys a tablet offers: numeric
	Fill               string // what the browser may fill in
	Help               string
	Error              string
	Focus              bool
}

// ID ties the label to the input.
func (p Plain) ID() string { return "in-" + p.Name }

// PlainForm is the fields of such a form, with the fault at the field it is about.
// What is secret is not shown again.
func PlainForm(fault error, fields ...Plain) []Plain {
	var fe *field.Error
	for i := range fields {
		p := &fields[i]
		if p.Type == "" {
			p.Type = "text"
		}
		if p.Type == "password" {
			p.Value = ""
		}
		if errors.As(fault, &fe) && fe.Field == p.Name {
			p.Error, p.Focus = fe.Text, true
		}
	}
	return fields
}

// Besides is the text of a fault that belongs to none of the fields.
func Besides(fault error, fields []Plain) string {
	if fault == nil {
		return ""
	}
	for _, p := range fields {
		if p.Error != "" {
			return ""
		}
	}
	var fe *field.Error
	if errors.As(fault, &fe) {
		return fe.Text
	}
	return fault.Error()
}

// IsField reports that a fault is one of a field, which its form shows there.
func IsField(err error) bool {
	var fe *field.Error
	return errors.As(err, &fe)
}
