package exchange

import (
	"regexp"
	"slices"
	"strings"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/unit"
)

var codeForm = regexp.MustCompile(`^[a-z0-9][a-z0-9_.-]{0,79}$`)

func (r *reader) part(t *tree, u *unit.Unit, f *family.Family) {
	code := t.text("code", mostName)
	kind, name, branch := t.text("kind", mostName), t.text("name", entry.MostLine), t.text("branch", mostName)
	t.taken["place"] = true // of the first version; the order tells
	p := u.Part(code)
	if _, usual := f.PartByCode(code); r.whole && usual && p == nil && kind == "" {
		p = &unit.Part{Code: code, Name: name}
		u.Parts = append(u.Parts, p)
	}
	switch {
	case p == nil && kind == "":
		t.fail("code", "the family %s has no part %q", f.Code, code)
		return
	case p == nil && !slices.Contains(family.Kinds(), kind):
		t.fail("kind", "%q is not a kind of part", kind)
		return
	case p == nil && (!codeForm.MatchString(code) || strings.TrimSpace(name) == ""):
		t.fail("code", "a part that the family does not know has a name, and a code of small letters, figures, - and _")
		return
	case p == nil:
		p = unit.OfKind(code, name, kind, branch, 1)
		u.Parts = append(u.Parts, p)
	}
	def := p.Def(f)
	r.fields(t, &entry.Place{Unit: u, Family: f, Part: p, Def: def}, unit.ScopePart)
	seen := map[string]bool{}
	for _, x := range t.list("features", 200) {
		x.first(seen)
		r.feature(x, u, f, p, def)
	}
	for _, x := range t.list("marks", mostLayers*len(family.PartMarks)) {
		m := &unit.PartMark{Mark: unit.Mark{Round: round(x, u), Code: x.text("code", mostName),
			Origin: unit.OriginFound}}
		if _, known := family.PartMark(m.Code); !known {
			x.fail("code", "%q is not a mark that parts bear", m.Code)
		}
		r.fields(x, &entry.Place{Unit: u, Family: f, Part: p, Def: def, Mark: &m.Mark}, unit.ScopePartMark)
		p.Marks = append(p.Marks, m)
		x.end()
	}
	unique(t, "marks", p.Marks, func(m *unit.PartMark) any { return [2]any{m.Round, m.Code} })
	for _, x := range t.list("decisions", mostLayers) {
		d := &unit.Decision{Round: round(x, u)}
		p.Decisions = append(p.Decisions, d)
		r.fields(x, &entry.Place{Unit: u, Family: f, Part: p, Def: def, Decision: d}, unit.ScopeDecision)
		x.end()
	}
	for _, x := range t.list("reworks", mostLayers) {
		w := &unit.Rework{Route: x.text("route", mostName)}
		if def.Rework(w.Route) == nil {
			x.fail("route", "%q is no way to save this part", w.Route)
		}
		p.Reworks = append(p.Reworks, w)
		r.fields(x, &entry.Place{Unit: u, Family: f, Part: p, Def: def, Rework: w}, unit.ScopeRework)
		x.end()
	}
	unique(t, "reworks", p.Reworks, func(w *unit.Rework) any { return w.Route })
	for _, x := range t.list("steps", mostLayers) {
		s := &unit.Step{Round: round(x, u)}
		p.Steps = append(p.Steps, s)
		r.fields(x, &entry.Place{Unit: u, Family: f, Part: p, Def: def, Step: s}, unit.ScopeStep)
		s.By = x.text("by", mostName)
		x.end()
	}
	r.oldStack(t, u, f, p, def)
	unique(t, "decisions", p.Decisions, func(d *unit.Decision) any { return d.Round })
	unique(t, "steps", p.Steps, func(s *unit.Step) any { return s.Round })
	t.end()
}

// oldStack takes the stack as fitted from a document written before each round had
// its own.
func (r *reader) oldStack(t *tree, u *unit.Unit, f *family.Family, p *unit.Part, def *family.Part) {
	text := t.text("stack_fit", entry.MostArea)
	if text == "" {
		return
	}
	s := p.Step(u.Round())
	if s == nil {
		s = &unit.Step{Round: u.Round()}
		p.Steps = append(p.Steps, s)
	}
	fit, _ := entry.Find(unit.ScopeStep, "stack_fit")
	place := &entry.Place{Shop: r.shop, Job: r.job, Unit: u, Family: f, Part: p, Def: def, Step: s}
	if err := fit.Set(place, text); err != nil {
		t.fail("stack_fit", "%s", err)
	}
}

func (r *reader) feature(t *tree, u *unit.Unit, f *family.Family, p *unit.Part, def *family.Part) {
	code := t.text("code", mostName)
	ft := p.Feature(code)
	fd, known := def.FeatureByCode(code)
	if r.whole && known && ft == nil {
		ft = &unit.Feature{Code: code}
		p.Features = append(p.Features, ft)
	}
	if ft == nil || !known {
		t.fail("code", "the part %s has no feature %q", p.Code, code)
		return
	}
	// The two are set one after the other: each must not meet the old other one.
	if _, given := t.get("lower"); given {
		ft.Lower = unit.Feature{}.Lower
	}
	if _, given := t.get("upper"); given {
		ft.Upper = unit.Feature{}.Upper
	}
	r.fields(t, &entry.Place{Unit: u, Family: f, Part: p, Def: def, Feature: ft, FeatureDef: fd}, unit.ScopeFeature)
	spec := measure.SpecOf(u, def, fd, ft)
	for _, x := range t.list("readings", mostReadings) {
		v := &unit.Reading{
			Round: round(x, u), Stage: x.text("stage", mostName), Slot: x.text("slot", mostName),
			Value: x.text("value", mostName),
			By:    x.text("by", mostName), At: x.moment("at"),
		}
		v.Measure()
		switch {
		case v.Stage != unit.StageFound && v.Stage != unit.StageBuilt:
			x.fail("stage", "is found or built")
		case !measure.ValidSlot(spec, v.Slot):
			x.fail("slot", "%q is not a place of this sheet", v.Slot)
		case v.Value == "":
			x.fail("value", "cannot be left empty")
		default:
			if fault := measure.CheckEntry(spec, v.Slot, v.Value); fault != nil {
				x.fail("value", "%s", fault.Text)
			}
		}
		ft.Readings = append(ft.Readings, v)
		x.end()
	}
	unique(t, "readings", ft.Readings, func(v *unit.Reading) any { return [3]any{v.Round, v.Stage, v.Slot} })
	t.end()
}

// inOrder puts the parts in the document's order when it names them all: a unit
// need not have come apart as its family says.
func inOrder(u *unit.Unit, parts []*tree) {
	place := map[string]int{}
	for i, t := range parts {
		code, _ := t.values["code"].(string)
		place[code] = i
	}
	for _, p := range u.Parts {
		if _, named := place[p.Code]; !named {
			return
		}
	}
	slices.SortStableFunc(u.Parts, func(a, b *unit.Part) int { return place[a.Code] - place[b.Code] })
}
