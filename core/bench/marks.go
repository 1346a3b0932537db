package bench

import (
	"slices"
	"strings"

	"corvek/core/decide"
	"corvek/core/entry"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/unit"
)

// The marks that the strip record itself tells of.
const (
	markBroken = "broken"
	MarkSeized = "seized"
)

// SeenMark is a mark that a part bears, wherever it was noted: on the part, as
// evidence, or by what the strip record says.
type SeenMark struct {
	family.MarkDef
	Grade, Origin, How string
	Source             string // "" where it was noted as a mark
}

// Text is the mark in words, with what tells how far to trust it.
func (m SeenMark) Text() string {
	text := m.MarkDef.Text
	if m.Grade != "" {
		text = m.Grade + ": " + text
	}
	switch {
	case m.Origin == unit.OriginBench:
		text += ", made during teardown"
	case m.Origin == unit.OriginUnknown:
		text += ", origin unknown"
	}
	return text
}

// seen gathers the marks of a part, each once.
func (st *Stripped) seen(p *AsFound) (out []SeenMark) {
	for _, def := range family.PartMarks {
		def.Breaking = def.Breaking || slices.Contains(p.Def.Condemned, def.Code)
		m := p.LastSaid(def.Code)
		switch {
		case m.State == unit.MarkSeen:
			out = append(out, SeenMark{MarkDef: def, Grade: m.Grade, Origin: m.Origin, How: m.How})
		case m.State == unit.MarkAbsent:
		case def.Code == markBroken && number(p.Fragments)+p.LooseFragments > 0:
			out = append(out, SeenMark{MarkDef: def, Source: "found in pieces"})
		case def.Code == MarkSeized && (p.CameStuck()):
			out = append(out, SeenMark{MarkDef: def, How: entry.BeforeFreeing, Source: "came off " + p.Stuck})
		default:
			if e := st.learned.Marked(p.Code, p.Def.Kind, def.Code); e != nil {
				said := st.Unit.LastSaid(e.Code)
				if said.State == unit.MarkSeen && e.From.Mark != nil && e.From.Mark.Means(def.Code) {
					out = append(out, SeenMark{MarkDef: def, Origin: said.Origin, How: said.How,
						Source: strings.ToLower(e.Text)})
				}
			}
		}
	}
	return out
}

// evidenceOf is the evidence that a mark on a part stands for, nil where none does.
func (st *Rated) evidenceOf(p *AsFound, mark string) *explain.Evidence {
	return st.Knowledge.Marked(p.Code, p.Def.Kind, mark)
}

// standsFor reports that a mark on a part stands for an evidence.
func (st *Rated) standsFor(p *AsFound, mark string, e *explain.Evidence) bool {
	is := st.evidenceOf(p, mark)
	return is != nil && is.Code == e.Code
}

// OnPart reports that an evidence stands as a mark on one of the parts.
func (st *Rated) OnPart(e *explain.Evidence) bool {
	for _, p := range st.Parts {
		for _, m := range p.Seen {
			if st.standsFor(p, m.Code, e) {
				return true
			}
		}
	}
	return false
}

// CameStuck reports that the part did not come off freely.
func (p *AsFound) CameStuck() bool {
	return p.Stuck == entry.CameStuck || p.Stuck == entry.CameSeized
}

// AsksFeel reports that it is felt by hand once the part is fitted: the shaft after its
// joints, and whatever moves, came off stuck and goes back in.
func (p *Part) AsksFeel() bool {
	kind, known := family.KindByCode(p.Def.Kind)
	return p.Def.TurnCheck || p.slides || known && kind.Moves && p.CameStuck() && p.Choice() != decide.Replace
}

// Breaking reports that the part bears a mark with which it is not kept.
func (p *AsFound) Breaking() bool {
	for _, m := range p.Seen {
		if m.Breaking {
			return true
		}
	}
	return false
}

// automaticMark turns what was seen on the parts an evidence speaks of into a finding.
func (st *Rated) automaticMark(e *explain.Evidence, on *explain.MarkOn) (strength float64, source string, ok bool) {
	if on == nil {
		return 0, "", false
	}
	looked, sound := 0, 0
	for _, p := range st.Parts {
		if !on.Of(p.Code, p.Def.Kind) {
			continue
		}
		looked++
		absent := func(mark string) bool { return p.LastSaid(mark).State == unit.MarkAbsent }
		if p.Sound || !slices.ContainsFunc(on.Marks, func(m string) bool { return !absent(m) }) {
			sound++
		}
		for _, m := range p.Seen {
			// A mark we made says nothing of the cause; one that speaks for another
			// evidence more closely counts there.
			removed := m.Code == MarkSeized && m.Source != "" && p.Stuck == entry.CameStuck // not in service
			if !removed && slices.Contains(on.Marks, m.Code) && m.Origin != unit.OriginBench &&
				st.standsFor(p, m.Code, e) {
				return explain.StrengthOfSight(m.Origin, m.How), strings.ToLower(p.Name) + ": " + m.Text(), true
			}
		}
	}
	if looked > 0 && sound == looked {
		return explain.Absent, "looked at: not there", true
	}
	return 0, "", false
}
