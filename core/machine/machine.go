// Package machine concludes from what was told and tried at the machine whether a unit is opened: the same causes are
// weighed as later at the bench, those at the unit and those away from it, so that answers that fit one story make
// one.
package machine

import (
	"cmp"
	"slices"

	"corvek/core/explain"
	"corvek/core/family"
)

// Verdict says where the trouble lies.
type Verdict string

// The verdicts.
const (
	Open      Verdict = ""          // nothing is settled yet
	AtUnit    Verdict = "unit"      // it can be in this unit
	Elsewhere Verdict = "elsewhere" // something at the machine is looked at first
	Cleared   Verdict = "cleared"   // the unit is whole, and is not opened
)

// Gauge is what the answers together say.
type Gauge struct {
	Verdict Verdict
	Away    float64        // how likely it is settled at the machine
	Lead    *explain.Cause // the likeliest story on the likelier side, nil where nothing was told
	Because []string       // what the answers mean that speak for that side, the strongest first
	Ask     string         // code of the question that would tell most, "" where none tells enough
	First   bool           // it tells so much that nothing is opened before
	Sound   int            // answers that say that something at the machine is whole
	Told    int            // answers that tell something
}

// Hold is why a unit is not opened yet.
type Hold string

// The holds. None lets it be opened.
const (
	HoldNone      Hold = ""
	HoldCleared   Hold = "cleared"   // the answers acquit it
	HoldElsewhere Hold = "elsewhere" // they point elsewhere
	HoldFirst     Hold = "first"     // one question comes first
	HoldNotTold   Hold = "not_told"  // nobody asked enough
)

// From how likely on a side is taken for told, and what a question must promise, in bits. Guidance of ours.
const (
	clears   = 0.88
	points   = 0.7
	atUnit   = 0.3
	askFirst = 0.24
	worth    = 0.03
	another  = 0.15 // of what a question promises that takes another unit
)

// soundEnough is how many things found whole at the machine are asked before a unit is opened.
const soundEnough = 3

// Holds says whether a unit may be opened by what was told. Where nobody is left to ask, only what was told counts.
func (g Gauge) Holds(nobodyToAsk bool) Hold {
	switch {
	case g.Verdict == Cleared:
		return HoldCleared
	case g.Verdict == AtUnit:
		return HoldNone
	case g.First && !nobodyToAsk:
		return HoldFirst
	case g.Verdict == Elsewhere:
		return HoldElsewhere
	case g.Ask == "" || nobodyToAsk || g.Sound >= soundEnough:
		return HoldNone
	}
	return HoldNotTold
}

// Conclude weighs the answers to a family's questions, and the complaint, by code. k is what there is to know of the
// unit.
func Conclude(f *family.Family, k *explain.Knowledge, answers map[string]string, symptoms []string) Gauge {
	g := Gauge{}
	acquitted := false
	open := map[string]bool{} // questions that were neither answered nor tried
	for _, code := range f.Gauge {
		q, known := family.QuestionByCode(code)
		a, given := q.AnswerByCode(answers[code])
		switch {
		case !known:
		case !given:
			open[code] = true
		case family.Answered(a.Code):
			g.Told++
			if a.Points == family.Sound {
				g.Sound++
			}
			acquitted = acquitted || a.Points == family.Acquits
		}
	}
	m := k.AtMachine(findings(k, answers, symptoms))
	g.Away = m.Away
	g.ask(m, f, open)
	if g.Told == 0 {
		return g
	}
	g.Lead = m.Lead
	switch {
	case m.Sound >= clears, acquitted && m.Away >= clears:
		g.Verdict = Cleared
	case m.Away <= atUnit:
		g.Verdict = AtUnit
	case m.Away >= points:
		g.Verdict = Elsewhere
	}
	g.Because = because(m, answers)
	return g
}

// ask names the question that would tell most, if it tells enough: what takes another unit seldom can be tried.
func (g *Gauge) ask(m explain.Machine, f *family.Family, open map[string]bool) {
	best := 0.0
	for _, q := range m.Asks {
		of, _ := family.QuestionByCode(q.Code)
		bits := q.Bits
		if of.NeedsAnother {
			bits *= another
		}
		if open[q.Code] && bits > best && (bits >= worth || g.Told == 0) {
			best, g.Ask = bits, q.Code
		}
	}
	g.First = best >= askFirst && g.Told > 0
	at := slices.IndexFunc(f.Gauge, func(code string) bool { return open[code] })
	if g.Told == 0 && g.Ask == "" && at >= 0 {
		g.Ask = f.Gauge[at]
	}
}

// findings are the answers and the complaint as evidence.
func findings(k *explain.Knowledge, answers map[string]string, symptoms []string) (out []explain.Finding) {
	for i := range k.Evidence {
		e := &k.Evidence[i]
		if s, told := Heard(e.From, answers, symptoms); told {
			out = append(out, explain.Finding{Code: e.Code, Strength: s})
		}
	}
	return out
}

// Heard is what a complaint or an answer says of an evidence that comes from it; told is false where nobody said
// anything. A question that was answered tells of all its answers: what was said is there, and the others are not.
// What was not complained of is not absent.
func Heard(from explain.From, answers map[string]string, symptoms []string) (strength float64, told bool) {
	if from.Symptom != "" {
		return explain.Seen, slices.Contains(symptoms, from.Symptom)
	}
	q, _ := family.QuestionByCode(from.Gauge.To)
	said, offered := q.AnswerByCode(answers[from.Gauge.To])
	switch {
	case !offered || !family.Answered(said.Code):
		return 0, false
	case said.Code == from.Gauge.With:
		return explain.Seen, true
	}
	return explain.Absent, true
}

// because are what the answers mean that speak for the likelier side, in the order of what they tell; an answer that
// was given for something else is none.
func because(m explain.Machine, answers map[string]string) (out []string) {
	told := slices.Clone(m.Told)
	away := m.Away >= 0.5
	slices.SortStableFunc(told, func(a, b explain.Weight) int {
		if away {
			a, b = b, a
		}
		return cmp.Compare(a.Information, b.Information)
	})
	for _, w := range told {
		if w.Evidence.From.Gauge.To == "" || w.Strength < 0.5 || away != (w.Information > 0) {
			continue
		}
		q, _ := family.QuestionByCode(w.Evidence.From.Gauge.To)
		if a, known := q.AnswerByCode(answers[q.Code]); known && !slices.Contains(out, a.Means) {
			out = append(out, a.Means)
		}
	}
	return out
}
