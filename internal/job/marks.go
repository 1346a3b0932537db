package job

import (
	"strings"

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
func (st *State) seen(p *PartState) (out []SeenMark) {
	for _, def := range family.PartMarks {
		m := p.LastSaid(def.Code)
		switch {
		case m.State == unit.MarkSeen:
			out = append(out, SeenMark{MarkDef: def, Grade: m.Grade, Origin: m.Origin, How: m.How})
		case m.State == unit.MarkAbsent:
		case def.Code == markBroken && number(p.Bits)+p.LooseBits > 0:
			out = append(out, SeenMark{MarkDef: def, Source: "found in pieces"})
		case def.Code == MarkSeized && (p.Stuck == entry.CameStuck || p.Stuck == entry.CameSeized):
			out = append(out, SeenMark{MarkDef: def, How: entry.BeforeFreeing, Source: "came off " + p.Stuck})
		default:
			if e := st.evidenceOf(p, def.Code); e != nil {
				said := st.Unit.LastSaid(e.Code)
				if said.State == unit.MarkSeen {
					out = append(out, SeenMark{MarkDef: def, Origin: said.Origin, How: said.How,
						Source: strings.ToLower(e.Text)})
				}
			}
		}
	}
	return out
}

// evidenceOf is the evidence that a mark on a part stands for, nil where none does.
func (st *State) evidenceOf(p *PartState, mark string) *explain.Evidence {
	for i := range st.Knowledge.Evidence {
		e := &st.Knowledge.Evidence[i]
		if e.From.Mark == p.Code+"="+mark || e.From.Mark == "@"+p.Def.Kind+"="+mark {
			return e
		}
	}
	return nil
}

// OnPart reports that an evidence stands as a mark on one of the parts.
func (st *State) OnPart(e *explain.Evidence) bool {
	for _, p := range st.Parts {
		for _, m := range p.Seen {
			if st.evidenceOf(p, m.Code) == e {
				return true
			}
		}
	}
	return false
}

// Breaking reports that the part bears a mark with which it is not kept.
func (p *PartState) Breaking() bool {
	for _, m := range p.Seen {
		if m.Breaking {
			return true
		}
	}
	return false
}

// automaticMark turns what was seen on a part, or on any of a kind, into a finding.
func (st *State) automaticMark(from string) (strength float64, source string, ok bool) {
	where, code, _ := strings.Cut(from, "=")
	kind, any := strings.CutPrefix(where, "@")
	looked, sound := 0, 0
	for _, p := range st.Parts {
		if any && p.Def.Kind != kind || !any && p.Code != where {
			continue
		}
		looked++
		if p.Sound || p.LastSaid(code).State == unit.MarkAbsent {
			sound++
		}
		for _, m := range p.Seen {
			// A mark we made says nothing of the cause.
			if m.Code == code && m.Origin != unit.OriginBench {
				return explain.StrengthOfSight(m.Origin, m.How), strings.ToLower(p.Name) + ": " + m.Text(), true
			}
		}
	}
	if looked > 0 && sound == looked {
		return explain.Absent, "looked at: not there", true
	}
	return 0, "", false
}
