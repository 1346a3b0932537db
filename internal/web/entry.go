package web

import (
	"slices"
	"strings"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/wording"
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
	"length": quantity.Length, "pressure": quantity.Pressure, "flow": quantity.Flow, "torque": quantity.Torque,
	"volume": quantity.Volume,
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
		hint = used + "|" + strings.Join(slices.DeleteFunc(strings.Split(hint, "|"),
			func(u string) bool { return u == used }), "|")
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
	e.Choices, e.Place = wording.Suggestions(ref.Scope, ref.Name), wording.Example(ref.Scope, ref.Name)
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

// Choose gives the choice of a value as the table of fields declares it. A tap on
// what is chosen takes it back, where the value may be empty.
func (p *Page) Choose(ref unit.Ref) Choice {
	c := Choice{Field: ref.String(), Locked: !p.CanWork()}
	place, f, err := entry.Resolve(p.S.Job, ref, p.shop)
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

// Listed gives the answers for a list that unfolds: it says what stands there,
// where a button would take back what is pressed.
func (p *Page) Listed(ref unit.Ref) Choice {
	c := p.Choose(ref)
	known := false
	for i := range c.Options {
		o := &c.Options[i]
		known = known || o.On
		if o.On {
			o.Value = c.Base
		}
	}
	if _, f, err := entry.Resolve(p.S.Job, ref, p.shop); err == nil && !f.Required {
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

// GaugeChoice are the answers to a question asked at the machine.
func (p *Page) GaugeChoice(q GaugeRow) Choice {
	c := p.Choose(p.S.Unit.GaugeRef(q.Code)).Named(q.Ask).Wrap()
	for i := range c.Options {
		c.Options[i].Words = q.Answers[i].Say
	}
	return c
}

// DecideChoice is what is done with a part, the proposal marked. Taking the
// proposal is no choice of one's own.
func (p *Page) DecideChoice(x *job.PartState) Choice {
	c := p.Choose(p.S.Unit.DecisionRef(x.Code, "choice")).Named(x.Name + ": keep, rework or new")
	for i := range c.Options {
		o, code := &c.Options[i], []string{"keep", "rework", "replace"}[i]
		o.On, o.Proposed, o.Value = string(x.Choice()) == code, string(x.Proposal.Choice) == code, code
		if o.Proposed {
			o.Value = ""
		}
	}
	return c
}

// WordChoice is what was observed at a step of the test.
func (p *Page) WordChoice(a *unit.Attempt, pt job.PointState) Choice {
	c := p.Choose(p.S.Unit.PointRef(a.Number, pt.Test.Code, "word")).Named(pt.Test.Name).Wrap()
	c.Locked = c.Locked || a.Closed
	return c
}

// MarkChoice is whether a mark stands on the outside.
func (p *Page) MarkChoice(m MarkRow) Choice {
	return p.Choose(p.S.Unit.IdentityRef(m.Code)).Named(m.What)
}

// MarkState is whether a mark was seen, or looked for and absent.
func (p *Page) MarkState(code string, locked bool) Choice {
	c := p.Choose(p.S.Unit.EvidenceRef(code, "state"))
	c.Locked = c.Locked || locked
	return c
}

// JobRef addresses a field of the job.
func (p *Page) JobRef(name string) unit.Ref { return unit.JobRef(name) }

// LimitWords says a feature's limit and where it is from.
func LimitWords(f *job.FeatureState) string {
	source := " · " + wording.Choice(unit.ScopeFeature, "standing", f.Standing)
	switch {
	case f.Def.Method == family.MethodGrade:
		return "by touch · guidance"
	case !f.Lower.IsZero() && !f.Upper.IsZero():
		return "limit " + f.Lower.Typed + " to " + f.Upper.Typed + source
	case !f.Upper.IsZero():
		return "limit up to " + f.Upper.Typed + source
	case !f.Lower.IsZero():
		return "limit at least " + f.Lower.Typed + source
	}
	return "no limit"
}

// Tones of a verdict, for rows and words.
var rowTones = map[metrology.Verdict]string{metrology.In: "good", metrology.Out: "bad", metrology.Undecided: "open"}

// Row is the tone of a step's row.
func (r PointRow) Row() string { return rowTones[r.Point.Verdict] }

// Tone and Words say how a step of the final test came out.
func (r PointRow) Tone() string {
	return map[metrology.Verdict]string{metrology.In: "petrol", metrology.Out: "red",
		metrology.Undecided: "ochre"}[r.Point.Verdict]
}

// Words are empty as received: that is judged by nobody.
func (r PointRow) Words() string {
	switch {
	case r.Attempt.Number == 0 || r.Point.Verdict == "":
		return ""
	case r.Point.Verdict == metrology.Undecided:
		return "?"
	case r.Point.Short:
		return "pressure not reached"
	}
	return string(r.Point.Verdict)
}
