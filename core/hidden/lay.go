package hidden

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"corvek/core/bench"
	"corvek/core/entry"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/invented"
	"corvek/core/unit"
)

// laying puts what was drawn on a sound unit, each mark where it would be found.
type laying struct {
	*draw
	j     *unit.Job
	u     *unit.Unit
	fault error
}

// lay writes what is wrong on a sound unit. A mark that a station tells by itself is laid where that station finds it;
// any other is noted as seen, or as looked for and absent.
func (d *draw) lay(j *unit.Job) error {
	l := &laying{draw: d, j: j, u: j.Unit(1)}
	l.answers()
	drained := ""
	for i := range d.k.Evidence {
		e := &d.k.Evidence[i]
		if !d.there[e.Code] {
			continue
		}
		for _, from := range e.Froms() {
			if from.Fluid != "" && looks[from.Fluid] != "" {
				drained = strings.TrimPrefix(drained+", "+looks[from.Fluid], ", ")
			}
			borne, counted, measured := l.found(e, from), l.counted(from), l.measured(from)
			if borne || counted || measured { // what is scored both looks so and feels so
				break
			}
		}
	}
	if drained == "" {
		drained = "clear"
	}
	l.put(l.u.Ref("drained_look"), drained)
	l.run()
	if l.fault != nil {
		return l.fault
	}
	return l.rest()
}

// looks are what a drained fluid looks like that has something in it.
var looks = map[string]string{"water": "milky", "burnt": "dark, smells burnt", "metal": "metal flakes"}

// put writes a field, and keeps the first fault.
func (l *laying) put(ref unit.Ref, text string) {
	if err := l.shop.put(l.j, ref, text); err != nil && l.fault == nil {
		l.fault = fmt.Errorf("%s: %w", ref, err)
	}
}

// told finds the evidence that comes from a place.
func (d *draw) told(from func(explain.From) bool) *explain.Evidence {
	for i := range d.k.Evidence {
		if slices.ContainsFunc(d.k.Evidence[i].Froms(), from) {
			return &d.k.Evidence[i]
		}
	}
	return nil
}

// choose picks what is said of answers: one whose mark is there, else one that stands for no mark or for a good one,
// else that nobody looked; and where each stands for one, what is said most often.
func (d *draw) choose(answers []string, is func(explain.From, string) bool) string {
	none, other, most := "", "", -1.0
	for _, a := range answers {
		e := d.told(func(f explain.From) bool { return is(f, a) })
		switch {
		case e == nil || e.Good && d.may(e):
			if none == "" {
				none = a
			}
			continue
		case d.there[e.Code]:
			return a
		}
		p, speaks := d.rate(e)
		if !speaks {
			p = e.Background.P()
		}
		if p > most {
			other, most = a, p
		}
	}
	if none == "" {
		return other
	}
	return none
}

// may reports that a good answer does not stand against what is wrong: the roots leave it as often as not.
func (d *draw) may(e *explain.Evidence) bool {
	p, speaks := d.rate(e)
	return !speaks || p >= 0.5
}

// answers gives each question that is asked at the machine its answer, and each step that is seen its word.
func (l *laying) answers() {
	for _, code := range l.st.Family.Gauge {
		q, _ := family.QuestionByCode(code)
		var said []string
		for _, a := range q.Answers {
			said = append(said, a.Code)
		}
		l.put(l.u.GaugeRef(code), l.choose(said,
			func(f explain.From, a string) bool { return f.Gauge == explain.Answered{To: code, With: a} }))
	}
	for _, step := range l.st.Plan() {
		if !step.Received || step.Skipped != "" || len(step.Words) == 0 {
			continue
		}
		words := slices.Concat(step.Good, step.Words)
		l.put(l.u.PointRef(0, step.Code, "word"), l.choose(words,
			func(f explain.From, a string) bool { return f.Word == explain.Answered{To: step.Code, With: a} }))
	}
}

// found lays a mark on the part that bears it, or on how it came off.
func (l *laying) found(e *explain.Evidence, from explain.From) bool {
	switch {
	case from.Symptom != "":
		l.j.Symptoms = append(l.j.Symptoms, from.Symptom)
		return true
	case from.Gauge.Asked():
		return slices.Contains(l.st.Family.Gauge, from.Gauge.To)
	case from.Word.Asked():
		_, there := l.st.Step(from.Word.To)
		return there
	case from.Mark != nil:
		return l.marked(e, from.Mark)
	case from.Facing != nil:
		for _, p := range l.st.Parts {
			if from.Facing.Of(p.Code, p.Def.Kind) && p.Def.Facing != "" {
				at := slices.IndexFunc(p.Def.Facings, func(f string) bool { return f != p.Def.Facing })
				l.put(l.u.PartRef(p.Code, "facing"), p.Def.Facings[at])
				return true
			}
		}
	case from.Stuck != nil:
		for _, p := range l.st.Parts {
			if from.Stuck.Of(p.Code, p.Def.Kind) {
				l.stuck(p)
				return true
			}
		}
	}
	return false
}

// stuck has a part come off by force. Where it was not stuck in service it stuck only as it was drawn.
func (l *laying) stuck(p *bench.Part) {
	l.put(l.u.PartRef(p.Code, "stuck"), entry.CameStuck)
	if is := l.k.Marked(p.Code, p.Def.Kind, bench.MarkSeized); is != nil && !l.there[is.Code] {
		l.put(l.u.PartMarkRef(p.Code, bench.MarkSeized, "state"), unit.MarkAbsent)
	}
}

// marked lays a mark on a part that it speaks of and that it does not say more closely of another.
func (l *laying) marked(e *explain.Evidence, on *explain.MarkOn) bool {
	for _, p := range l.st.Parts {
		if !on.Of(p.Code, p.Def.Kind) {
			continue
		}
		for _, mark := range on.Marks {
			if is := l.k.Marked(p.Code, p.Def.Kind, mark); is == nil || is.Code != e.Code {
				continue
			}
			l.put(l.u.PartRef(p.Code, "sound"), "")
			l.put(l.u.PartMarkRef(p.Code, mark, "state"), unit.MarkSeen)
			return true
		}
	}
	return false
}

// counted lays out a part that is not all there, or a stack that is not as it belongs.
func (l *laying) counted(from explain.From) bool {
	if p := l.st.ByCode[from.Missing]; p != nil && p.Expected > 0 {
		l.put(l.u.PartRef(p.Code, "found"), strconv.Itoa(p.Expected-1))
		return true
	}
	if p := l.st.ByCode[from.Stack]; p != nil && p.Stack != nil && len(p.Stack.Right) > 1 {
		l.put(l.u.PartRef(p.Code, "stack_found"), family.StackText(p.Stack.Right[:len(p.Stack.Right)-1]))
		return true
	}
	return false
}

// worn and bent are how much of their limits those features have used that are out: clearly, and not by a hair.
const (
	least = 1.6
	most  = 2.2
)

// measured lays readings on a feature that is worn, or off to one side.
func (l *laying) measured(from explain.From) bool {
	for _, path := range []string{from.Used, from.Grade, from.Odd, from.Off.Path} {
		f := l.feature(path)
		if f == nil {
			continue
		}
		used := least + (most-least)*l.r.Float64()
		if from.Off.Low && f.Found.Limits.HasLower {
			used = -0.4
		}
		odd := l.told(func(o explain.From) bool { return o.Odd == path })
		for i, slot := range f.Spec.Slots() {
			text := invented.Worn(f, slot, used)
			switch first := i == 0; {
			case from.Odd != "" && first:
				text = invented.Stray(f, slot)
			case from.Odd != "", first && odd != nil && l.there[odd.Code]:
				continue // its fellows are as they are; the first strays whatever they are
			}
			l.put(l.u.ReadingRef(f.Part.Code, f.Code, unit.StageFound, slot), text)
		}
		return true
	}
	return false
}

// feature is one of the sound unit by its path, nil where it has none.
func (d *draw) feature(path string) *bench.Feature {
	part, code := family.CutFeature(path)
	if p := d.st.ByCode[part]; p != nil {
		for _, f := range p.Features {
			if f.Code == code {
				return f
			}
		}
	}
	return nil
}

// rest notes by hand what no station tells by itself, as it was drawn. What a station does tell of the unit is so,
// whatever was drawn.
func (l *laying) rest() error {
	st, err := l.shop.state(l.j)
	if err != nil {
		return err
	}
	told := map[string]bool{}
	for _, f := range st.Findings {
		told[f.Code] = true
	}
	for i := range st.Knowledge.Evidence {
		e := &st.Knowledge.Evidence[i]
		switch {
		case told[e.Code], slices.Contains(l.st.Family.Gauge, e.From.Gauge.To):
			continue // or nobody tried it
		case e.From.Work != "", e.From.Symptom != "" && !l.there[e.Code]:
			continue // what is not yet done, and what nobody complains of
		}
		state := unit.MarkAbsent
		if l.there[e.Code] {
			state = unit.MarkSeen
		}
		l.put(l.u.EvidenceRef(e.Code, "state"), state)
	}
	return l.fault
}
