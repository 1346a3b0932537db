package search

import "slices"

// belief is how likely each one trouble, and each two, are in the unit, as far as one step of the test tells. State
// (a, b) with a < b are two of them, (a, n) is one, (n, n) none.
type belief struct {
	troubles []Trouble
	p        []float64 // by at(a, b)
}

// two is how often two troubles show at one step; they meet in one sub-assembly so much sooner than elsewhere.
const (
	two  = 0.2
	near = 4
)

// meet is how much speaks for two troubles at once.
func meet(a, b Trouble) float64 {
	w := a.Weight * b.Weight
	if a.Within != "" && a.Within == b.Within && a.Part != b.Part {
		return near * w
	}
	return w
}

// believe is what is thought before anything was tried at a step that is out.
func believe(troubles []Trouble) *belief {
	b := &belief{troubles: slices.Clone(troubles)}
	sum, pairs := 0.0, 0.0
	for i, t := range troubles {
		sum += t.Weight
		for _, o := range troubles[:i] {
			pairs += meet(t, o)
		}
	}
	n := len(troubles)
	b.p = make([]float64, (n+1)*(n+1))
	if sum <= 0 {
		return b
	}
	for i, t := range troubles {
		b.p[b.at(i, n)] = t.Weight / sum
		if pairs <= 0 {
			continue
		}
		b.p[b.at(i, n)] *= 1 - two
		for j := i + 1; j < n; j++ {
			b.p[b.at(i, j)] = two * meet(t, troubles[j]) / pairs
		}
	}
	return b
}

// sound is the belief that nothing is wrong, as after a step that came right.
func sound(troubles []Trouble) *belief {
	n := len(troubles)
	b := &belief{troubles: slices.Clone(troubles), p: make([]float64, (n+1)*(n+1))}
	b.p[b.at(n, n)] = 1
	return b
}

func (b *belief) at(i, j int) int { return i*(len(b.troubles)+1) + j }

// seen is how likely each outcome is by what became of the troubles that show: none is left, there are fewer than
// before, as many, or more. What hides a fault makes the step right in every other case all the same.
var seen = map[change]map[Outcome]float64{
	gone:  {Right: 0.94, Better: 0.03, Same: 0.02, Worse: 0.01},
	fewer: {Right: 0.02, Better: 0.70, Same: 0.25, Worse: 0.03},
	alike: {Right: 0.02, Better: 0.06, Same: 0.86, Worse: 0.06},
	more:  {Right: 0.02, Better: 0.03, Same: 0.40, Worse: 0.55},
}

type change int

const (
	gone change = iota
	fewer
	alike
	more
)

const hidden = 0.5

// effect is what the changes of an attempt do to each trouble.
type effect struct {
	cure, ease []float64
	fresh      []float64 // how likely it is new by what was done
	mask       bool
	figures    bool
	p          [4]float64 // of the outcome that is looked at, by what became of the troubles
}

// at is the effect with an outcome looked at.
func (e effect) at(o Outcome) effect {
	for c := gone; c <= more; c++ {
		e.p[c] = e.likely(c, o)
	}
	return e
}

func (b *belief) effect(moves []Move, figures bool) effect {
	n := len(b.troubles)
	e := effect{cure: make([]float64, n), ease: make([]float64, n), fresh: make([]float64, n), figures: figures}
	sum, weight := 0.0, 0.0
	for i, t := range b.troubles {
		weight += t.Weight
		stays, strained := 1.0, 1.0
		for _, m := range moves {
			stays *= 1 - m.cures(t)
			strained *= 1 - m.eases(t)
			e.mask = e.mask || m.Kind == Mask
			e.fresh[i] = max(e.fresh[i], m.brings(t))
		}
		e.cure[i], e.ease[i] = 1-stays, 1-strained
		sum += e.fresh[i]
	}
	for i := range e.fresh {
		if sum > 0 {
			e.fresh[i] *= byJob / sum
		}
		e.fresh[i] += itself * b.troubles[i].Weight / weight
	}
	return e
}

// brings is how likely a trouble comes by a change, against others: a new fault is oftenest in what was changed, and
// not always; what came off for it and went back may lie wrong.
func (m Move) brings(t Trouble) float64 {
	touched := m.Kind != Nothing && m.Kind != Mask && m.Kind != Loosen
	switch {
	case !touched || t.Part == "":
		return 0
	case t.Part == m.Part && t.Way == Seat:
		return 4
	case t.Part == m.Part:
		return 1
	case slices.Contains(m.Off, t.Part) && t.Way == Seat:
		return 2
	case slices.Contains(m.Off, t.Part):
		return 0.5
	}
	return 0
}

// likely is how likely an outcome is by what became of the troubles.
func (e effect) likely(c change, o Outcome) float64 {
	by := seen[c]
	p := by[o]
	if !e.figures && o == Same {
		p = by[Better] + by[Same] + by[Worse]
	}
	switch {
	case !e.mask || c == gone:
		return p
	case o == Right:
		return hidden + (1-hidden)*p
	}
	return (1 - hidden) * p
}

// look sums the likelihood of an outcome over which of the troubles that are left show; left holds at most two, and
// less tells that some were cured, grown that a new one came. The outcome is the one looked at.
func (e effect) look(left []int, less, grown bool) float64 {
	switch len(left) {
	case 0:
		return e.p[gone]
	case 1:
		is := alike
		if grown {
			is = more
		} else if less {
			is = fewer
		}
		h := e.ease[left[0]]
		return h*e.p[gone] + (1-h)*e.p[is]
	}
	is := alike
	if grown {
		is = more
	}
	h, g := e.ease[left[0]], e.ease[left[1]]
	one := h*(1-g) + g*(1-h)
	return h*g*e.p[gone] + one*e.p[fewer] + (1-h)*(1-g)*e.p[is]
}

// never is what is so unlikely that it is not followed.
const never = 1e-12

// turn is what an outcome makes of a belief.
type turn struct {
	next   *belief
	p      float64   // how likely the outcome was
	healed []float64 // how likely each trouble was there and is cured
	stayed []float64 // and how likely it was there and is still
}

// after is the belief once an attempt came out so.
func (b *belief) after(e effect, o Outcome) turn { return b.turned(e.at(o)) }

// unread is the belief after changes whose step was not read: what they cured is cured all the same.
func (b *belief) unread(e effect) turn {
	e.p = [4]float64{1, 1, 1, 1}
	return b.turned(e)
}

// turned is the belief after changes, with the outcome that the effect looks at. Each trouble is cured or not by
// itself; a new one comes at most to one that is left.
func (b *belief) turned(e effect) turn {
	n := len(b.troubles)
	out := turn{next: &belief{troubles: b.troubles, p: make([]float64, len(b.p))}, healed: make([]float64, n),
		stayed: make([]float64, n)}
	arrives := 0.0
	for _, f := range e.fresh {
		arrives += f
	}
	add := func(p float64, left []int, cured ...int) {
		put := func(p float64, s []int) {
			out.next.p[b.state(s)] += p
			out.p += p
			for _, t := range cured {
				out.healed[t] += p
			}
			for _, t := range left {
				out.stayed[t] += p
			}
		}
		if p < never {
			return
		}
		less := len(cured) > 0
		if len(left) == 2 {
			put(p*e.look(left, less, false), left)
			return
		}
		put(p*(1-arrives)*e.look(left, less, false), left)
		for t, f := range e.fresh {
			if slices.Contains(left, t) {
				put(p*f*e.look(left, less, false), left)
				continue
			}
			with := append(slices.Clone(left), t)
			put(p*f*e.look(with, less, true), with)
		}
	}
	for i := range n + 1 {
		for j := i; j <= n; j++ {
			p := b.p[b.at(i, j)]
			switch {
			case p < never:
			case i == n:
				add(p, nil)
			case j == n:
				add(p*(1-e.cure[i]), []int{i})
				add(p*e.cure[i], nil, i)
			default:
				add(p*(1-e.cure[i])*(1-e.cure[j]), []int{i, j})
				add(p*e.cure[i]*(1-e.cure[j]), []int{j}, i)
				add(p*(1-e.cure[i])*e.cure[j], []int{i}, j)
				add(p*e.cure[i]*e.cure[j], nil, i, j)
			}
		}
	}
	if out.p > 0 {
		for _, v := range [][]float64{out.next.p, out.healed, out.stayed} {
			for i := range v {
				v[i] /= out.p
			}
		}
	}
	return out
}

// state is the place of at most two troubles.
func (b *belief) state(s []int) int {
	n := len(b.troubles)
	switch len(s) {
	case 0:
		return b.at(n, n)
	case 1:
		return b.at(s[0], n)
	}
	return b.at(min(s[0], s[1]), max(s[0], s[1]))
}

// shares are how likely each trouble is there, alone or beside another.
func (b *belief) shares() []float64 {
	n := len(b.troubles)
	out := make([]float64, n)
	for i := range n {
		for j := i + 1; j <= n; j++ {
			p := b.p[b.at(i, j)]
			out[i] += p
			if j < n {
				out[j] += p
			}
		}
	}
	return out
}

// ofPart is how likely some trouble lies in a part; two in one part count once.
func (b *belief) ofPart(in func(Trouble) bool) (p float64) {
	n := len(b.troubles)
	for i := range n {
		for j := i + 1; j <= n; j++ {
			if in(b.troubles[i]) || j < n && in(b.troubles[j]) {
				p += b.p[b.at(i, j)]
			}
		}
	}
	return p
}
