package explain

import (
	"cmp"
	"math"
	"slices"
)

// Machine is what was told at the machine, weighed over all causes at and away from the unit, before it is opened.
type Machine struct {
	Away  float64    // that it is settled at the machine: the unit is whole, or something is mended there first
	Sound float64    // that the unit itself is whole
	Lead  *Cause     // the likeliest on the likelier side
	Told  []Weight   // what was told, with the bits that it gives to away (above nought) or to the unit
	Asks  []Question // what was not answered, what tells most of whether it is opened first
}

// Question is asked at the machine, with what its answer promises to tell of whether the unit is opened.
type Question struct {
	Code string
	Bits float64
}

// evenly is how likely it is, before anything was told, that what is complained of is settled at the machine. What
// comes to a bench was taken off for a reason, and the priors are of that; at the machine nobody knows yet.
// Guidance of ours: as often as not.
const evenly = 0.5

// AtMachine weighs what was told before a unit is opened.
func (k *Knowledge) AtMachine(findings []Finding) Machine {
	c := k.weigh(findings)
	is := func(of func(*Cause) bool) []bool {
		out := make([]bool, len(c.hs))
		for i, h := range c.hs {
			out[i] = of(&k.Causes[h.a]) && (h.b < 0 || of(&k.Causes[h.b]))
		}
		return out
	}
	away := is(func(c *Cause) bool { return c.Machine != "" })
	sound := is(func(c *Cause) bool { return c.Machine == UnitSound })
	c.evenly(k, away)
	m := Machine{Away: share(c.p, away), Sound: share(c.p, sound)}
	best := 0.0
	for i := range k.Causes {
		if cause := &k.Causes[i]; (cause.Machine != "") == (m.Away >= half) && c.one[i] > best {
			best, m.Lead = c.one[i], cause
		}
	}
	for i, f := range c.facts {
		without := make([]float64, len(c.hs))
		for j, h := range c.hs {
			without[j] = c.logs[j] - math.Log(f.e.likelihood(c.rates[i].of(h), f.s))
		}
		rest := share(normalise(without), away)
		m.Told = append(m.Told, Weight{f.e, f.s, math.Log2(odds(m.Away) / math.Max(1e-300, odds(rest)))})
	}
	m.Asks = k.questions(c, away, m.Away)
	return m
}

// evenly weighs a case anew with both sides as likely before anything was told.
func (c *caseState) evenly(k *Knowledge, away []bool) {
	_, before := k.hypotheses()
	p := share(normalise(before), away)
	for i := range c.logs {
		if away[i] {
			c.logs[i] += math.Log(evenly / p)
		} else {
			c.logs[i] += math.Log((1 - evenly) / (1 - p))
		}
	}
	c.p = normalise(c.logs)
	c.spread = spreadOf(c.hs, c.p, len(k.Causes))
}

func share(p []float64, in []bool) (sum float64) {
	for i, v := range p {
		if in[i] {
			sum += v
		}
	}
	return sum
}

// questions are those that are asked at the machine and were not answered, by what their most telling answer promises
// of whether the trouble is away.
func (k *Knowledge) questions(c caseState, away []bool, p float64) (out []Question) {
	answered, tells := map[string]bool{}, map[string]float64{}
	for i := range k.Evidence {
		e := &k.Evidence[i]
		q := e.From.Gauge.To
		switch {
		case q == "":
		case c.known[e.Code]:
			answered[q] = true
		case c.makesSense(e):
			rates := k.rates(e)
			there, and := 0.0, 0.0
			for j, h := range c.hs {
				seen := c.p[j] * e.likelihood(rates.of(h), Seen)
				there += seen
				if away[j] {
					and += seen
				}
			}
			gain := binary(p) - there*binary(and/there) - (1-there)*binary((p-and)/(1-there))
			tells[q] = max(tells[q], gain)
		}
	}
	for q, bits := range tells {
		if !answered[q] {
			out = append(out, Question{q, bits})
		}
	}
	slices.SortFunc(out, func(a, b Question) int {
		return cmp.Or(cmp.Compare(b.Bits, a.Bits), cmp.Compare(a.Code, b.Code))
	})
	return out
}
