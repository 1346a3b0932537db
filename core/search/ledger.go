package search

import (
	"maps"
	"slices"
	"sort"

	"corvek/core/metrology"
)

// Says is what an attempt tells of parts at a step.
type Says string

// What can be told.
const (
	Blamed    Says = "blamed"     // of what was changed it alone can have cured the step
	OneOf     Says = "one_of"     // one of several changed at once: which, can no longer be told
	Partly    Says = "partly"     // a part of it: the figure came nearer, and is still out
	Acquitted Says = "acquitted"  // it was changed, and the step is as bad as before
	Behind    Says = "behind"     // right while the joint is slack: what it clamps binds, the joint is in the clear
	NotBehind Says = "not_behind" // as bad with the joint slack: what it clamps does not bind
	Broken    Says = "broken"     // the step went wrong, or got worse, with the change
	ByItself  Says = "by_itself"  // right, and nothing was done that cures
	Open      Says = "open"       // inspected or cleaned is not acquitted
	Masked    Says = "masked"     // the step came right because the fault was hidden
	Untold    Says = "not_tested" // the step was not done again
)

// Line is a line of the ledger. Shown are the figures of what came nearer or got worse: "16 N·m to 9 N·m". Off is
// what had come off for a change that the step went wrong with, and may lie wrong as well.
type Line struct {
	Try   int
	Step  string
	Parts []string
	Says  Says
	Shown string
	Off   []string
}

// Search is what the attempts of a unit come to.
type Search struct {
	Lines []Line
	steps map[string]*step
}

// step is what is thought of one step of the test.
type step struct {
	belief *belief
	base   Reading // the last one of the unit as it is
}

// Weigh works through the attempts in their order. troubles tells what may be wrong where a step is out. Only steps
// that were out before or are out now say anything.
func Weigh(tries []Try, troubles func(step string) []Trouble) *Search {
	s := &Search{steps: map[string]*step{}}
	for i, t := range tries {
		for _, code := range slices.Sorted(maps.Keys(s.steps)) {
			if _, again := t.Steps[code]; !again {
				s.untold(t, code)
			}
		}
		for _, code := range slices.Sorted(maps.Keys(t.Steps)) {
			now, at := t.Steps[code], s.steps[code]
			switch {
			case at != nil:
				s.weigh(t, code, now)
			case now.Verdict == metrology.Out && s.wasRight(tries[:i], code):
				s.steps[code] = &step{sound(troubles(code)), Reading{Verdict: metrology.In}}
				s.weigh(t, code, now)
			case now.Verdict == metrology.Out:
				s.steps[code] = &step{believe(troubles(code)), now}
			}
		}
	}
	return s
}

func (s *Search) wasRight(tries []Try, code string) bool {
	return slices.ContainsFunc(tries, func(t Try) bool { return t.Steps[code].Verdict == metrology.In })
}

// untold takes changes in after which a step was not read.
func (s *Search) untold(t Try, code string) {
	at := s.steps[code]
	if t.lasts() {
		at.belief = at.belief.unread(at.belief.effect(t.Moves, false)).next
	}
	if parts := t.touched(); at.base.Verdict == metrology.Out && len(t.Moves) > 0 {
		s.Lines = append(s.Lines, Line{Try: t.Number, Step: code, Parts: parts, Says: Untold})
	}
}

// partsOf are the parts of the changes of these kinds, each once.
func (t Try) partsOf(of func(Kind) bool) (out []string) {
	for _, m := range t.Moves {
		if m.Part != "" && of(m.Kind) && !slices.Contains(out, m.Part) {
			out = append(out, m.Part)
		}
	}
	return out
}

// touched are the parts of the changes, what hides a fault apart.
func (t Try) touched() []string { return t.partsOf(func(k Kind) bool { return k != Mask }) }

// slack are the joints that were slackened.
func (t Try) slack() []string { return t.partsOf(func(k Kind) bool { return k == Loosen }) }

// curing are the changed parts whose change can have cured something.
func (t Try) curing() []string { return t.partsOf(func(k Kind) bool { return cures[k] != nil }) }

// weigh takes one reading of a step in.
func (s *Search) weigh(t Try, code string, now Reading) {
	at := s.steps[code]
	o, ok := now.against(at.base)
	if !ok {
		s.untold(t, code)
		return
	}
	figures := at.base.Told && now.Told || o == Worse
	before := at.belief
	turn := before.after(before.effect(t.Moves, figures), o)
	if turn.p > 0 {
		at.belief = turn.next
	}
	s.Lines = append(s.Lines, t.lines(code, at.base, now, o, before, turn)...)
	if t.lasts() {
		at.base = now
	}
}

// acquits is how much of what was thought of a part may be left where it is acquitted.
const acquits = 0.3

// lines tells what an attempt says at one step.
func (t Try) lines(code string, was, now Reading, o Outcome, before *belief, by turn) (out []Line) {
	tell := func(says Says, parts ...string) *Line {
		out = append(out, Line{Try: t.Number, Step: code, Parts: parts, Says: says})
		return &out[len(out)-1]
	}
	shown := func() string { return was.Shown + " to " + now.Shown }
	if was.Verdict != metrology.Out {
		if o != Right {
			tell(Broken, t.touched()...).Off = t.off()
		}
		return out
	}
	switch o {
	case Right:
		t.right(tell)
		return out
	case Worse:
		l := tell(Broken, t.touched()...)
		l.Off, l.Shown = t.off(), shown()
		return out
	case Better:
		tell(Partly, t.curing()...).Shown = shown()
		return out
	}
	for _, m := range t.Moves {
		switch {
		case m.Part == "" || m.Kind == Mask:
		case m.Kind == Loosen:
			tell(NotBehind, m.Part)
		case m.Kind.clears() && before.left(by, m) <= acquits:
			tell(Acquitted, m.Part)
		default:
			tell(Open, m.Part)
		}
	}
	return out
}

// right tells what a step that came right says of what was changed.
func (t Try) right(tell func(Says, ...string) *Line) {
	curing := t.curing()
	slack := t.slack()
	switch {
	case t.has(Mask):
		tell(Masked, t.touched()...)
	case len(slack) > 0 && len(curing) == 0:
		tell(Behind, slack...)
	case len(curing)+len(slack) > 1:
		tell(OneOf, append(curing, slack...)...)
	case len(curing) == 0 && !slices.ContainsFunc(t.Moves, Move.unplaced):
		tell(ByItself, t.touched()...)
	default:
		tell(Blamed, curing...)
	}
}

// unplaced is a change that cures and is of no part.
func (m Move) unplaced() bool { return m.Part == "" && cures[m.Kind] != nil }

// off is what came off for the changes.
func (t Try) off() (out []string) {
	for _, m := range t.Moves {
		for _, c := range m.Off {
			if !slices.Contains(out, c) && c != m.Part {
				out = append(out, c)
			}
		}
	}
	return out
}

// clears reports a change that clears the piece itself where the step stays as bad as it was. Who only looked,
// washed or fitted it again has cleared nothing.
func (k Kind) clears() bool { return k == Swap || k == Renew || k == Adjust }

// left is the share of what was thought of the piece itself, or its setting, that is left; how it was fitted is
// another thing.
func (b *belief) left(by turn, m Move) float64 {
	was, is := 0.0, 0.0
	for i, p := range b.shares() {
		if t := b.troubles[i]; t.Part == m.Part && t.Way != Seat {
			was, is = was+p, is+by.stayed[i]
		}
	}
	if was == 0 {
		return 1
	}
	return is / was
}

// StillOut are the steps that are out as the unit is, by code.
func (s *Search) StillOut() (out []string) {
	for code, at := range s.steps {
		if at.base.Verdict == metrology.Out {
			out = append(out, code)
		}
	}
	slices.Sort(out)
	return out
}

// PartShare is how likely a part bears what a step shows, by whichever way.
type PartShare struct {
	Part string
	P    float64
}

// Parts are the parts that may bear what a step shows, the likeliest first; "" is something that nobody thought of.
// None of a step that is not out.
func (s *Search) Parts(code string) (out []PartShare) {
	at := s.steps[code]
	if at == nil || at.base.Verdict != metrology.Out {
		return nil
	}
	done := map[string]bool{}
	for _, t := range at.belief.troubles {
		if done[t.Part] {
			continue
		}
		done[t.Part] = true
		out = append(out, PartShare{t.Part, at.belief.ofPart(func(o Trouble) bool { return o.Part == t.Part })})
	}
	sort.SliceStable(out, func(a, b int) bool { return out[a].P > out[b].P })
	return out
}
