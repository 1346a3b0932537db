package job

import (
	"corvek/core/bench"
	"corvek/core/entry"
)

// fitted notes what a part was fitted over, and how often it came out again. What stands on
// the step is what a person said; this is what the unit says.
func fitted(p *entry.Place, was bool) {
	s := p.Step
	switch {
	case s.Done:
		s.Over = bench.FittedOver(p.Unit, p.Family, p.Part)
	case was:
		s.TakeOut()
	}
}
