package explain

import (
	"math"
	"sort"
)

// next lists what was not looked at and can be, by the information it promises a
// minute. Marks that one look tells apart come as one check.
func (k *Knowledge) next(c caseState) []Check {
	at := k.where()
	roots := k.roots(c)
	groups := map[string][]*Evidence{}
	answered := map[string]bool{}
	for i := range k.Evidence {
		e := &k.Evidence[i]
		if q := e.question(); q != "" && e.From.Symptom == "" { // a complaint tells less than the question
			groups[q] = append(groups[q], e)
			answered[q] = answered[q] || c.known[e.Code]
		}
	}
	closes := k.openLinks(c)
	var out []Check
	for i := range k.Evidence {
		e := &k.Evidence[i]
		q := e.question()
		group := groups[q]
		if e.From.Symptom != "" && e.At == Asked { // comes with the complaint, and is not asked for
			continue
		}
		if c.known[e.Code] || !at.can(e) || !c.makesSense(e) || q != "" && (answered[q] || group[0] != e) {
			continue
		}
		check := Check{Evidence: e, Minutes: at.cost(e), Closes: closes[e.Code]}
		var gain func(caseState) float64
		if len(group) > 1 {
			check.Or, gain = group[1:], k.oneOf(group).gain
		} else {
			gain = k.expectedGain(e)
		}
		check.Information = gain(c)
		check.Rate = check.Information / check.Minutes
		if roots.left > 0 {
			check.Rate = (roots.left*check.Information + (1-roots.left)*gain(roots.caseState)) / check.Minutes
		}
		out = append(out, check)
	}
	sort.SliceStable(out, func(a, b int) bool { return out[a].worth() > out[b].worth() })
	return closedFirst(out)
}

// closedFirst puts what closes the story that stands before what parts it from the others: two looks of the one, then
// one of the other, so that a story is neither left open nor believed unasked.
func closedFirst(checks []Check) (out []Check) {
	var closing, parting []Check
	for _, c := range checks {
		if c.Closes {
			closing = append(closing, c)
		} else {
			parting = append(parting, c)
		}
	}
	sort.SliceStable(closing, func(a, b int) bool { return closing[a].shows() > closing[b].shows() })
	for len(closing) > 0 || len(parting) > 0 {
		n := min(2, len(closing))
		out, closing = append(out, closing[:n]...), closing[n:]
		n = min(1, len(parting))
		out, parting = append(out, parting[:n]...), parting[n:]
	}
	return out
}

// roots is a case without the causes that are named only when nothing else explains it,
// and how likely these are. What tells between roots is looked at before what says
// again that it is old: fair wear is what is left when they were looked for.
type rootCase struct {
	caseState
	left float64
}

func (k *Knowledge) roots(c caseState) rootCase {
	r := rootCase{caseState: c}
	r.p = make([]float64, len(c.p))
	leftOver := func(i int) bool { return i >= 0 && k.Causes[i].LeftOver }
	sum := 0.0
	for i, h := range c.hs {
		if leftOver(h.a) || leftOver(h.b) {
			r.left += c.p[i]
			continue
		}
		r.p[i] = c.p[i]
		sum += c.p[i]
	}
	if r.left == 0 || sum < 1e-9 {
		return rootCase{caseState: c}
	}
	for i := range r.p {
		r.p[i] /= sum
	}
	r.spread = spreadOf(r.hs, r.p, len(k.Causes))
	return r
}

// spoils is what is left of a check's worth when it spoils what others would
// look at: it must tell twice as much a minute to come first.
const spoils = 0.5

// asking is how much more a question to the caller is worth than a look that tells as
// much a minute: nothing is moved by it, and he may not be reached tomorrow.
const asking = 1.5

func (c Check) worth() float64 {
	worth := c.Rate
	switch {
	case c.Evidence.Destroys:
		return spoils * worth
	case c.Evidence.At == Asked:
		return asking * worth
	}
	return worth
}

// storyStands is from where a story is closed before others are parted: likelier than all of them together.
const storyStands = 0.5

// shows is how plainly a look shows the story that stands, a minute: what hardly anything else leaves shows it best.
func (c Check) shows() float64 { return -math.Log2(c.Evidence.Background.P()) / c.Minutes }

// openLinks are the marks by which the story of the cause that leads would be shown where it is not: what its chain
// cites, and what it leaves as a rule and hardly anything else does; none where no story stands.
func (k *Knowledge) openLinks(c caseState) map[string]bool {
	lead := highest(c.sum)
	if c.sum[lead] < storyStands {
		return nil
	}
	var findings []Finding
	for _, f := range c.facts {
		findings = append(findings, Finding{f.e.Code, f.s})
	}
	out := map[string]bool{}
	for _, e := range k.ToClose(&k.Causes[lead], findings) {
		out[e.Code] = true
	}
	for code, w := range k.Causes[lead].Points {
		e, known := k.EvidenceByCode(code)
		if known && w.P() >= Word("usual").P() && e.Background.P() <= Word("seldom").P() && k.own(e) {
			out[e.Code] = true
		}
	}
	return out
}

// own reports a mark that few causes leave: what every trouble is asked of closes no story.
func (k *Knowledge) own(e *Evidence) bool { return 2*k.spoken(e) <= len(k.Causes) }

// expectedGain is the mutual information between the hypotheses and the outcome
// of looking: the entropy of the outcome less what is left of it when the
// hypothesis is known. Both sums are exact. It is a function of the case, so that what
// does not depend on the case is worked out once.
func (k *Knowledge) expectedGain(e *Evidence) func(caseState) float64 {
	rates := k.rates(e)
	q := rates.values(func(rate float64) float64 { return e.likelihood(rate, Seen) }) // the eye may slip
	left := rates.values(func(rate float64) float64 { return binary(e.likelihood(rate, Seen)) })
	return func(c caseState) float64 { return math.Max(0, binary(c.mean(&q))-c.mean(&left)) }
}
