package explain

// Then is what one answer to a look would do: the cause that stands first then, and how likely the one that stands
// first now would be, each alone, as a ranking is read.
type Then struct {
	Evidence *Evidence
	Seen     bool // that it is there, or that it is not
	Lead     *Cause
	P        float64 // of the one that leads then
	Was      *Cause  // that leads now
	Left     float64 // and what it comes to then
}

// mostThen is for how many looks it is worked out what their answers would do: so many are shown.
const mostThen = 4

// thens works out what each answer to the first looks would do, by weighing the case with the answer in it.
func (k *Knowledge) thens(c caseState, checks []Check) {
	lead, findings := c.first(), c.findings()
	for i := range checks[:min(mostThen, len(checks))] {
		check := &checks[i]
		then := func(e *Evidence, strength float64) {
			by := k.weigh(append(findings[:len(findings):len(findings)], Finding{e.Code, strength}))
			first := by.first()
			check.Then = append(check.Then, Then{e, strength == Seen, &k.Causes[first], by.one[first],
				&k.Causes[lead], by.one[lead]})
		}
		then(check.Evidence, Seen)
		for _, o := range check.Or {
			then(o, Seen)
		}
		if len(check.Or) == 0 {
			then(check.Evidence, Absent)
		}
	}
}

// first is the cause that a ranking begins with: of two that explain as much alone the one that is likelier beside
// others.
func (s spread) first() (at int) {
	for i := range s.one {
		if s.one[i] > s.one[at] || s.one[i] == s.one[at] && s.sum[i] > s.sum[at] {
			at = i
		}
	}
	return at
}
