package hidden

import (
	"slices"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/field"
	"corvek/core/mount"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// asBuilt is the unit as it lies there in truth: what was written of it, with every part that was kept as it truly is.
func (b *Bench) asBuilt() (*bench.State, error) {
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
	return b.Shop.state(j)
}

// renewed reports that a new or reworked part stands where the old one was.
func renewed(p *bench.Part) bool {
	return p.Step.Done && (p.Choice() == decide.Replace || p.Choice() == decide.Rework)
}

// Left are the troubles that are still in the unit: marks that are truly on a part which was neither renewed nor
// reworked. With none left it does what it should.
func (b *Bench) Left() (out []Remains) {
	for _, f := range b.True.Findings {
		e, known := b.True.Knowledge.EvidenceByCode(f.Code)
		if !known || !f.Likely() || e.Good || !b.spoken(e) {
			continue
		}
		if p := b.partOf(e); p != nil && !renewed(p) {
			out = append(out, Remains{e, p.Code})
		}
	}
	return out
}

// Remains is a mark of the trouble that is still in the unit, on a part.
type Remains struct {
	*explain.Evidence
	On string
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
	}
	for _, p := range b.True.Parts {
		for _, m := range p.Seen {
			if is := b.True.Knowledge.Marked(p.Code, p.Def.Kind, m.Code); is != nil && is.Code == e.Code {
				return b.Record.ByCode[p.Code]
			}
		}
	}
	return nil
}

// Mount lays the unit on the stand for a step of its test: as it truly is, with what was done to it.
func (b *Bench) Mount(t *family.Test) (mount.Mounted, error) {
	st, err := b.asBuilt()
	if err != nil {
		return mount.Mounted{}, err
	}
	facts, err := st.Facts()
	switch {
	case err != nil:
		return mount.Mounted{}, err
	case len(b.Left()) > 0:
		return b.bad(facts, t), nil
	}
	m := facts.Mount(t)
	m.Tag = b.Record.Job.Tag
	return m, nil
}

// bad is the unit with its trouble in it: what it showed when it came, at the steps where it did.
func (b *Bench) bad(facts mount.Facts, t *family.Test) mount.Mounted {
	m := facts.Mount(t)
	m.Tag = b.Record.Job.Tag
	row := b.True.Unit.Attempt(0).Point(t.Code)
	if row == nil {
		return m
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
	return m
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
		return b.shown(s, ref, t)
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

// byHand are figures that no stand shows.
var byHand = map[string]bool{"suction_lift": true, "coil": true, "current": true}

// shown answers with what an instrument of the stand shows, where it is run before anything was done, or what is
// measured beside it.
func (b *Bench) shown(s Seen, ref unit.Ref, t *family.Test) (Seen, error) {
	g, known := family.FigureByCode(ref.Name)
	if !known {
		return s, field.Errorf(ref.String(), "nothing is to be looked at there: that is yours to say")
	}
	if ref.Number > 0 && !byHand[ref.Name] {
		return s, field.Errorf(ref.String(), "run it on the stand, and take it there")
	}
	facts, err := b.True.Facts()
	if err != nil {
		return s, field.Errorf(ref.String(), "it cannot be run: %s", err)
	}
	m := b.bad(facts, t)
	v, shows := m.Rest[ref.Name]
	level := t.Pressure * b.True.Duty.Pressure
	switch {
	case ref.Name == "flow" && m.Model.Theoretical() > 0:
		v, shows = m.Model.Deliver(level), true
	case ref.Name == "pressure" && t.Pressure > 0:
		v, shows = level, true
	case ref.Name == "speed":
		v, shows = b.True.Duty.Speed, true
	}
	if !shows {
		return s, field.Errorf(ref.String(), "no instrument here shows it")
	}
	s.Says = "The instrument shows " + quantity.Show(v, g.Dim, quantity.Metric) + "."
	return s, nil
}

// felt answers what a hand feels once a part is in.
func (b *Bench) felt(s Seen) Seen {
	s.Value, s.Says = "free", "It turns free."
	if slices.ContainsFunc(b.Left(), func(r Remains) bool { return r.From.Work == "stiff" }) {
		s.Value, s.Says = "stiff", "It turns stiff."
	}
	return s
}
