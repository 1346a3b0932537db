package explain

import (
	"math"
	"slices"
	"sort"
	"strings"
)

// Finding is one item of evidence as far as it is known. Strength runs from 0
// (looked for and certainly absent) over 0.5 (cannot say) to 1 (certainly seen).
type Finding struct {
	Code     string
	Strength float64
}

// Sure strengths of a finding made by eye. They leave room for a slip.
const (
	Seen   = 0.98
	Absent = 0.02
)

// Told says what a strength comes to: seen, absent, or partly where it is neither.
func Told(strength float64) string {
	switch {
	case strength > 0.7:
		return "seen"
	case strength < 0.3:
		return "absent"
	}
	return "partly"
}

// Likely reports that the mark is there rather than not.
func (f Finding) Likely() bool { return f.Strength > 0.5 }

// StrengthOfUse turns the used share of an allowance into the strength of the
// mark "worn": half-way at the limit itself, near certain at half as much again.
func StrengthOfUse(used float64) float64 {
	return math.Min(Seen, math.Max(Absent, used-0.5))
}

// StrengthOfGrade turns a grade by touch (0 polished to 4 step) into a strength.
func StrengthOfGrade(grade int) float64 {
	steps := []float64{Absent, 0.15, 0.5, 0.85, Seen}
	return steps[max(0, min(grade, len(steps)-1))]
}

// StrengthOfShortfall turns a volumetric efficiency and the one accepted into
// the strength of "delivers too little": even odds at the limit, near certain
// one tenth below it.
func StrengthOfShortfall(efficiency, accepted float64) float64 {
	return math.Min(Seen, math.Max(Absent, 0.5+(accepted-efficiency)/0.2))
}

// StrengthOfSight is how much a mark counts that was seen: less when nobody
// knows where it comes from, less when it was only seen after wiping or freeing.
func StrengthOfSight(origin, foundHow string) float64 {
	s := Seen
	if origin == "unknown" {
		s = 0.80
	}
	if foundHow == "after_wiping" || foundHow == "after_freeing" {
		s = math.Min(s, 0.85)
	}
	return s
}

// Weight is what one finding says for (positive) or against a cause, in bits:
// the base-2 logarithm of the factor by which it changes the cause's odds.
type Weight struct {
	Evidence    *Evidence
	Strength    float64
	Information float64
}

// Force says in a word how much the finding speaks: a factor of four on the odds is
// strongly, one and a half clearly.
func (w Weight) Force() string {
	switch bits := math.Abs(w.Information); {
	case bits >= 2:
		return "strongly"
	case bits >= 0.6:
		return "clearly"
	}
	return "somewhat"
}

// Factor is what the finding multiplies or divides the odds by.
func (w Weight) Factor() float64 { return math.Exp2(math.Abs(w.Information)) }

// Text is the finding in words: what was looked for and not found says so, for a
// cause as well as against it.
func (w Weight) Text() string {
	if w.Strength < 0.5 {
		return "absent: " + w.Evidence.Text
	}
	return w.Evidence.Text
}

// Ranked is a cause with its probability and the reasons. The probability is
// that it is a root cause, alone or together with another, so that the
// probabilities of all causes add to a little more than one.
type Ranked struct {
	Cause     *Cause
	Posterior float64
	Alone     float64  // that it is the only root cause; over all causes and pairs these add to one
	For       []Weight // strongest first
	Against   []Weight // strongest first
	Misfits   []Misfit
}

// Misfit is what a cause must answer: a mark it almost never leaves, or one it
// almost always leaves that was looked for and is not there.
type Misfit struct {
	Evidence *Evidence
	Lacking  bool
}

// Text says what must be answered.
func (m Misfit) Text() string {
	text := strings.ToLower(m.Evidence.Text)
	if m.Lacking {
		text += " is not there"
	}
	return text
}

// Pair is two root causes that met.
type Pair struct {
	A, B      *Cause
	Posterior float64
}

// Check is something worth looking at next.
type Check struct {
	Evidence    *Evidence
	Or          []*Evidence // what the same look may show instead
	Information float64     // expected information
	Minutes     float64     // of the look and the way there
	Rate        float64     // bits a minute
	Closes      bool        // it shows a link of the leading story that nobody saw
	Opens       bool        // the unit is opened further for it
	Then        []Then      // what each answer would do; of the first looks only

	link int // how near the root of the story that it closes
}

// Explanation is the answer for one case.
type Explanation struct {
	Ranking []Ranked // most probable first
	Pairs   []Pair   // the most probable pairs, most probable first
	Two     float64  // probability that two met
	Next    []Check  // most bits a minute first; what spoils evidence must tell twice as much
	Entropy float64  // bits still open
}

// fact is a finding with its evidence.
type fact struct {
	e *Evidence
	s float64
}

// facts puts findings in a fixed order, so that sums do not depend on the order
// they came in; what is not known to the knowledge is passed over.
func (k *Knowledge) facts(findings []Finding) (out []fact, known map[string]bool) {
	known = map[string]bool{}
	for _, f := range findings {
		if e, ok := k.EvidenceByCode(f.Code); ok && !known[f.Code] {
			out = append(out, fact{e, f.Strength})
			known[f.Code] = true
		}
	}
	all := slices.Clone(out)
	out = slices.DeleteFunc(out, func(f fact) bool { return f.toldBetter(all) })
	sort.Slice(out, func(i, j int) bool { return out[i].e.Code < out[j].e.Code })
	return out, known
}

// toldBetter reports a complaint that a question asked at the machine tells in other words: it counts once.
func (f fact) toldBetter(by []fact) bool {
	q := f.e.question()
	return f.e.From.Symptom != "" && q != "" && slices.ContainsFunc(by, func(o fact) bool {
		return o.e.From.Symptom == "" && o.e.question() == q
	})
}

// caseState is the exact posterior over all hypotheses, with what each finding gave.
type caseState struct {
	hs    []hypothesis
	logs  []float64 // prior and all findings
	p     []float64
	facts []fact
	rates []rates // by fact
	known map[string]bool
	spread
}

func (k *Knowledge) weigh(findings []Finding) caseState {
	c := caseState{}
	c.facts, c.known = k.facts(findings)
	c.hs, c.logs = k.hypotheses()
	nothing := 0
	for _, f := range c.facts {
		if f.s < half {
			nothing++
		}
	}
	for _, f := range c.facts {
		rates := k.rates(f.e)
		if f.s > half && f.e.strikes() {
			rates.background *= told(nothing, f.e)
		}
		likely := rates.values(func(rate float64) float64 { return math.Log(f.e.likelihood(rate, f.s)) })
		for i, h := range c.hs {
			c.logs[i] += likely.of(h)
		}
		c.rates = append(c.rates, rates)
	}
	c.p = normalise(c.logs)
	c.spread = spreadOf(c.hs, c.p, len(k.Causes))
	return c
}

// The few marks that a bench tells of were picked: what the trouble left strikes the eye sooner than what is on every
// machine, and what is rare by itself is hardly told where it is not the trouble. So a mark that a cause does not
// speak of is told less often than it is there; the more looks found nothing, the more was gone through, and the
// less was picked.
const (
	pickedCommon = 0.22 // hours, dark oil, an old seal
	pickedRare   = 0.09
	hardlyLooked = 2 // so many looks found nothing
	lookedWell   = 7
)

// strikes reports a mark that is told because it was seen, and not because it was asked for: the complaint, the
// hours, an answer from the machine and a measure come whatever they are.
func (e *Evidence) strikes() bool {
	return e.At != Asked && e.From.Symptom == "" && !e.From.Gauge.Asked() && e.From.Used == "" &&
		e.From.Efficiency == "" &&
		e.From.Word == (Answered{})
}

// told is how often a mark that is there by itself is told, where so many looks found nothing.
func told(nothing int, e *Evidence) float64 {
	picked := pickedCommon
	if e.Background.P() <= Word("almost_never").P() {
		picked = pickedRare
	}
	through := float64(nothing-hardlyLooked) / (lookedWell - hardlyLooked)
	return picked + (1-picked)*math.Min(1, math.Max(0, through))
}

// findings are the facts as they were told.
func (c caseState) findings() (out []Finding) {
	for _, f := range c.facts {
		out = append(out, Finding{f.e.Code, f.s})
	}
	return out
}

// mostPairs keeps the list of pairs to what a reader takes in.
const mostPairs = 5

// Explain ranks the causes for the findings. With no findings it offers no
// ranking: a cause is not invented from priors alone.
func (k *Knowledge) Explain(findings []Finding) Explanation {
	c := k.weigh(findings)
	x := k.rank(c)
	if len(c.facts) > 0 {
		x.Next = k.next(c)
	}
	return x
}

// Rank is Explain without what to look at next, which most readers of a ranking do not
// ask for.
func (k *Knowledge) Rank(findings []Finding) Explanation { return k.rank(k.weigh(findings)) }

// Next is what to look at next, with what each answer to the first looks would do; nothing where nothing was found.
func (k *Knowledge) Next(findings []Finding) []Check {
	c := k.weigh(findings)
	if len(c.facts) == 0 {
		return nil
	}
	out := k.next(c)
	k.thens(c, out)
	return out
}

func (k *Knowledge) rank(c caseState) Explanation {
	if len(c.facts) == 0 {
		return Explanation{}
	}
	marginal := c.sum
	x := Explanation{Entropy: entropy(c.p)}
	for i := range k.Causes {
		x.Ranking = append(x.Ranking, Ranked{Cause: &k.Causes[i], Posterior: marginal[i], Alone: c.one[i]})
	}
	// What one finding gave: the odds with everything, over the odds without it.
	for f, fact := range c.facts {
		unlikely := c.rates[f].values(func(rate float64) float64 { return 1 / fact.e.likelihood(rate, fact.s) })
		rest, all := c.times(&unlikely)
		for i := range x.Ranking {
			r := &x.Ranking[i]
			r.weigh(fact, math.Log2(odds(marginal[i])/odds(rest[i]/all)))
			if m, is := misfit(fact, c.rates[f].of(hypothesis{i, -1})); is {
				r.Misfits = append(r.Misfits, m)
			}
		}
	}
	for i := range x.Ranking {
		r := &x.Ranking[i]
		sort.SliceStable(r.For, func(a, b int) bool { return r.For[a].Information > r.For[b].Information })
		sort.SliceStable(
			r.Against,
			func(a, b int) bool { return r.Against[a].Information < r.Against[b].Information },
		)
	}
	sort.SliceStable(x.Ranking, func(a, b int) bool { return x.Ranking[a].Posterior > x.Ranking[b].Posterior })
	for i, h := range c.hs {
		if h.b >= 0 {
			x.Two += c.p[i]
			x.Pairs = likeliest(x.Pairs, Pair{&k.Causes[h.a], &k.Causes[h.b], c.p[i]})
		}
	}
	return x
}

// likeliest keeps the list of pairs in order and to what a reader takes in.
func likeliest(pairs []Pair, p Pair) []Pair {
	at := len(pairs)
	for at > 0 && pairs[at-1].Posterior < p.Posterior {
		at--
	}
	if at == mostPairs {
		return pairs
	}
	pairs = slices.Insert(pairs, at, p)
	return pairs[:min(len(pairs), mostPairs)]
}

func odds(p float64) float64 { return p / math.Max(1e-300, 1-p) }

// misfit tells whether a finding must be answered by a hypothesis under which
// the mark is there at this rate.
func misfit(f fact, rate float64) (Misfit, bool) {
	switch {
	case Told(f.s) == "seen" && rate <= Word("almost_never").P():
		return Misfit{f.e, false}, true
	case Told(f.s) == "absent" && rate >= Word("almost_always").P():
		return Misfit{f.e, true}, true
	}
	return Misfit{}, false
}

// weigh takes one finding into the reasons of a cause.
func (r *Ranked) weigh(f fact, bits float64) {
	w := Weight{f.e, f.s, bits}
	switch {
	case bits > 0.05:
		r.For = append(r.For, w)
	case bits < -0.05:
		r.Against = append(r.Against, w)
	}
}

// binary is the entropy of a yes with probability p, in bits.
func binary(p float64) float64 {
	if p <= 0 || p >= 1 {
		return 0
	}
	return -p*math.Log2(p) - (1-p)*math.Log2(1-p)
}

func normalise(logs []float64) []float64 {
	top, sum := maxOf(logs), 0.0
	out := make([]float64, len(logs))
	for i, l := range logs {
		out[i] = math.Exp(l - top)
		sum += out[i]
	}
	for i := range out {
		out[i] /= sum
	}
	return out
}

func maxOf(v []float64) float64 {
	m := math.Inf(-1)
	for _, x := range v {
		m = math.Max(m, x)
	}
	return m
}

func entropy(p []float64) float64 {
	h := 0.0
	for _, v := range p {
		if v > 0 {
			h -= v * math.Log2(v)
		}
	}
	return h
}

// ToClose lists what would close a cause's why-chain: evidence that its supposed
// links rest on and that nobody has looked at.
func (k *Knowledge) ToClose(c *Cause, findings []Finding) []*Evidence {
	known := map[string]bool{}
	for _, f := range findings {
		known[f.Code] = true
	}
	var out []*Evidence
	for i, l := range k.Chain(c, findings) {
		if len(l.Shown) > 0 {
			continue
		}
		for _, code := range c.Chain[i].Cites {
			if e, ok := k.EvidenceByCode(code); ok && !known[code] {
				known[code] = true
				out = append(out, e)
			}
		}
	}
	return out
}

// LinkState is a link of the why-chain with what it rests on.
type LinkState struct {
	Text  string
	Shown []*Evidence // cited evidence that was seen
	Told  string      // who or what says so, where no mark shows it
	Open  bool        // a question nobody answered: here the chain stops
}

// Chain gives the why-chain of a cause; a link without seen evidence was not shown.
func (k *Knowledge) Chain(c *Cause, findings []Finding) []LinkState {
	strength := map[string]float64{}
	for _, f := range findings {
		strength[f.Code] = f.Strength
	}
	var out []LinkState
	for _, l := range c.Chain {
		s := LinkState{Text: l.Text}
		for _, code := range l.Cites {
			if e, ok := k.EvidenceByCode(code); ok && strength[code] > 0.5 {
				s.Shown = append(s.Shown, e)
			}
		}
		out = append(out, s)
	}
	return out
}
