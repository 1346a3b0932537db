package web

import (
	"fmt"

	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/job"
)

// StopRow is a stop with the page it stands on.
type StopRow struct {
	P    *Page
	Stop job.Stop
	URL  string
}

// StopRow gives a stop to its template.
func (p *Page) StopRow(s job.Stop) StopRow {
	return StopRow{p, s, p.Link(s.Station, s.Part, s.Feature)}
}

// PointRow is a test point with the page it stands on.
type PointRow struct {
	P       *Page
	Attempt *unit.Attempt
	Point   job.PointState
}

// PointRow gives a test point to its template; a may be an attempt or its state.
func (p *Page) PointRow(a any, pt job.PointState) PointRow {
	switch x := a.(type) {
	case *job.AttemptState:
		return PointRow{p, x.Attempt, pt}
	case *unit.Attempt:
		return PointRow{p, x, pt}
	}
	return PointRow{P: p, Attempt: &unit.Attempt{}, Point: pt}
}

// PointEntry is the field of a test point's figure.
func (p *Page) PointEntry(a *unit.Attempt, pt job.PointState, what string) Entry {
	e := p.Field(p.S.Unit.PointRef(a.Number, pt.Test.Code, what))
	e.Label = pt.Test.Name + ", " + what
	if what == "pressure" && pt.Test.Kind == family.TestFlow && p.S.Duty.HasPressure {
		e.Place = p.Show(pt.Target, "pressure")
	}
	e.ReadOnly = e.ReadOnly || a.Closed
	return e
}

// SheetView is a feature's sheet with the page it stands on.
type SheetView struct {
	P       *Page
	Feature *job.FeatureState
	View    *MeasureView
}

// Sheet gives a feature's sheet to its template.
func (p *Page) Sheet(f *job.FeatureState, v *MeasureView) SheetView { return SheetView{p, f, v} }

// Caution finds a caution for a part.
func (p *Page) Caution(code string) *family.Caution {
	if c, ok := family.CautionByCode(code); ok {
		return &c
	}
	return nil
}

// PartCaution is a part's caution, nil where the station shows it beside the
// sheet already.
func (p *Page) PartCaution(code string) *family.Caution {
	for _, c := range p.S.Cautions(p.Station) {
		if c.Code == code {
			return nil
		}
	}
	return p.Caution(code)
}

// OffCount is how many parts are off.
func (p *Page) OffCount() int {
	n := 0
	for _, x := range p.S.Parts {
		if x.Off {
			n++
		}
	}
	return n
}

// Lacking is how many pieces a place still wants.
func (p *Page) Lacking(x *job.PartState) int { return max(0, x.Expected-x.Filled) }

// NextTry numbers the next attempt.
func (p *Page) NextTry() int {
	n := 1
	for _, a := range p.S.Attempts {
		n = max(n, a.Number+1)
	}
	return n
}

// Money writes a figure of the economy, "" when it was left out.
func (p *Page) Money(name string) string {
	out := p.S.Economy.Output
	if out == nil {
		return ""
	}
	v, ok := out.Value(name)
	if !ok {
		return ""
	}
	if name == "ratio" {
		return fmt.Sprintf("%.0f %%", 100*v)
	}
	return quantity.Figures(v, 4)
}

// FacingRows are the parts that are off and have a facing that matters, while
// more than one of them has none noted: after a bulk strip they are noted here.
func (p *Page) FacingRows() []*job.PartState {
	var out []*job.PartState
	lacking := 0
	for _, x := range p.S.Parts {
		if !x.Off || len(x.Def.Facings) == 0 {
			continue
		}
		out = append(out, x)
		if x.Facing == "" {
			lacking++
		}
	}
	if lacking == 0 || len(out) < 2 {
		return nil
	}
	return out
}

// FacingChoice is a part's facing as removed, among those of all parts.
func (p *Page) FacingChoice(x *job.PartState) Choice {
	return p.Choose(p.S.Unit.PartRef(x.Code, "facing")).Named(x.Name + ": facing as removed").Wrap()
}
