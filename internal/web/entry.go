package web

import (
	"slices"
	"strings"

	"corvek/core/entry"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/job"
)

// Entry is one field that saves by itself.
type Entry struct {
	Field, Label, Value, Other string
	ID                         string // in the document: the field without blanks
	Hint                       string // units offered by the pad
	Unit                       string // in which a bare figure is taken
	Kind                       string // quantity, text, area, whole
	Place                      string // placeholder
	ReadOnly                   bool
	Choices                    []string
}

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
}

// dimNames are the dimensions that templates name.
var dimNames = map[string]quantity.Dimension{
	"length": quantity.Length, "pressure": quantity.Pressure, "flow": quantity.Flow, "torque": quantity.Torque, "volume": quantity.Volume,
}

// units are a dimension's units, the reader's own first; used, the one that was
// typed last in the same field or grid, stands before them.
func (p *Page) units(d quantity.Dimension, used string) (hint, bare string) {
	hint = padUnits[d][0]
	if p.Inch() {
		hint = padUnits[d][1]
	}
	bare, _, _ = strings.Cut(hint, "|")
	if used != "" && used != bare {
		hint = used + "|" + strings.Join(slices.DeleteFunc(strings.Split(hint, "|"), func(u string) bool { return u == used }), "|")
		bare = used
	}
	return strings.TrimSuffix(hint, "|"), bare
}

// Field is the entry of a value, as the table of fields declares it.
func (p *Page) Field(ref unit.Ref) Entry {
	e := Entry{Field: ref.String(), ID: fieldID(ref), ReadOnly: !p.CanWork()}
	place, f, err := entry.Resolve(p.S.Job, ref, p.shop)
	if err != nil {
		e.Label, e.ReadOnly = err.Error(), true
		return e
	}
	e.Label, e.Value, e.Kind = f.Label, f.Get(place), "text"
	switch f.Kind {
	case entry.Area:
		e.Kind = "area"
	case entry.Whole:
		e.Kind = "whole"
	case entry.Timer:
		e.Value = ""
	case entry.Quantity, entry.Reading:
		d := f.Dim
		if f.Kind == entry.Reading {
			d = place.FeatureDef.Dim()
		}
		if d == quantity.Number {
			break
		}
		e.Kind = "quantity"
		q, err := quantity.ParseDefault(e.Value, d, f.Bare)
		if err == nil {
			e.Other = q.Other()
		}
		e.Hint, e.Unit = p.units(d, q.Unit.Name)
	}
	return e
}

// fieldID is an address as an id of the document, which holds no blanks.
func fieldID(ref unit.Ref) string { return strings.ReplaceAll(ref.String(), " ", "_") }

// The fields of each scope, for templates.

// JobField is a field of the job.
func (p *Page) JobField(name string) Entry { return p.Field(unit.JobRef(name)) }

// UnitField is a field of the unit.
func (p *Page) UnitField(name string) Entry { return p.Field(p.S.Unit.Ref(name)) }

// PartField is a field of a part.
func (p *Page) PartField(part, name string) Entry { return p.Field(p.S.Unit.PartRef(part, name)) }

// DecisionField is a field of the decision for a part.
func (p *Page) DecisionField(part, name string) Entry {
	return p.Field(p.S.Unit.DecisionRef(part, name))
}

// StepField is a field of the fitting of a part.
func (p *Page) StepField(part, name string) Entry { return p.Field(p.S.Unit.StepRef(part, name)) }

// ConclusionField is a field of the conclusion.
func (p *Page) ConclusionField(name string) Entry { return p.Field(p.S.Unit.ConclusionRef(name)) }

// LooseField is a field of what was found loose.
func (p *Page) LooseField(number int, name string) Entry {
	return p.Field(p.S.Unit.LooseRef(number, name))
}

// PieceField is a field of a kit piece.
func (p *Page) PieceField(number int, name string) Entry {
	return p.Field(p.S.Unit.PieceRef(number, name))
}

// AttemptField is a field of a run of the test.
func (p *Page) AttemptField(number int, name string) Entry {
	return p.Field(p.S.Unit.AttemptRef(number, name))
}

// FeatureField is a field of something measured.
func (p *Page) FeatureField(f *job.FeatureState, name string) Entry {
	return p.Field(p.S.Unit.FeatureRef(f.Part.Code, f.Code, name))
}

// With gives the entry ready-made answers to tap.
func (e Entry) With(choices ...string) Entry {
	e.Choices = choices
	return e
}

// Holder gives the entry a placeholder.
func (e Entry) Holder(s string) Entry {
	e.Place = s
	return e
}
