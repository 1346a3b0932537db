package decide

import (
	"fmt"
	"slices"
	"strings"

	"corvek/core/metrology"
)

// measured is what the readings say of a part.
type measured struct {
	bad, open []string
	routes    []Route
	faults    []string // why ways cannot be gone
	saved     bool     // a rework answers all that is out of limits
	good      bool     // something was measured and is within limits
}

func judge(p Part) measured {
	m := measured{saved: true}
	for _, f := range p.Findings {
		name := strings.ToLower(f.Name)
		switch f.Verdict {
		case metrology.Out:
			m.bad = append(m.bad, name)
			best, faults := WayFor(p.Routes, f.Code)
			switch {
			case best < 0:
				m.saved = false
			case !slices.ContainsFunc(m.routes, func(x Route) bool { return x.Code == p.Routes[best].Code }):
				m.routes = append(m.routes, p.Routes[best])
			}
			m.faults = append(m.faults, faults...)
		case metrology.Undecided:
			if f.HasLimit {
				m.open = append(m.open, name+" is undecided")
			}
		case metrology.In:
			m.good = true
		default:
			if f.Must && !f.Measured {
				m.open = append(m.open, name+" was never measured")
			}
		}
	}
	return m
}

// lost says why no rework saves the part.
func (m measured) lost() []string {
	if len(m.faults) > 0 {
		return m.faults
	}
	return []string{"nothing left to rework"}
}

// ways names the ways that save the part, with what they leave.
func (m measured) ways() (out []string) {
	for _, r := range m.routes {
		text := strings.ToLower(r.Name)
		if left, limited := r.Left(); limited {
			text += fmt.Sprintf(", %s may still come off", mm(left))
		}
		out = append(out, text)
	}
	return append(out, m.faults...)
}
