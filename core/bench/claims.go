package bench

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// claims holds all that the unit owes against what was last read at each step of its test.
func (st *Tested) claims(plan []proof.PlanStep) {
	st.Shown = map[string]*proof.Shown{}
	for i := range plan {
		st.Shown[plan[i].Code] = st.shown(&plan[i])
	}
	for _, o := range proof.Owed(st.asked()) {
		if t, owed := proof.Tell(o, func(code string) *proof.Shown { return st.Shown[code] }, st.told); owed {
			st.Claims = append(st.Claims, t)
		}
	}
}

// shown is what was last read at a step, in whichever attempt; what was said of it later stands
// where it was not possible any more.
func (st *Tested) shown(step *proof.PlanStep) *proof.Shown {
	s := &proof.Shown{Test: &step.Test, NotHere: step.Skipped}
	hold, _ := quantity.Parse(step.Hold, quantity.Time)
	s.Hold = time.Duration(hold.SI * float64(time.Second))
	impossible := ""
	for i := len(st.Attempts) - 1; i >= 0; i-- {
		a := st.Attempts[i]
		at := slices.IndexFunc(a.Points, func(p Point) bool { return p.Test.Code == step.Code })
		if at < 0 {
			continue
		}
		p := &a.Points[at]
		switch {
		case a.Source == unit.SourceSimulated:
			s.Exercise = s.Exercise || read(&p.Row)
			continue
		case !read(&p.Row):
			if impossible == "" {
				impossible = p.Row.Skipped
			}
			continue
		}
		last := *s
		last.Read, last.Attempt, last.Closed = true, a.Number, a.Closed
		last.Judged, last.Held, last.Moved = p.Judged, p.Row.Held(), st.moved(&step.Test, &p.Row)
		last.Word, last.Needed = p.Row.Word, st.needed(a.Attempt, &p.Row)
		last.From, last.By = origins(&p.Row)
		if impossible == "" || last.Judged.Verdict == metrology.Out || len(last.Why()) == 0 {
			return &last
		}
		break
	}
	s.NotPossible = impossible
	return s
}

// origins are where the figures of a step are from and who took them, each once, in the order of the
// figures' names.
func origins(p *unit.Point) (from, by []string) {
	for _, name := range slices.Sorted(maps.Keys(p.Taken)) {
		t := p.Taking(name)
		if t.From != "" && !slices.Contains(from, t.From) {
			from = append(from, t.From)
		}
		if t.By != "" && !slices.Contains(by, t.By) {
			by = append(by, t.By)
		}
	}
	return from, by
}

// mostMoved is how many changes are named one by one.
const mostMoved = 3

// moved names what is another now than when a step was read, of what the step rests on: the unit as
// a whole, the parts of its assembly or all of them, and of the complaint's step what was complained
// of.
func (st *Tested) moved(t *family.Test, p *unit.Point) (out []string) {
	now, seen := st.stands, map[string]bool{}
	for _, n := range grounds(t, p) {
		g := st.Unit.Ground(n)
		if g == nil {
			return []string{"nobody kept what stood when it was read"}
		}
		for _, key := range differ(g.Stood, now) {
			s := entry.StandingOf(key)
			if words := st.movedWords(s, g.Stood[key], now[key]); st.restsOn(t, s) && !seen[words] {
				seen[words] = true
				out = append(out, words)
			}
		}
	}
	if more := len(out) - mostMoved; more > 0 {
		out = append(out[:mostMoved], fmt.Sprintf("and %d more", more))
	}
	return out
}

// grounds are the numbers of what stood when something of a step was taken, 0 where nobody kept it.
func grounds(t *family.Test, p *unit.Point) []int {
	numbers := map[int]bool{}
	for name := range p.Figures {
		numbers[p.Taking(name).Ground] = true
	}
	if p.Word != "" {
		numbers[p.Taking("word").Ground] = true
	}
	if t.Hold != "" && p.Held() > 0 {
		numbers[p.Taking("hold_from").Ground], numbers[p.Taking("hold_to").Ground] = true, true
	}
	return slices.Sorted(maps.Keys(numbers))
}

// needed names what was needed otherwise when a step was read, or when its test was closed.
func (st *Tested) needed(a *unit.Attempt, p *unit.Point) (out []string) {
	numbers := append(grounds(&family.Test{}, p), a.Ground)
	for _, n := range numbers {
		g := st.Unit.Ground(n)
		if g == nil {
			continue
		}
		for _, key := range differ(g.Stood, st.stands) {
			if s := entry.StandingOf(key); s.Moves == entry.MovesNeed {
				if words := st.movedWords(s, g.Stood[key], st.stands[key]); !slices.Contains(out, words) {
					out = append(out, words)
				}
			}
		}
	}
	return out[:min(len(out), mostMoved)]
}

// differ gives the keys under which two grounds say otherwise, in order.
func differ(a, b map[string]string) (out []string) {
	for key, v := range a {
		if b[key] != v {
			out = append(out, key)
		}
	}
	for key := range b {
		if _, both := a[key]; !both {
			out = append(out, key)
		}
	}
	slices.Sort(out)
	return out
}

// restsOn reports that what a step shows rests on a value of the ground.
func (st *Tested) restsOn(t *family.Test, s entry.Standing) bool {
	switch s.Moves {
	case entry.MovesUnit:
		return true
	case entry.MovesComplaint:
		return t.Code == family.ComplaintTest
	case entry.MovesPart:
		if t.Assembly == "" {
			return true
		}
		def, known := st.Family.PartByCode(s.Part)
		return !known || def.Assembly == t.Assembly
	}
	return false
}

func (st *Tested) movedWords(s entry.Standing, was, is string) string {
	name := s.Label
	if s.Part != "" {
		if p := st.Unit.Part(s.Part); p != nil {
			name = p.Name + ", " + strings.ToLower(s.Label)
		}
	}
	says := func(v string) string {
		if v == "" {
			return "not told"
		}
		return v
	}
	return name + " " + says(was) + ", now " + says(is)
}

// Counts is the attempt that a paper speaks of: the newest with figures of this unit, else the
// newest exercise; nil where nothing was read.
func (st *Tested) Counts() *Attempt {
	var exercise *Attempt
	for i := len(st.Attempts) - 1; i >= 0; i-- {
		a := st.Attempts[i]
		switch {
		case !slices.ContainsFunc(a.Attempt.Points, read):
		case a.Source != unit.SourceSimulated:
			return a
		case exercise == nil:
			exercise = a
		}
	}
	return exercise
}

// Claim gives what may be said of the unit after its test, and all that keeps it from being proved.
// Of one that was handed over it is what was said then.
func (st *State) Claim() (proof.Claim, []string) {
	if c, missing, then := st.said.claim(); then {
		return c, missing
	}
	t := proof.Trial{Claims: st.Claims, Unfitted: st.unfitted()}
	for _, a := range st.Attempts {
		t.Open = t.Open || !a.Closed && slices.ContainsFunc(a.Attempt.Points, read)
	}
	for _, station := range []string{"strip", "measure", "build", "prove"} {
		for _, s := range st.Stops[station] {
			switch {
			case s.Kind == unit.StopProved || s.Kind == unit.StopUnfitted:
			case s.Waived != nil:
				t.Stops = append(t.Stops, s.Text+" (waived: "+s.Waived.Reason+")")
			default:
				t.Stops = append(t.Stops, s.Text)
			}
		}
	}
	return t.Judge()
}

// Unsettled are the claims that are not shown and of which nobody said why that is not possible,
// in words.
func (st *Tested) Unsettled() (out []string) {
	for i := range st.Claims {
		if c := &st.Claims[i]; !c.Shown() && !c.Settled() {
			out = append(out, c.Says)
		}
	}
	return out
}

// Out reports that a step that was last read is out of its limits.
func (st *Tested) Out() bool {
	for _, s := range st.Shown {
		if s.NotHere == "" && s.Read && s.Judged.Verdict == metrology.Out {
			return true
		}
	}
	return false
}
