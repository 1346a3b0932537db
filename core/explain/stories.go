package explain

import (
	"math"
	"slices"
	"sort"
)

// Story is one way to tell a case: one root cause, or two that met.
type Story struct {
	Causes    []*Cause
	Posterior float64
	Answered  []*Evidence // what it explains of what was seen
	Open      []Misfit    // what it must still answer
}

// apart is from how likely on a telling with the other number of events is laid beside the likeliest.
const apart = 0.02

// Stories are two ways to tell the case: the likeliest, and the likeliest with the other number of events, one
// where it is two and two where it is one; where that is hardly possible, the next likeliest. With them comes the
// fact that decides between them: not looked at yet, to be looked at where the unit is, and most unlike under the
// two. A story alone has no decider.
func (k *Knowledge) Stories(findings []Finding) (stories []Story, decider *Evidence) {
	c := k.weigh(findings)
	if len(c.facts) == 0 {
		return nil, nil
	}
	order := make([]int, len(c.hs))
	for i := range order {
		order[i] = i
	}
	sort.SliceStable(order, func(a, b int) bool { return c.p[order[a]] > c.p[order[b]] })
	if len(order) > 1 {
		one := func(i int) bool { return c.hs[i].b < 0 }
		other := slices.IndexFunc(order, func(i int) bool { return one(i) != one(order[0]) && c.p[i] >= apart })
		if other > 1 {
			order[1] = order[other]
		}
	}
	for _, i := range order[:min(2, len(order))] {
		stories = append(stories, k.story(c, c.hs[i], c.p[i]))
	}
	if len(stories) < 2 {
		return stories, nil
	}
	at := k.where()
	best := 0.05 // a fact that hardly differs decides nothing
	for i := range k.Evidence {
		e := &k.Evidence[i]
		if c.known[e.Code] || !at.Can(e) || !c.makesSense(e) || e.From.Symptom != "" && e.At == Asked {
			continue
		}
		p, q := k.rate(c.hs[order[0]], e), k.rate(c.hs[order[1]], e)
		// Jeffreys' divergence: how far apart the two say this mark should be.
		if d := (p - q) * math.Log2((p*(1-q))/(q*(1-p))); d > best {
			best, decider = d, e
		}
	}
	return stories, decider
}

// Neither is what was seen and none of the stories explains, in the order it was told.
func (k *Knowledge) Neither(stories []Story, findings []Finding) (out []*Evidence) {
	for _, f := range findings {
		e, known := k.EvidenceByCode(f.Code)
		if !known || !f.Likely() || len(stories) == 0 {
			continue
		}
		told := slices.ContainsFunc(stories, func(s Story) bool { return slices.Contains(s.Answered, e) })
		if !told && !slices.Contains(out, e) {
			out = append(out, e)
		}
	}
	return out
}

func (k *Knowledge) story(c caseState, h hypothesis, p float64) Story {
	s := Story{Posterior: p, Causes: []*Cause{&k.Causes[h.a]}}
	if h.b >= 0 {
		s.Causes = append(s.Causes, &k.Causes[h.b])
	}
	for _, f := range c.facts {
		rate := k.rate(h, f.e)
		if f.s > 0.5 && rate > f.e.Background.P() {
			s.Answered = append(s.Answered, f.e)
		}
		if m, is := misfit(f, rate); is {
			s.Open = append(s.Open, m)
		}
	}
	return s
}

// Turn is a finding that would put another cause in front.
type Turn struct {
	Evidence *Evidence
	Seen     bool    // the outcome that would do it
	Chance   float64 // of that outcome
	To       *Cause
	By       float64 // its probability then
}

// WouldChange lists what would change our mind: outcomes of looking that put
// another cause in front, the likeliest first.
func (k *Knowledge) WouldChange(findings []Finding, most int) []Turn {
	c := k.weigh(findings)
	if len(c.facts) == 0 {
		return nil
	}
	leader := c.first()
	var out []Turn
	for i := range k.Evidence {
		e := &k.Evidence[i]
		if c.known[e.Code] {
			continue
		}
		rates := k.rates(e)
		for _, seen := range []bool{true, false} {
			outcome := rates.values(func(rate float64) float64 {
				if q := e.likelihood(rate, Seen); seen {
					return q
				} else {
					return 1 - q
				}
			})
			m, mass := c.times(&outcome)
			if to := highest(m); to != leader && mass > 0 {
				out = append(out, Turn{e, seen, mass, &k.Causes[to], m[to] / mass})
			}
		}
	}
	sort.SliceStable(out, func(a, b int) bool { return out[a].Chance > out[b].Chance })
	return k.turned(findings, out, leader, most)
}

// turned keeps the turns that come out so once the case is weighed with the answer in it.
func (k *Knowledge) turned(findings []Finding, turns []Turn, leader, most int) (out []Turn) {
	for _, t := range turns {
		if len(out) == most {
			break
		}
		strength := Absent
		if t.Seen {
			strength = Seen
		}
		by := k.weigh(append(findings[:len(findings):len(findings)], Finding{t.Evidence.Code, strength}))
		if to := by.first(); to != leader {
			t.To, t.By = &k.Causes[to], by.one[to]
			out = append(out, t)
		}
	}
	return out
}

func highest(v []float64) int {
	at := 0
	for i := range v {
		if v[i] > v[at] {
			at = i
		}
	}
	return at
}
