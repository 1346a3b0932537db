package explain

import (
	"cmp"
	"slices"
)

// From where a cause leads: any cause from a third, one that is what is left over when the others were looked for
// only from three in five. Below it the answer is open, and the page says so.
const (
	Leads         = 0.35
	LeftOverLeads = 0.6
)

// Lead is the cause that stands first and leads; ok is false where it does not, and the answer is open: also where
// what is left over stands first and is not sure enough, for then no root was shown.
func Lead(ranking []Ranked) (lead Ranked, ok bool) {
	if len(ranking) == 0 {
		return Ranked{}, false
	}
	least := Leads
	if ranking[0].Cause.LeftOver {
		least = LeftOverLeads
	}
	return ranking[0], ranking[0].Posterior >= least
}

// Alone is a ranking as it is read: by what each cause explains alone, so that its figures come to no more than one.
func Alone(ranking []Ranked) []Ranked {
	out := slices.Clone(ranking)
	slices.SortStableFunc(out, func(a, b Ranked) int { return cmp.Compare(b.Alone, a.Alone) })
	for i := range out {
		out[i].Posterior = out[i].Alone
	}
	return out
}
