package explain

import (
	"math"
	"sort"
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

// Weight is what one finding says for (positive) or against a cause, in bits:
// the base-2 logarithm of the factor by which it changes the cause's odds.
type Weight struct {
	Evidence *Evidence
	Strength float64
	Bits     float64
}

// Ranked is a cause with its probability and the reasons.
type Ranked struct {
	Cause     *Cause
	Posterior float64
	For       []Weight // strongest first
	Against   []Weight // strongest first
	Misfits   []*Evidence
}

// Check is something worth looking at next.
type Check struct {
	Evidence *Evidence
	Bits     float64 // expected information
	Rate     float64 // bits a minute
}

// Explanation is the answer for one case.
type Explanation struct {
	Ranking []Ranked // most probable first
	Next    []Check  // most bits a minute first
	Entropy float64  // bits still open
}

// likelihood of a finding under a cause.
func likelihood(c *Cause, e *Evidence, strength float64) float64 {
	p := e.Background.P()
	if w, ok := c.Points[e.Code]; ok {
		p = w.P()
	}
	return strength*p + (1-strength)*(1-p)
}

// Explain ranks the causes for the findings. With no findings it offers no
// ranking: a cause is not invented from priors alone.
func (k *Knowledge) Explain(findings []Finding) Explanation {
	type known struct {
		e *Evidence
		s float64
	}
	var facts []known
	seen := map[string]bool{}
	for _, f := range findings {
		if e, ok := k.EvidenceByCode(f.Code); ok && !seen[f.Code] {
			facts = append(facts, known{e, f.Strength})
			seen[f.Code] = true
		}
	}
	if len(facts) == 0 {
		return Explanation{}
	}
	// A fixed order keeps the sums the same whatever order findings came in.
	sort.Slice(facts, func(i, j int) bool { return facts[i].e.Code < facts[j].e.Code })

	n := len(k.Causes)
	logs := make([]float64, n)
	for i := range k.Causes {
		logs[i] = math.Log(k.Causes[i].Prior.P())
		for _, f := range facts {
			logs[i] += math.Log(likelihood(&k.Causes[i], f.e, f.s))
		}
	}
	posterior := normalise(logs)

	x := Explanation{Entropy: entropy(posterior)}
	for i := range k.Causes {
		r := Ranked{Cause: &k.Causes[i], Posterior: posterior[i]}
		for _, f := range facts {
			// The rest of the field, weighed as if this finding were unknown.
			mine := likelihood(&k.Causes[i], f.e, f.s)
			rest, mass := 0.0, 0.0
			for j := range k.Causes {
				if j == i {
					continue
				}
				l := likelihood(&k.Causes[j], f.e, f.s)
				without := math.Exp(logs[j]-maxOf(logs)) / l
				rest += without * l
				mass += without
			}
			w := Weight{f.e, f.s, math.Log2(mine / (rest / mass))}
			switch {
			case w.Bits > 0.05:
				r.For = append(r.For, w)
			case w.Bits < -0.05:
				r.Against = append(r.Against, w)
			}
			if f.s > 0.7 && likelihood(&k.Causes[i], f.e, 1) <= Word("almost_never").P() {
				r.Misfits = append(r.Misfits, f.e)
			}
		}
		sort.SliceStable(r.For, func(a, b int) bool { return r.For[a].Bits > r.For[b].Bits })
		sort.SliceStable(r.Against, func(a, b int) bool { return r.Against[a].Bits < r.Against[b].Bits })
		x.Ranking = append(x.Ranking, r)
	}
	sort.SliceStable(x.Ranking, func(a, b int) bool { return x.Ranking[a].Posterior > x.Ranking[b].Posterior })

	for i := range k.Evidence {
		if e := &k.Evidence[i]; !seen[e.Code] {
			bits := k.expectedGain(posterior, e)
			x.Next = append(x.Next, Check{e, bits, bits / e.Minutes})
		}
	}
	sort.SliceStable(x.Next, func(a, b int) bool { return x.Next[a].Rate > x.Next[b].Rate })
	return x
}

// expectedGain is the mutual information between the cause and the outcome of
// looking: the entropy now less what will remain on average.
func (k *Knowledge) expectedGain(posterior []float64, e *Evidence) float64 {
	remain := 0.0
	for _, strength := range []float64{Seen, Absent} {
		after := make([]float64, len(posterior))
		mass := 0.0
		for i := range posterior {
			after[i] = posterior[i] * likelihood(&k.Causes[i], e, strength)
			mass += after[i]
		}
		for i := range after {
			after[i] /= mass
		}
		remain += mass * entropy(after)
	}
	return math.Max(0, entropy(posterior)-remain)
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

// LinkState is a link of the why-chain with what it rests on.
type LinkState struct {
	Text  string
	Shown []*Evidence // cited evidence that was seen
}

// Chain gives the why-chain of a cause; a link without seen evidence is supposed.
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
