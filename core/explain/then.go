package explain

// Then is what one answer to a look would do: the cause that stands first then, and how likely the one that stands
// first now would be.
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
	lead := highest(c.sum)
	var findings []Finding
	for _, f := range c.facts {
		findings = append(findings, Finding{f.e.Code, f.s})
	}
	for i := range checks[:min(mostThen, len(checks))] {
		check := &checks[i]
		then := func(e *Evidence, strength float64) {
			by := k.weigh(append(findings[:len(findings):len(findings)], Finding{e.Code, strength})).sum
			first := highest(by)
			check.Then = append(check.Then, Then{e, strength == Seen, &k.Causes[first], by[first], &k.Causes[lead],
				by[lead]})
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
