package hidden

import (
	"slices"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/mount"
	"corvek/core/unit"
)

// asBuilt is the unit as it lies there in truth: what was written of it, with every part that was kept as it truly is.
func (b *Bench) asBuilt(s *Shop) (*bench.State, error) {
	j := b.Record.Job.Clone()
	for _, p := range j.Unit(1).Parts {
		x, own := b.Record.ByCode[p.Code], b.True.Unit.Part(p.Code)
		if x == nil || own == nil || renewed(x) {
			continue
		}
		for _, f := range p.Features {
			for _, o := range own.Features {
				if o.Code == f.Code {
					f.Readings = slices.Clone(o.Readings)
				}
			}
		}
		p.Marks, p.Sound = slices.Clone(own.Marks), own.Sound
	}
	return s.state(j)
}

// renewed reports that a new or reworked part stands where the old one was.
func renewed(p *bench.Part) bool {
	return p.Step.Done && (p.Choice() == decide.Replace || p.Choice() == decide.Rework)
}

// Left are the troubles that are still in the unit: marks that are truly on a part which was neither renewed nor
// reworked. With none left it does what it should.
func (b *Bench) Left() (out []*explain.Evidence) {
	for _, f := range b.True.Findings {
		e, known := b.True.Knowledge.EvidenceByCode(f.Code)
		if !known || !f.Likely() || e.Good || !b.spoken(e) {
			continue
		}
		if p := b.partOf(e); p != nil && !renewed(p) {
			out = append(out, e)
		}
	}
	return out
}

// spoken reports that one of the roots leaves the mark as a rule.
func (b *Bench) spoken(e *explain.Evidence) bool {
	return slices.ContainsFunc(b.Case.Causes, func(code string) bool {
		c, known := b.True.Knowledge.CauseByCode(code)
		return known && c.Points[e.Code].P() >= explain.Word("usual").P()
	})
}

// partOf is the part that bears a mark as the record has it, nil where it is on none.
func (b *Bench) partOf(e *explain.Evidence) *bench.Part {
	if p := b.Record.ByCode[e.Part]; p != nil {
		return p
	}
	for _, from := range e.Froms() {
		for _, path := range []string{from.Used, from.Grade, from.Odd, from.Off.Path} {
			if part, _ := family.CutFeature(path); b.Record.ByCode[part] != nil {
				return b.Record.ByCode[part]
			}
		}
		for _, p := range b.True.Parts {
			if from.Mark != nil && b.True.OnPart(e) && from.Mark.Of(p.Code, p.Def.Kind) && len(p.Seen) > 0 {
				return b.Record.ByCode[p.Code]
			}
		}
	}
	return nil
}

// Facts are the unit as the stand has it: as it truly is, with what was done to it. An attempt of number 0 is run
// before anything was done.
func (b *Bench) Facts(s *Shop, attempt int) (mount.Facts, error) {
	if attempt == 0 {
		return b.True.Facts()
	}
	st, err := b.asBuilt(s)
	if err != nil {
		return mount.Facts{}, err
	}
	return st.Facts()
}

// Mount lays the unit on the stand for a step.
func (b *Bench) Mount(s *Shop, attempt int, t *family.Test) (mount.Mounted, error) {
	facts, err := b.Facts(s, attempt)
	if err != nil {
		return mount.Mounted{}, err
	}
	facts.Tag = b.Record.Job.Tag
	m := facts.Mount(t)
	if attempt > 0 && len(b.Left()) == 0 {
		return m, nil
	}
	row := b.True.Unit.Attempt(0).Point(t.Code)
	if row == nil {
		return m, nil
	}
	for _, r := range t.Reads {
		v, known := row.Figure(r.Figure).Known()
		switch {
		case !known:
		case r.By == family.ByEfficiency:
			m.Model = mount.Losing(m.Model, t.Pressure*b.True.Duty.Pressure, v)
		default:
			m.Rest[r.Figure] = v
		}
	}
	return m, nil
}

// point answers a step of the test with what is seen at it; figures are read off the stand.
func (b *Bench) point(s Seen, ref unit.Ref) (Seen, error) {
	t, known := b.True.Step(ref.Code)
	switch {
	case !known:
		return s, field.Errorf(ref.String(), "is no step of this test")
	case ref.Number == 0 && b.Record.Situation().Reached.Opening() > 0:
		return s, field.Errorf(ref.String(), "it is apart: it cannot be run as it came any more")
	case ref.Name != "word":
		return s, field.Errorf(ref.String(), "run it on the stand, and read it there")
	case len(t.Words) == 0:
		return s, field.Errorf(ref.String(), "nothing is to be looked at there")
	}
	s.Value = t.Words[0]
	if len(t.Good) > 0 {
		s.Value = t.Good[0]
	}
	if row := b.True.Unit.Attempt(0).Point(t.Code); row != nil && row.Word != "" &&
		(ref.Number == 0 || len(b.Left()) > 0) {
		s.Value = row.Word
	}
	s.Says = sentence(s.Value)
	return s, nil
}

// felt answers what a hand feels once a part is in.
func (b *Bench) felt(s Seen, ref unit.Ref) (Seen, error) {
	if ref.Name != "turn" {
		return s, field.Errorf(ref.String(), "nothing is to be looked at there: that is yours to say")
	}
	s.Value, s.Says = "free", "It turns free."
	if slices.ContainsFunc(b.Left(), func(e *explain.Evidence) bool { return e.From.Work == "stiff" }) {
		s.Value, s.Says = "stiff", "It turns stiff."
	}
	return s, nil
}
