package jobpages

import (
	"slices"
	"strings"

	"corvek/core/entry"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/core/wording"
)

// padUnits are the units the number pad offers for a dimension, metric and inch.
var padUnits = map[quantity.Dimension][2]string{
	quantity.Length:             {"mm|in|thou", "in|thou|mm"},
	quantity.Pressure:           {"bar|psi|MPa", "psi|bar|MPa"},
	quantity.Flow:               {"L/min|gpm|ml/min", "gpm|L/min|ml/min"},
	quantity.Rotation:           {"rpm", "rpm"},
	quantity.Displacement:       {"cc/rev|in3/rev", "in3/rev|cc/rev"},
	quantity.Temperature:        {"°C|°F", "°F|°C"},
	quantity.KinematicViscosity: {"cSt", "cSt"},
	quantity.Density:            {"kg/m3", "kg/m3"},
	quantity.Torque:             {"N·m|lbf·ft", "lbf·ft|N·m"},
	quantity.Time:               {"h", "h"},
	quantity.Volume:             {"L|gal|ml", "gal|L|ml"},
	quantity.Force:              {"N|kN|lbf", "lbf|N|kN"},
	quantity.Current:            {"A|mA", "A|mA"},
	quantity.Resistance:         {"ohm", "ohm"},
}

// units are a dimension's units, the reader's own first; used, the one that was
// typed last in the same field or grid, stands before them.
func (l *look) units(d quantity.Dimension, used string) (hint, bare string) {
	hint = padUnits[d][0]
	if l.Units.For(d) == quantity.Inch {
		hint = padUnits[d][1]
	}
	bare, _, _ = strings.Cut(hint, "|")
	if used != "" && used != bare {
		hint = used + "|" + strings.Join(slices.DeleteFunc(strings.Split(hint, "|"),
			func(u string) bool { return u == used }), "|")
		bare = used
	}
	return strings.TrimSuffix(hint, "|"), bare
}

// field is the entry of a value, as the table of fields declares it.
func (l *look) field(ref unit.Ref) Entry {
	e := Entry{Field: ref.String(), ID: fieldID(ref), ReadOnly: !l.CanWork()}
	place, f, err := entry.Resolve(l.job, ref, l.shop)
	if err != nil {
		e.Label, e.ReadOnly = err.Error(), true
		return e
	}
	e.Label, e.Value, e.Kind = f.Label, f.Get(place), "text"
	e.Choices, e.Place = wording.Suggestions(ref.Scope, ref.Name), wording.Example(ref.Scope, ref.Name)
	switch f.Kind {
	case entry.Area:
		e.Kind = "area"
	case entry.Whole:
		e.Kind = "whole"
	case entry.Timer:
		e.Value = ""
	case entry.Quantity, entry.Reading:
		d := f.DimAt(place)
		if d == quantity.Number {
			break
		}
		e.Kind = "quantity"
		e.Plain = strings.TrimSuffix(e.Value, unit.QuestionMark)
		e.Questioned = e.Plain != e.Value
		q, err := quantity.ParseDefault(e.Plain, d, f.Bare)
		if err == nil {
			e.Other = q.Other()
		}
		e.Hint, e.Unit = l.units(d, q.Unit.Name)
	}
	return e
}

// fieldID is an address as an id of the document, which holds no blanks.
func fieldID(ref unit.Ref) string { return strings.ReplaceAll(ref.String(), " ", "_") }

// ofJob are entries of the job, in the order they are named.
func (l *look) ofJob(names ...string) []Entry {
	return l.fields(unit.JobRef, names)
}

// ofUnit are entries of the unit.
func (l *look) ofUnit(names ...string) []Entry { return l.fields(l.unit.Ref, names) }

// ofPart are entries of the chosen part.
func (l *look) ofPart(names ...string) []Entry {
	return l.fields(func(name string) unit.Ref { return l.unit.PartRef(l.part.Code, name) }, names)
}

func (l *look) fields(ref func(string) unit.Ref, names []string) (out []Entry) {
	for _, name := range names {
		out = append(out, l.field(ref(name)))
	}
	return out
}

// press is a button that writes a value where it stands.
func (l *look) press(ref unit.Ref, value, base string) Press {
	return Press{Field: ref.String(), Value: value, Base: base, Locked: !l.CanWork()}
}

// toggle is a button that says yes, and pressed again takes it back.
func (l *look) toggle(ref unit.Ref, on bool) Press {
	p := l.press(ref, "yes", "")
	if on {
		p.Value, p.Base, p.On = "", "yes", true
	}
	return p
}
