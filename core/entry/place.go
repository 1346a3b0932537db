package entry

import (
	"slices"
	"time"

	"corvek/core/build"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/shop"
	"corvek/core/unit"
)

// Knowledge knows the marks and causes of a family.
type Knowledge interface {
	KnowsMark(code string) bool
	KnowsCause(code string) bool
}

// Shop is what the shop knows beside the job: its families, its tools, who
// writes, and when.
type Shop struct {
	Family    func(u *unit.Unit) *family.Family // as it is for one unit, with its variant
	Knowledge func(family string) Knowledge
	Tools     shop.Instruments
	Sites     []string // shops of one owner
	Who       string
	Now       time.Time
}

// Place is where a value stands: the thing it belongs to and all around it. Only
// what the scope has is set.
type Place struct {
	Ref        unit.Ref
	Shop       *Shop
	Job        *unit.Job
	Unit       *unit.Unit
	Family     *family.Family
	Part       *unit.Part
	Def        *family.Part
	Feature    *unit.Feature
	FeatureDef *family.Feature
	Decision   *unit.Decision
	Rework     *unit.Rework
	Step       *unit.Step
	Mark       *unit.Mark
	Conclusion *unit.Conclusion
	Cause      *unit.NamedCause
	Loose      *unit.Loose
	Piece      *unit.Piece
	Attempt    *unit.Attempt
	Point      *unit.Point
	Test       *family.Test
	Limit      *unit.StepLimit
	Picture    *unit.Picture

	keep func() // puts a row that was not there before into its list
}

// Resolve finds the place and the field of an address. Nothing is changed.
func Resolve(j *unit.Job, ref unit.Ref, shop *Shop) (*Place, *Field, error) {
	no := func(format string, args ...any) error { return field.Errorf(ref.String(), format, args...) }
	p := &Place{Ref: ref, Shop: shop, Job: j}
	if ref.Scope != unit.ScopeJob && ref.Scope != unit.ScopePicture {
		if p.Unit = j.Unit(ref.Unit); p.Unit == nil {
			return nil, nil, no("job %s has no unit %d", j.Tag, ref.Unit)
		}
		if p.Family = shop.Family(p.Unit); p.Family == nil {
			return nil, nil, no("the family %q is not in the library", p.Unit.Family)
		}
	}
	if !p.find() {
		return nil, nil, no("is not a field of job %s", j.Tag)
	}
	f, ok := Find(ref.Scope, ref.Name)
	if !ok || f.Derived {
		return nil, nil, no("is not a field that can be set")
	}
	if ref.Code != "" && !p.knowsCode() {
		return nil, nil, no("%q is not known for this family", ref.Code)
	}
	if f.Kind == Reading && !p.hasSlot() {
		return nil, nil, no("is not a place of this sheet")
	}
	return p, f, nil
}

// find points p at the thing that its address names, at a new row where the
// thing has none yet in this round.
func (p *Place) find() bool {
	r := p.Ref
	switch r.Scope {
	case unit.ScopePicture:
		p.Picture = p.Job.Picture(r.Number)
		return p.Picture != nil
	case unit.ScopeCause:
		p.Cause = p.Unit.Cause(r.Number)
		return p.Cause != nil
	case unit.ScopeLoose:
		p.Loose = p.Unit.LooseNo(r.Number)
		return p.Loose != nil
	case unit.ScopePiece:
		p.Piece = p.Unit.Piece(r.Number)
		return p.Piece != nil
	case unit.ScopeEvidence:
		p.Mark, p.keep = markOf(&p.Unit.Marks, onUnit, r.Code, p.Unit.Round())
	case unit.ScopeLimit:
		p.findLimit()
	case unit.ScopeConclusion:
		p.findConclusion()
	case unit.ScopeAttempt, unit.ScopePoint:
		if p.Attempt = p.Unit.Attempt(r.Number); p.Attempt == nil {
			return false
		}
		if r.Scope == unit.ScopePoint {
			p.findPoint()
		}
	case unit.ScopePart, unit.ScopePartMark, unit.ScopeDecision, unit.ScopeRework, unit.ScopeStep,
		unit.ScopeFeature, unit.ScopeReading:
		if p.Part = p.Unit.Part(r.Part); p.Part == nil {
			return false
		}
		p.Def = p.Part.Def(p.Family)
		return p.findInPart()
	}
	return true
}

func (p *Place) findInPart() bool {
	part, round := p.Part, p.Unit.Round()
	switch p.Ref.Scope {
	case unit.ScopePartMark:
		p.Mark, p.keep = markOf(&part.Marks, onPart, p.Ref.Code, round)
	case unit.ScopeDecision:
		last := part.Decision()
		if last != nil && last.Round == round {
			p.Decision = last
			return true
		}
		p.Decision = &unit.Decision{}
		if last != nil {
			*p.Decision = *last
		}
		p.Decision.Round = round
		p.keep = func() { part.Decisions = append(part.Decisions, p.Decision) }
	case unit.ScopeRework:
		if p.Rework = part.Rework(p.Ref.Code); p.Rework == nil {
			p.Rework = &unit.Rework{Route: p.Ref.Code}
			p.keep = func() { part.Reworks = append(part.Reworks, p.Rework) }
		}
	case unit.ScopeStep:
		if p.Step = part.Step(round); p.Step == nil {
			p.Step = &unit.Step{}
			if last := part.Built(round); last != nil {
				*p.Step = *last
			}
			p.Step.Round = round
			p.keep = func() { part.Steps = append(part.Steps, p.Step) }
		}
	case unit.ScopeFeature, unit.ScopeReading:
		p.Feature = part.Feature(p.Ref.Feature)
		def, known := p.Def.FeatureByCode(p.Ref.Feature)
		p.FeatureDef = def
		return p.Feature != nil && known
	}
	return true
}

// markOf takes what was last said of a mark; the first word of a new round starts
// from it.
func markOf[T any](marks *[]*T, of func(*T) *unit.Mark, code string, round int) (m *unit.Mark, keep func()) {
	var said *unit.Mark
	for _, row := range *marks {
		m := of(row)
		switch {
		case m.Code != code:
		case m.Round == round:
			return m, nil
		case said == nil || m.Round > said.Round:
			said = m
		}
	}
	row := new(T)
	m = of(row)
	*m = unit.Mark{Code: code, Origin: unit.OriginFound}
	if said != nil {
		*m = *said
	}
	m.Round = round
	return m, func() { *marks = append(*marks, row) }
}

func onUnit(m *unit.UnitMark) *unit.Mark { return &m.Mark }
func onPart(m *unit.PartMark) *unit.Mark { return &m.Mark }

func (p *Place) findConclusion() {
	last, round := p.Unit.Conclusion(), p.Unit.Round()
	for _, c := range p.Unit.Conclusions {
		if c.Round == round {
			p.Conclusion = c
			return
		}
	}
	last.Round = round
	p.Conclusion = &last
	p.keep = func() { p.Unit.Conclusions = append(p.Unit.Conclusions, p.Conclusion) }
}

func (p *Place) findPoint() {
	p.Test, _ = p.Family.TestByCode(p.Ref.Code)
	if p.Point = p.Attempt.Point(p.Ref.Code); p.Point == nil {
		p.Point = &unit.Point{Code: p.Ref.Code}
		p.keep = func() { p.Attempt.Points = append(p.Attempt.Points, p.Point) }
	}
}

// knowsCode reports that the family has what a coded address names.
func (p *Place) knowsCode() bool {
	code := p.Ref.Code
	switch {
	case p.Ref.Scope == unit.ScopeEvidence:
		return p.Shop.Knowledge(p.Family.Code).KnowsMark(code)
	case p.Ref.Scope == unit.ScopePartMark:
		_, known := family.PartMark(code)
		return known
	case p.Ref.Scope == unit.ScopeRework:
		return p.Def.Rework(code) != nil
	case p.Ref.Scope == unit.ScopePoint:
		return p.Test != nil && p.reads(p.Ref.Name)
	case p.Ref.Scope == unit.ScopeLimit:
		return p.Test != nil && p.reads(p.Limit.Figure())
	case p.Ref.Name == "symptom":
		_, known := family.SymptomText(code)
		return known
	case p.Ref.Name == "gauge":
		_, known := p.question()
		return known
	case p.Ref.Name == "more":
		_, step := family.StepOfCode(code)
		_, _, measured := family.FeatureOfCode(code)
		return step || measured || p.Family.Repeats(code)
	case p.Ref.Name == "fill":
		return build.KnowsFilling(code)
	case p.Ref.Name == "flush":
		return slices.Contains(unit.FlushPlaces, code)
	case p.Ref.Name == "identity":
		for _, m := range p.Family.Marks {
			if m.Code == code {
				return true
			}
		}
	}
	return false
}

// question is the gauge question of the address, where the family asks it.
func (p *Place) question() (family.Question, bool) {
	for _, code := range p.Family.Gauge {
		if code == p.Ref.Code {
			return family.QuestionByCode(code)
		}
	}
	return family.Question{}, false
}

// Write sets a value and keeps the row it belongs to.
func (p *Place) Write(f *Field, text string) error {
	if err := f.Set(p, text); err != nil {
		return refuse(p.Ref.String(), err)
	}
	if p.keep != nil {
		p.keep()
		p.keep = nil
	}
	if f.then != nil {
		f.then(p)
	}
	if p.Point != nil && p.Ref.Scope == unit.ScopePoint && p.Ref.Name != "not_applicable" && p.Attempt.Number > 0 {
		p.Taken(unit.SourceTyped, text != "")
	}
	return nil
}

// Taken notes how what stands at the place of a step came, and on what: from where, by whom, when.
func (p *Place) Taken(from string, there bool) {
	p.Point.Take(p.Ref.Name, p.Shop.Taking(p.Job, p.Unit, from), there)
}

// Taking is how something of a test of a unit comes now, and on what as it stands, which is kept with
// the unit.
func (s *Shop) Taking(j *unit.Job, u *unit.Unit, from string) unit.Taking {
	return unit.Taking{From: from, By: s.Who, At: s.Now.Truncate(time.Second), Ground: u.Stands(Ground(j, u))}
}

// tool finds a tool of the shop by the name that was typed.
func (p *Place) tool(name string) (tool shop.Instrument, ok bool) {
	if p.Shop == nil {
		return tool, false
	}
	return p.Shop.Tools.Named(name)
}
