package workshop

import (
	"cmp"
	"math"
	"strings"

	"corvek/core/partner"
	"corvek/core/plan"
	"corvek/core/remaining"
)

// Over is how long a shop waited for others of late, in days, the newest first.
type Over struct {
	Away   []PartAway
	Orders []PieceCame
	Words  []float64 // of customers who were asked for theirs
}

// PartAway is how long a part was with somebody who worked on it.
type PartAway struct {
	Route string // the code of the way
	Days  float64
}

// PieceCame is how long a new piece took from the order on.
type PieceCame struct {
	Supplier string
	Said     float64 // days, as its supplier said; 0 where nobody asked
	Days     float64
}

// wait is one wait that is over.
type wait struct {
	by    string  // who was waited for, as the shop knows him; "" for anybody
	ratio float64 // how long it took against what was said, or guidance has
}

// leastWait is what a wait that was over on the same day is taken for, in days: half of one.
const leastWait = 0.5

// LearnWaits moves guidance by how long the shop waited for others, each wait against what those said who were waited
// for: for a piece what was said of the very order goes before what its supplier takes as a rule, as it does where it
// is planned. Few cases say little.
func (l *Learned) LearnWaits(over *Over, partners partner.Partners) {
	l.waits, l.kinds = map[remaining.Kind][]wait{}, map[remaining.Kind]plan.Spread{}
	add := func(kind remaining.Kind, by string, days, said float64) {
		if said > 0 {
			l.waits[kind] = append(l.waits[kind], wait{by, max(days, leastWait) / said})
		}
	}
	for _, a := range over.Away {
		if by := partners.Does(strings.ReplaceAll(a.Route, "_", " ")); by != nil {
			add(remaining.Outside, by.Name, a.Days, by.Days)
		}
	}
	for _, o := range over.Orders {
		by := partners.Supplier(o.Supplier)
		if by == nil {
			by = &partner.Partner{Days: l.Parts}
		}
		add(remaining.Parts, by.Name, o.Days, cmp.Or(o.Said, by.Days))
	}
	for _, days := range over.Words {
		add(remaining.Word, "", days, l.Word)
	}
	for kind := range l.waits {
		l.kinds[kind] = plan.Learn(plan.Spread{Sigma: l.Spread[kind]}, l.ratios(kind, ""), 0, 0)
	}
}

// Waited is of how many waits of a kind it is, for one who is waited for, or for all with "".
func (l *Learned) Waited(kind remaining.Kind, by string) int { return len(l.ratios(kind, by)) }

// ratios are how long waits took against what was said.
func (l *Learned) ratios(kind remaining.Kind, by string) (out []float64) {
	for _, w := range l.waits[kind] {
		if by == "" || w.by == by {
			out = append(out, w.ratio)
		}
	}
	return out
}

// Wait is how long a wait takes in the shop's own past against what is said or guidance has, and how far such waits
// are spread. One who is waited for is held against all of his kind as those are against guidance; said is the spread
// that he names himself, 0 for none.
func (l *Learned) Wait(kind remaining.Kind, by string, said float64) (factor, sigma float64) {
	s, known := l.kinds[kind]
	if !known {
		s.Sigma = l.Spread[kind]
	}
	if said > 0 {
		s.Sigma = said
	}
	if by != "" {
		s = plan.Learn(s, l.ratios(kind, by), 0, 0)
	}
	return math.Exp(s.Bias), s.Sigma
}
