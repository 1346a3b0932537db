package hidden

import (
	"math"
	"slices"

	"corvek/core/explain"
	"corvek/core/unit"
)

// Shows reports that a field of a record is looked at on the unit; any other is for whoever works on it to say or do.
func Shows(ref unit.Ref) bool {
	switch ref.Scope {
	case unit.ScopeReading, unit.ScopePoint:
		return ref.Name != "not_applicable" && ref.Name != "note"
	case unit.ScopeEvidence, unit.ScopePartMark:
		return ref.Name == "state"
	case unit.ScopeJob:
		return ref.Name == "symptom"
	case unit.ScopeUnit:
		return ref.Name == "gauge" || ref.Name == "drained_look"
	case unit.ScopePart:
		return slices.Contains([]string{"found", "facing", "stuck", "stack_found", "sound"}, ref.Name)
	case unit.ScopeStep:
		return ref.Name == "turn"
	}
	return false
}

// Way is what somebody did at a case, beside what would have told most for its minutes.
type Way struct {
	Steps   []Taken
	Minutes float64 // with opening the unit
	Idle    int     // looks that tell nothing of any cause
	Best    Path
	// The step of his from which what it truly is stood first and stayed there, from 0; −1 where it never did
	Turned  int
	Unasked []*explain.Evidence // that would have told most of what it is, and were never looked at
	Taken   []*explain.Evidence // that stand on his record otherwise than the unit shows them, or that nobody looked at
	Early   bool                // he named a cause before it was as good as sure by what he had seen
}

// Taken is one look of his, as far as it tells of a cause.
type Taken struct {
	explain.Step
	Gone bool    // it was too late
	Bits float64 // that it gave to what it truly is; below nought it spoke against it
}

// mostUnasked are told.
const mostUnasked = 3

// Way lays out what somebody did until he named causes, none where he gave it up.
func (b *Bench) Way(named []string) (w Way, err error) {
	if w.Best, err = b.Shop.Best(b.Case); err != nil {
		return w, err
	}
	k := b.True.Knowledge
	var findings []explain.Finding
	told := map[string]bool{}
	w.Turned = -1
	before := b.truly(k.Standing(nil))
	opening := 0.0
	for i, l := range b.Looked {
		w.Minutes += l.Minutes
		opening = max(opening, l.Reached.Opening())
		ref, err := unit.ParseRef(l.Field)
		if err != nil {
			continue
		}
		step := Taken{Gone: l.Gone}
		step.Minutes = l.Minutes
		for _, e := range b.told(ref, i) {
			if told[e.Code] {
				continue
			}
			told[e.Code] = true
			step.Looks = append(step.Looks, e)
			if f, known := b.finding(e.Code); known && !step.Gone {
				step.Told = append(step.Told, f)
			}
		}
		if len(step.Looks) == 0 {
			w.Idle++
			continue
		}
		findings = append(findings, step.Told...)
		now := k.Standing(findings)
		step.Lead, step.P = now.Lead()
		step.Bits = math.Log2(b.truly(now) / before)
		before = b.truly(now)
		w.Steps = append(w.Steps, step)
		switch right := slices.Contains(b.Case.Causes, step.Lead.Code); {
		case !right:
			w.Turned = -1
		case w.Turned < 0:
			w.Turned = len(w.Steps) - 1
		}
	}
	w.Minutes += opening
	w.Early = len(named) > 0 && !b.Case.Enough(k.Standing(findings))
	w.unasked(b, findings, told)
	w.taken(b, told)
	return w, nil
}

// truly is how likely what it truly is stands, of two the less likely.
func (b *Bench) truly(s explain.Standing) float64 {
	least := 1.0
	for _, code := range b.Case.Causes {
		least = min(least, s.Of(code))
	}
	return math.Max(1e-6, least)
}

// unasked finds what was never looked at and would have told most of what it is.
func (w *Way) unasked(b *Bench, findings []explain.Finding, told map[string]bool) {
	type worth struct {
		e    *explain.Evidence
		bits float64
	}
	k := b.True.Knowledge
	now := b.truly(k.Standing(findings))
	var all []worth
	for _, f := range b.True.Findings {
		e, known := k.EvidenceByCode(f.Code)
		if !known || told[f.Code] || e.From.Symptom != "" {
			continue
		}
		with := b.truly(k.Standing(append(slices.Clone(findings), f)))
		all = append(all, worth{e, math.Log2(with / now)})
	}
	slices.SortStableFunc(all, func(a, b worth) int {
		switch {
		case a.bits > b.bits:
			return -1
		case a.bits < b.bits:
			return 1
		}
		return 0
	})
	for _, x := range all[:min(mostUnasked, len(all))] {
		if x.bits > 1 {
			w.Unasked = append(w.Unasked, x.e)
		}
	}
}

// taken finds what stands on the record and was not seen so.
func (w *Way) taken(b *Bench, told map[string]bool) {
	for _, f := range b.Record.Findings {
		e, known := b.Record.Knowledge.EvidenceByCode(f.Code)
		if !known || e.From.Work != "" || e.From.Symptom != "" {
			continue
		}
		there, tells := b.there(f.Code)
		if !told[f.Code] || tells && there != f.Likely() {
			w.Taken = append(w.Taken, e)
		}
	}
}
