package explain

import (
	"math"
	"slices"
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
		if q := e.question(); q != "" && e.From.Symptom == "" { // a complaint is less than the answer on a gauge
			groups[q] = append(groups[q], e)
			answered[q] = answered[q] || c.known[e.Code]
		}
	}
	links := k.openLinks(c)
	var out []Check
	for i := range k.Evidence {
		e := &k.Evidence[i]
		q := e.question()
		group := groups[q]
		if e.From.Symptom != "" && e.At == Asked { // comes with the complaint, and is not asked for
			continue
		}
		if c.known[e.Code] || !at.Can(e) || !c.makesSense(e) || q != "" && (answered[q] || group[0] != e) {
			continue
		}
		check := Check{Evidence: e, Minutes: at.Cost(e), Opens: way[e.At] > way[at.Reached]}
		check.link, check.Closes = closing(links, e, group)
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
	return closedFirst(out, c.sum[highest(c.sum)] >= asGoodAsSure, c.lookedAt())
}

// closedFirst puts what closes the story that stands before what parts it from the others: two looks of the one, then
// one of the other, so that a story is neither left open nor believed unasked; where it is as good as sure, three.
func closedFirst(checks []Check, sure, looked bool) (out []Check) {
	var closing, parting []Check
	for _, c := range checks {
		if c.Closes && (sure || !c.Opens) {
			closing = append(closing, c)
		} else {
			parting = append(parting, c)
		}
	}
	sort.SliceStable(closing, func(a, b int) bool {
		if closing[a].link != closing[b].link {
			return closing[a].link > closing[b].link
		}
		return closing[a].shows() > closing[b].shows()
	})
	if looked {
		parting = oneCall(parting)
	}
	most := 2
	if sure {
		most = 3
	}
	for len(closing) > 0 || len(parting) > 0 {
		n := min(most, len(closing))
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

// closes is how much oftener a cause leaves a mark than it is there by itself, where the mark shows its story.
const closes = 6

// storyStands is from where a story is closed before others are parted: likelier than all of them together.
const storyStands = 0.5

// asGoodAsSure is from where what parts it from others can wait.
const asGoodAsSure = 0.9

// lookedAt reports that something was looked at, and not only asked.
func (c caseState) lookedAt() bool {
	return slices.ContainsFunc(c.facts, func(f fact) bool { return f.e.At != Asked })
}

// oneCall keeps what is asked of the caller from filling the list once the unit lies on the bench: between two
// questions comes a look, for he is asked all of them in one call.
func oneCall(checks []Check) (out []Check) {
	var asked, looks []Check
	for _, c := range checks {
		if c.Evidence.At == Asked {
			asked = append(asked, c)
		} else {
			looks = append(looks, c)
		}
	}
	for len(asked) > 0 && len(looks) > 0 {
		if asked[0].worth() > looks[0].worth() {
			out, asked = append(out, asked[0]), asked[1:]
		}
		out, looks = append(out, looks[0]), looks[1:]
	}
	return append(append(out, asked...), looks...)
}

// closing tells how near the root a look closes the story, by any of the marks that it tells apart.
func closing(links map[string]int, e *Evidence, group []*Evidence) (link int, closes bool) {
	if at, is := links[e.Code]; is {
		link, closes = at, true
	}
	for _, o := range group {
		if at, is := links[o.Code]; is {
			link, closes = max(link, at), true
		}
	}
	return link, closes
}

// shows is how plainly a look shows the story that stands, a minute: what hardly anything else leaves shows it best.
func (c Check) shows() float64 { return -math.Log2(c.Evidence.Background.P()) / c.Minutes }

// openLinks are the marks by which the story of the cause that leads would be shown where it is not, with how near
// each is to the root: the links of its chain that nobody saw, the last the nearest, and at nought the other marks of
// a link that one mark shows and what it leaves and hardly anything else does. None where no story stands.
func (k *Knowledge) openLinks(c caseState) map[string]int {
	lead := highest(c.sum)
	if c.sum[lead] < storyStands {
		return nil
	}
	out := map[string]int{}
	for code, w := range k.Causes[lead].Points {
		e, known := k.EvidenceByCode(code)
		if known && w.P() >= Word("sometimes").P() && w.P() >= closes*e.Background.P() && k.own(e) {
			out[e.Code] = 0
		}
	}
	for i, l := range k.Chain(&k.Causes[lead], c.findings()) {
		near := i + 1
		if len(l.Shown) > 0 {
			near = 0
		}
		for _, code := range k.Causes[lead].Chain[i].Cites {
			if e, known := k.EvidenceByCode(code); known && !c.known[e.Code] {
				out[e.Code] = max(near, out[e.Code])
			}
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
