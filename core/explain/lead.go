package explain

// From where a cause leads: any cause from a third, one that is what is left over when the others were looked for
// only from three in five. Below it the answer is open, and the page says so.
const (
	Leads         = 0.35
	LeftOverLeads = 0.6
)

// Lead is the cause that leads; ok is false where none does, and the answer is open.
func Lead(ranking []Ranked) (lead Ranked, ok bool) {
	for _, r := range ranking {
		least := Leads
		if r.Cause.LeftOver {
			least = LeftOverLeads
		}
		if r.Posterior >= least {
			return r, true
		}
		if !r.Cause.LeftOver {
			return Ranked{}, false // what stands behind it leads still less
		}
	}
	return Ranked{}, false
}
