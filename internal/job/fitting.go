package job

import (
	"strings"

	"corvek/core/bench"
	"corvek/core/build"
	"corvek/core/entry"
)

// fitted notes what a part was fitted over, and how often it came out again. What stands on
// the step is what a person said; this is what the unit says.
func fitted(p *entry.Place, was bool) {
	s := p.Step
	switch {
	case s.Done:
		var open []string
		for _, code := range build.Under(bench.Placed(p.Unit, p.Family), p.Part.Code) {
			open = append(open, strings.ToLower(p.Unit.Part(code).Name))
		}
		s.Over = strings.Join(open, ", ")
	case was:
		s.TakeOut()
	}
}
