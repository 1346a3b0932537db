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
	Lead    *Cause      // that stands first afterwards
	P       float64
}

// Follow looks again and again, from what was told and as the unit lies there, until it is enough or nothing is left to
// look at: at what tells most for its minutes, or with an order at the first of it that was not looked at. tell answers
// a look; told is false where it cannot be told. At most most looks are taken.
func (k *Knowledge) Follow(start []Finding, order []*Evidence, tell func(*Evidence) (strength float64, told bool),
	enough func(Standing) bool, most int) (steps []Step) {
	now := k.In(k.where())
	findings := slices.Clone(start)
	gone := map[string]bool{} // looked at, and not told
	c := now.weigh(findings)
	for len(steps) < most && (len(findings) == 0 || !enough(Standing{now, c})) {
		look, found := now.look(c, order, gone)
		if !found {
			break
		}
		step := Step{Looks: append([]*Evidence{look.Evidence}, look.Or...), Minutes: look.Minutes}
		for _, e := range step.Looks {
			if strength, told := tell(e); told {
				step.Told = append(step.Told, Finding{e.Code, strength})
			} else {
				gone[e.Code] = true
			}
		}
		findings = append(findings, step.Told...)
		now = now.In(now.where().after(step.Looks[0]))
		c = now.weigh(findings)
		step.Lead, step.P = Standing{now, c}.Lead()
		steps = append(steps, step)
	}
	return steps
}

// look is the next one.
func (k *Knowledge) look(c caseState, order []*Evidence, gone map[string]bool) (Check, bool) {
	if order == nil {
		checks := k.next(c)
		at := slices.IndexFunc(checks, func(c Check) bool { return !gone[c.Evidence.Code] })
		if at < 0 {
			return Check{}, false
		}
		return checks[at], true
	}
	at := slices.IndexFunc(order, func(e *Evidence) bool { return !c.known[e.Code] && !gone[e.Code] })
	if at < 0 {
		return Check{}, false
	}
	return Check{Evidence: order[at], Minutes: k.where().Cost(order[at])}, true
}

// after is how far the unit has come once something was looked at.
func (s Situation) after(e *Evidence) Situation {
	if way[e.At] > way[s.Reached] {
		s.Reached, s.MayRun = e.At, false
	}
	return s
}

// Minutes are what looks took together.
func Minutes(steps []Step) (sum float64) {
	for _, s := range steps {
		sum += s.Minutes
	}
	return sum
}

// Learned is what was told at the start and by looks.
func Learned(start []Finding, steps []Step) []Finding {
	all := slices.Clone(start)
	for _, s := range steps {
		all = append(all, s.Told...)
	}
	return all
}
