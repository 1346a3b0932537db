package explain

import "slices"

// Standing is how a case stands: how likely each cause is, alone or beside another.
type Standing struct {
	k *Knowledge
	caseState
}

// Standing weighs findings.
func (k *Knowledge) Standing(findings []Finding) Standing { return Standing{k, k.weigh(findings)} }

// Lead is the cause that stands first, with how likely it is.
func (s Standing) Lead() (c *Cause, p float64) {
	at := s.first()
	return &s.k.Causes[at], s.sum[at]
}

// Of is how likely a cause is by its code, 0 where there is none.
func (s Standing) Of(code string) float64 {
	at := slices.IndexFunc(s.k.Causes, func(c Cause) bool { return c.Code == code })
	if at < 0 {
		return 0
	}
	return s.sum[at]
}

// Step is one look on the way to a cause.
type Step struct {
	Looks   []*Evidence // what the one look may show
	Told    []Finding   // what it did show; nothing where it could not be told
	Minutes float64     // of the look, and of getting to it
	Reached Reach       // how far the unit was taken apart for it
	Lead    *Cause      // that stands first afterwards
	P       float64
}

// Follow looks again and again at what tells most for its minutes, from a situation and what was told, until it is
// enough or nothing is left to look at. tell answers a look; told is false where it cannot be told. At most most looks
// are taken.
func (k *Knowledge) Follow(s Situation, start []Finding, tell func(*Evidence) (strength float64, told bool),
	enough func(Standing) bool, most int) (steps []Step) {
	findings := slices.Clone(start)
	gone := map[string]bool{} // looked at, and not told
	for len(steps) < most {
		now := k.In(s)
		c := now.weigh(findings)
		if len(findings) > 0 && enough(Standing{k, c}) {
			break
		}
		checks := slices.DeleteFunc(now.next(c), func(c Check) bool { return gone[c.Evidence.Code] })
		if len(checks) == 0 {
			break
		}
		step := Step{Looks: append([]*Evidence{checks[0].Evidence}, checks[0].Or...), Minutes: checks[0].Minutes}
		for _, e := range step.Looks {
			if strength, told := tell(e); told {
				step.Told = append(step.Told, Finding{e.Code, strength})
			} else {
				gone[e.Code] = true
			}
		}
		findings = append(findings, step.Told...)
		s = s.after(step.Looks[0])
		step.Reached = s.Reached
		step.Lead, step.P = k.Standing(findings).Lead()
		steps = append(steps, step)
	}
	return steps
}

// after is how far the unit has come once something was looked at.
func (s Situation) after(e *Evidence) Situation {
	if way[e.At] > way[s.Reached] {
		s.Reached = e.At
	}
	s.MayRun = s.MayRun && way[s.Reached] == 0
	return s
}
