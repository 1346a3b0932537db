package explain

import (
	"maps"
	"slices"
)

// Of is what there is to know of one unit: without the marks and causes of what it has
// not. has answers for an assembly, a part, a @kind, a symptom:code or a gauge:code.
func (k *Knowledge) Of(has func(string) bool) *Knowledge {
	belongs := func(needs []string) bool { return len(needs) == 0 || slices.ContainsFunc(needs, has) }
	gone := map[string]bool{}
	own := *k
	own.Evidence = make([]Evidence, 0, len(k.Evidence))
	for _, e := range k.Evidence {
		if !belongs(e.Needs) || e.Part != "" && !has(e.Part) {
			gone[e.Code] = true
			continue
		}
		own.Evidence = append(own.Evidence, e)
	}
	kept := func(e *Evidence) bool { return e.BreakUp || e.From.Symptom != "" || e.From.Gauge.Asked() }
	own.Causes = make([]Cause, 0, len(k.Causes))
	for _, c := range k.Causes {
		if !belongs(c.Needs) {
			continue
		}
		if slices.ContainsFunc(slices.Collect(maps.Keys(c.Points)), func(code string) bool { return gone[code] }) {
			c.Points = maps.Clone(c.Points)
			maps.DeleteFunc(c.Points, func(code string, _ Word) bool { return gone[code] })
		}
		c.Chain = slices.Clone(c.Chain)
		for i := range c.Chain {
			c.Chain[i].Cites = slices.DeleteFunc(slices.Clone(c.Chain[i].Cites),
				func(code string) bool { return gone[code] })
		}
		own.Causes = append(own.Causes, c)
	}
	// What no cause that is left speaks of tells nothing, unless somebody told it.
	own.Evidence = slices.DeleteFunc(own.Evidence, func(e Evidence) bool {
		return !kept(&e) && !slices.ContainsFunc(own.Causes, func(c Cause) bool {
			_, speaks := c.Points[e.Code]
			return speaks
		})
	})
	return &own
}
