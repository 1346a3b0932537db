package search

import (
	"math"

	"corvek/core/metrology"
)

// Candidate is a change that could be made, with the minutes of the work and of the test after it.
type Candidate struct {
	Move
	Minutes float64
}

// Advice is the change that tells most of what is left for the least work.
type Advice struct {
	Candidate
	Bits  float64             // what it promises to tell
	After map[Outcome]Guessed // what each outcome would leave
}

// Guessed is where an outcome would point: how likely it comes, and the part that leads then.
type Guessed struct {
	Chance float64
	Part   string
	P      float64
}

// faint is a part that nobody would change: it hardly bears anything.
const faint = 0.02

// Advise names the change that splits what is left of a step best a minute; ok is false where nothing does. All
// outcomes are worked through over everything that may be wrong.
func (s *Search) Advise(code string, of []Candidate) (best Advice, ok bool) {
	at := s.steps[code]
	if at == nil || at.base.Verdict != metrology.Out {
		return best, false
	}
	b := at.belief
	rate, shares := 0.0, b.shares()
	for _, c := range of {
		if !b.concerns(c.Move, shares) {
			continue
		}
		bits := b.tells(c.Move, at.base.Told)
		if bits/c.Minutes > rate*(1+1e-9) {
			rate, best, ok = bits/c.Minutes, Advice{Candidate: c, Bits: bits}, true
		}
	}
	if ok {
		best.After = b.outcomes(best.Move, at.base.Told)
	}
	return best, ok
}

// concerns reports that a change touches what may well be wrong.
func (b *belief) concerns(m Move, shares []float64) bool {
	sum := 0.0
	for i, t := range b.troubles {
		if m.cures(t) > 0 || m.eases(t) > 0 {
			sum += shares[i]
		}
	}
	return sum >= faint
}

// rare is what is true so seldom that no advice follows from it.
const rare = 1e-4

// tells is the mutual information between what is wrong and how a step comes out after a change, in bits.
func (b *belief) tells(m Move, figures bool) float64 {
	var effects []effect
	for _, o := range Outcomes {
		effects = append(effects, b.effect([]Move{m}, figures).at(o))
	}
	all, by, given, sum := make([]float64, len(Outcomes)), make([]float64, len(Outcomes)), 0.0, 0.0
	n := len(b.troubles)
	for i := range n + 1 {
		for j := i; j <= n; j++ {
			p := b.p[b.at(i, j)]
			if p < rare {
				continue
			}
			sum += p
			b.chances(effects, i, j, by)
			for k, q := range by {
				all[k] += p * q
			}
			given += p * bits(by)
		}
	}
	if sum == 0 {
		return 0
	}
	return math.Max(0, bits(all)-given/sum)
}

// chances are those of the outcomes where a state is true, what a change may bring anew left out.
func (b *belief) chances(by []effect, i, j int, out []float64) {
	n := len(b.troubles)
	for k, e := range by {
		switch {
		case !e.figures && (Outcomes[k] == Better || Outcomes[k] == Worse): // told by figures alone
			out[k] = 0
		case i == n:
			out[k] = e.p[gone]
		case j == n:
			out[k] = (1-e.cure[i])*e.look([]int{i}, false, false) + e.cure[i]*e.p[gone]
		default:
			out[k] = (1-e.cure[i])*(1-e.cure[j])*e.look([]int{i, j}, false, false) +
				e.cure[i]*(1-e.cure[j])*e.look([]int{j}, true, false) +
				(1-e.cure[i])*e.cure[j]*e.look([]int{i}, true, false) + e.cure[i]*e.cure[j]*e.p[gone]
		}
	}
}

func bits(p []float64) (h float64) {
	sum := 0.0
	for _, v := range p {
		sum += v
	}
	for _, v := range p {
		if v > 0 {
			h -= v / sum * math.Log2(v/sum)
		}
	}
	return h
}

// outcomes tells where each outcome of a change would point.
func (b *belief) outcomes(m Move, figures bool) map[Outcome]Guessed {
	out := map[Outcome]Guessed{}
	e := b.effect([]Move{m}, figures)
	sum := 0.0
	for _, o := range Outcomes {
		if !figures && (o == Better || o == Worse) {
			continue
		}
		turn := b.after(e, o)
		sum += turn.p
		g := Guessed{Chance: turn.p}
		shares := turn.next.shares()
		if o == Right && m.Kind != Loosen {
			shares = turn.healed
		}
		by := map[string]float64{}
		for i, t := range b.troubles {
			by[t.Part] += shares[i]
			if v := by[t.Part]; v > g.P {
				g.Part, g.P = t.Part, math.Min(1, v)
			}
		}
		out[o] = g
	}
	for o, g := range out {
		g.Chance /= sum
		out[o] = g
	}
	return out
}
