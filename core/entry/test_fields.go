package entry

import (
	"time"

	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"
)

var pointTable = table(unit.ScopePoint)

// pointFields are all figures that a step can read, and what else is noted at it.
var pointFields = append(figureFields(),
	pointTable.choice("word", "Observed", func(p *Place) []string { return words(p.Test) },
		func(p *Place) *string { return &p.Point.Word }).checked(openAttempt),
	held("hold_from", "Hold began", func(p *Place) *time.Time { return &p.Point.HoldFrom }),
	held("hold_to", "Hold ended", func(p *Place) *time.Time { return &p.Point.HoldTo }),
	pointTable.line("not_applicable", "Not possible on this stand, because",
		func(p *Place) *string { return &p.Point.Skipped }).checked(openAttempt))

func figureFields() (out []*Field) {
	for _, g := range family.Figures {
		out = append(out, &Field{Scope: unit.ScopePoint, Name: g.Code, Label: g.Name, Kind: Quantity, Dim: g.Dim,
			check: openAttempt, path: []string{"figures", g.Code},
			get: func(p *Place) string { return p.Point.Figure(g.Code).Typed },
			set: func(p *Place, text string) error {
				p.Point.Put(g.Code, quantity.Kept(text, g.Dim, ""))
				return nil
			}})
	}
	return out
}

// held is a moment of a step's hold: the clock says it, nobody types it.
func held(name, label string, at func(*Place) *time.Time) *Field {
	return &Field{Scope: unit.ScopePoint, Name: name, Label: label, Kind: Timer, Derived: true, moment: at,
		check: timer}
}

func words(t *family.Test) []string {
	if t == nil {
		return nil
	}
	return t.Words
}

var limitTable = table(unit.ScopeLimit)

// limitFields are what a figure of a step must be on this unit.
var limitFields = []*Field{
	limitTable.figure("least", "At least", func(p *Place) *quantity.Quantity { return &p.Limit.Least }).
		checked(limitInOrder),
	limitTable.figure("most", "At most", func(p *Place) *quantity.Quantity { return &p.Limit.Most }).
		checked(limitInOrder),
	limitTable.line("source", "Says who", func(p *Place) *string { return &p.Limit.Source }),
}

// limitInOrder refuses a limit that is upside down.
func limitInOrder(p *Place, text string) error {
	if p.Limit == nil { // it has none yet
		return nil
	}
	low, high := p.Limit.Least, p.Limit.Most
	g, _ := family.FigureByCode(p.Limit.Figure())
	if q := quantity.Kept(text, g.Dim, ""); p.Ref.Name == "least" {
		low = q
	} else {
		high = q
	}
	if !low.IsZero() && !high.IsZero() && low.SI > high.SI {
		return errOrder
	}
	return nil
}

// figure is a quantity in the dimension of the figure that is limited.
func (t table) figure(name, label string, at func(*Place) *quantity.Quantity) *Field {
	f := t.size(name, label, quantity.Number, at)
	f.dim = func(p *Place) quantity.Dimension {
		g, _ := family.FigureByCode(p.Limit.Figure())
		return g.Dim
	}
	return f
}

// findLimit points at the unit's own limit of a figure, at a new one where it has none.
func (p *Place) findLimit() {
	p.Limit = &unit.StepLimit{Code: p.Ref.Code}
	p.Test, _ = p.Family.TestByCode(p.Limit.Step())
	if own := p.Unit.StepLimit(p.Limit.Step(), p.Limit.Figure()); own != nil {
		p.Limit = own
		return
	}
	p.keep = func() { p.Unit.Limits = append(p.Unit.Limits, p.Limit) }
}

// reads reports that the step of the place reads a figure; what is no figure is noted at
// any step.
func (p *Place) reads(name string) bool {
	if _, figure := family.FigureByCode(name); !figure {
		return p.Ref.Scope == unit.ScopePoint
	}
	_, reads := p.Test.ReadOf(name)
	return reads
}
