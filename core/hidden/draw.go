package hidden

import (
	"math/rand/v2"

	"corvek/core/bench"
	"corvek/core/explain"
)

// draw is one case as it is drawn: what is wrong, and which marks that left.
type draw struct {
	r     *rand.Rand
	shop  *Shop
	st    *bench.State // a sound unit of the family
	k     *explain.Knowledge
	kind  string
	roots []*explain.Cause
	there map[string]bool // marks that are there, by code
}

// fits reports that a cause makes a case of the kind.
func (d *draw) fits(c *explain.Cause) bool {
	switch {
	case c.LeftOver:
		return false
	case d.kind == Away:
		return c.Where == "outside" || c.Machine != ""
	case d.kind == Earlier:
		return c.Where == "assembly"
	}
	return c.Machine == ""
}

// causes draws what is wrong. What seldom happens is drawn as often as the rest: it is what nobody has met yet.
func (d *draw) causes() bool {
	var all []*explain.Cause
	for i := range d.k.Causes {
		if c := &d.k.Causes[i]; d.fits(c) {
			all = append(all, c)
		}
	}
	n := 1
	if d.kind == Two {
		n = 2
	}
	if len(all) < n {
		return false
	}
	d.r.Shuffle(len(all), func(a, b int) { all[a], all[b] = all[b], all[a] })
	d.roots = all[:n]
	return true
}

// rate is how often a mark is there where these are the roots, and whether one of them speaks of it.
func (d *draw) rate(e *explain.Evidence) (p float64, speaks bool) {
	not := 1.0
	for _, c := range d.roots {
		if w, says := c.Points[e.Code]; says {
			not *= 1 - w.P()
			speaks = true
		}
	}
	return 1 - not, speaks
}

// astray is how many signs stand beside the trouble and have nothing to do with it.
const astray = 3

// marks draws what the trouble left. What none of the roots speaks of is not there, but for a few signs that lead
// astray where the case is to have them.
func (d *draw) marks() {
	d.there = map[string]bool{}
	var beside []string
	for i := range d.k.Evidence {
		e := &d.k.Evidence[i]
		p, speaks := d.rate(e)
		if e.From.Work != "" { // nothing was done yet
			continue
		}
		if speaks {
			d.there[e.Code] = d.r.Float64() < p
			continue
		}
		if d.leads(e) {
			beside = append(beside, e.Code)
		}
	}
	d.oneAnswer()
	d.complain()
	if d.kind == Own || d.kind == Two {
		return
	}
	d.r.Shuffle(len(beside), func(a, b int) { beside[a], beside[b] = beside[b], beside[a] })
	for _, code := range beside[:min(astray, len(beside))] {
		d.there[code] = true
	}
}

// oneAnswer keeps what is told by one question from contradicting itself: of marks that were drawn together those stay
// that the roots leave as often as not, else the likeliest.
func (d *draw) oneAnswer() {
	drawn := map[string][]*explain.Evidence{}
	for i := range d.k.Evidence {
		if e := &d.k.Evidence[i]; e.Question != "" && d.there[e.Code] {
			drawn[e.Question] = append(drawn[e.Question], e)
		}
	}
	for _, list := range drawn {
		best, most := list[0], 0.0
		for _, e := range list {
			if p, _ := d.rate(e); p > most {
				best, most = e, p
			}
		}
		for _, e := range list {
			p, _ := d.rate(e)
			d.there[e.Code] = e == best || p >= 0.5
		}
	}
}

// leads reports a mark that may stand beside any trouble: one that is on many a machine, and breaks nothing.
func (d *draw) leads(e *explain.Evidence) bool {
	return !e.BreakUp && !e.Good && e.Background.P() >= explain.Word("seldom").P() && e.From.Symptom == "" &&
		e.From.Missing == "" && e.From.Work == "" && e.From.Efficiency == "" && e.From.Step == ""
}

// complain sees to it that something is complained of: nobody sends a unit in for nothing. It is what the trouble
// brings most often; where it says nothing of that, whatever a unit of the family is complained of.
func (d *draw) complain() {
	var told []*explain.Evidence
	for i := range d.k.Evidence {
		if e := &d.k.Evidence[i]; e.From.Symptom != "" {
			if d.there[e.Code] {
				return
			}
			told = append(told, e)
		}
	}
	if len(told) == 0 {
		return
	}
	best, most := told[d.r.IntN(len(told))], 0.0
	for _, e := range told {
		if p, speaks := d.rate(e); speaks && p > most {
			best, most = e, p
		}
	}
	d.there[best.Code] = true
}
