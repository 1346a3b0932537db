package explain

import (
	"math/rand/v2"
	"sort"
)

// drawCase draws root causes from the prior and every mark from their rates.
func (k *Knowledge) drawCase(r *rand.Rand) (truth hypothesis, marks map[string]bool) {
	hs, logs := k.hypotheses()
	p := normalise(logs)
	at, x := 0, r.Float64()
	for at < len(p)-1 && x > p[at] {
		x -= p[at]
		at++
	}
	marks = map[string]bool{}
	for i := range k.Evidence {
		marks[k.Evidence[i].Code] = r.Float64() < k.rate(hs[at], &k.Evidence[i])
	}
	return hs[at], marks
}

// ranked ranks the causes without their reasons.
func (k *Knowledge) ranked(findings []Finding) (out []Ranked) {
	c := k.weigh(findings)
	if len(c.facts) == 0 {
		return nil
	}
	for i, p := range c.sum {
		out = append(out, Ranked{Cause: &k.Causes[i], Posterior: p})
	}
	sort.SliceStable(out, func(a, b int) bool { return out[a].Posterior > out[b].Posterior })
	return out
}

// Race is how many minutes it takes to reach the true cause by following the
// next-check list, against a fixed order of checks, quick ones first.
type Race struct {
	Cases               int
	Guided, Fixed       float64 // mean minutes until sure
	GuidedSure, FixSure float64 // share of cases in which it came to be sure and right
}

// Sure is the probability from which a search stops.
const Sure = 0.85

// complaints are the marks that come with the complaint itself.
func (k *Knowledge) complaints() (out []*Evidence) {
	for i := range k.Evidence {
		if k.Evidence[i].From.Symptom != "" {
			out = append(out, &k.Evidence[i])
		}
	}
	return out
}

// RaceOnce draws single-cause cases and searches each both ways, starting from
// the complaint alone.
func (k *Knowledge) RaceOnce(cases int, seed uint64) Race {
	one := *k
	one.Together = 0
	r := rand.New(rand.NewPCG(seed, 11))
	race := Race{Cases: cases}
	fixed := make([]*Evidence, 0, len(k.Evidence))
	for i := range k.Evidence {
		fixed = append(fixed, &k.Evidence[i])
	}
	sort.SliceStable(fixed, func(a, b int) bool { return fixed[a].Minutes < fixed[b].Minutes })
	for range cases {
		truth, marks := one.drawCase(r)
		start := []Finding{}
		for _, e := range k.complaints() {
			if marks[e.Code] {
				start = append(start, Finding{e.Code, Seen})
			}
		}
		want := k.Causes[truth.a].Code
		minutes, right := k.search(start, marks, want, nil)
		race.Guided += minutes
		race.GuidedSure += right
		minutes, right = k.search(start, marks, want, fixed)
		race.Fixed += minutes
		race.FixSure += right
	}
	n := float64(cases)
	race.Guided, race.Fixed, race.GuidedSure, race.FixSure = race.Guided/n, race.Fixed/n, race.GuidedSure/n,
		race.FixSure/n
	return race
}

// drawn answers looks at a case by the marks that were drawn for it.
func drawn(marks map[string]bool) func(*Evidence) (float64, bool) {
	return func(e *Evidence) (float64, bool) {
		return map[bool]float64{true: Seen, false: Absent}[marks[e.Code]], true
	}
}

// search looks at one check after another, by an order or by the list of next looks where that is nil, until a cause is
// sure.
func (k *Knowledge) search(start []Finding, marks map[string]bool, want string, order []*Evidence) (minutes,
	right float64) {
	sure := func(s Standing) bool { _, p := s.Lead(); return p >= Sure }
	steps := k.Follow(start, order, drawn(marks), sure, len(k.Evidence))
	s := k.Standing(Learned(start, steps))
	if lead, _ := s.Lead(); sure(s) && lead.Code == want {
		right = 1
	}
	return Minutes(steps), right
}
