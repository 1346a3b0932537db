// Package decide proposes for every part: keep, rework or replace.
//
// The proposal follows from what was measured, from the policy of the job and
// from what belongs together. It is only a proposal; a person may choose
// otherwise and writes down why.
package decide

import (
	"fmt"
	"strings"

	"corvek/core/metrology"
)

// Policy is how much of a unit is renewed.
type Policy string

// The two policies.
const (
	OnCondition  Policy = "on_condition"
	FullOverhaul Policy = "full_overhaul"
)

// Choice is what is done with a part.
type Choice string

// The choices. Open means that something must be settled first.
const (
	Keep    Choice = "keep"
	Rework  Choice = "rework"
	Replace Choice = "replace"
	Open    Choice = "open"
)

// Finding is the state of one measured feature.
type Finding struct {
	Code, Name string
	Verdict    metrology.Verdict // empty when never measured
	Measured   bool              // something was read, also where no limit judges it
	Must       bool              // has to be measured
	HasLimit   bool
}

// Route is a way to save the part for one feature.
type Route struct {
	Code, Name, For string
	Hours, Days     float64
}

// Part is what the proposal for one part rests on.
type Part struct {
	Code, Name string
	Renew      bool // soft part, renewed at every rebuild
	Wearing    bool
	Set        string // matched set
	Short      int    // pieces not accounted for
	Chosen     Choice // by a person, "" where the proposal is followed
	Marks      []Mark // seen on it
	Sound      bool   // looked at, and no mark seen
	Stuck      string // how it came off where that was not freely: stuck or seized
	Findings   []Finding
	Routes     []Route
}

// Mark is something seen on the part.
type Mark struct {
	Text     string
	Breaking bool // the part is not kept without a written reason
}

// Looked reports that somebody looked at the part and said what was seen.
func (p Part) Looked() bool { return p.Sound || len(p.Marks) > 0 }

// Proposal is what was found suggests.
type Proposal struct {
	Choice Choice
	Routes []Route // for rework
	Reason string  // all of them, the strongest first
	Looked bool    // somebody measured it or said what is on it
}

// Propose gives a proposal for each part, in the order given. A set goes together
// also where a person chose new for one of it.
func Propose(parts []Part, policy Policy) []Proposal {
	out := make([]Proposal, len(parts))
	replacedIn := map[string]string{}
	for i, p := range parts {
		out[i] = alone(p, policy)
		replaced := p.Chosen == Replace || p.Chosen == "" && out[i].Choice == Replace
		if replaced && p.Set != "" && replacedIn[p.Set] == "" {
			replacedIn[p.Set] = p.Name
		}
	}
	for i, p := range parts {
		if with := replacedIn[p.Set]; p.Set != "" && with != "" && out[i].Choice != Replace {
			out[i] = Proposal{Choice: Replace, Reason: fmt.Sprintf("goes with its set: %s is replaced",
				strings.ToLower(with))}
		}
	}
	return out
}

// seen are the marks in words, those that break it first.
func (p Part) seen() (breaking, others []string) {
	for _, m := range p.Marks {
		if m.Breaking {
			breaking = append(breaking, m.Text)
		} else {
			others = append(others, m.Text)
		}
	}
	return breaking, others
}

func alone(p Part, policy Policy) Proposal {
	breaking, others := p.seen()
	measured := judge(p)
	because := func(c Choice, reasons ...string) Proposal {
		all := append(breaking, reasons...)
		if p.Stuck != "" {
			all = append(all, "came off "+p.Stuck)
		}
		if len(others) > 0 {
			all = append(all, "seen: "+strings.Join(others, ", "))
		}
		return Proposal{Choice: c, Reason: strings.Join(all, "; "), Looked: p.Looked() || measured.good}
	}
	out := strings.Join(measured.bad, ", ") + " out of limits"
	switch {
	case p.Renew:
		return because(Replace, "soft part, new at every rebuild")
	case p.Short > 0:
		return because(Replace, fmt.Sprintf("%d short of the count", p.Short))
	case len(breaking) > 0:
		return because(Replace)
	case len(measured.bad) > 0 && !measured.saved:
		return because(Replace, out+", nothing left to rework")
	case policy == FullOverhaul && p.Wearing:
		return because(Replace, "wearing part, full overhaul")
	case len(measured.bad) > 0:
		rework := because(Rework, out)
		rework.Routes = measured.routes
		return rework
	case len(measured.open) > 0:
		return because(Open, strings.Join(measured.open, ", "))
	case p.Stuck != "" && !p.Looked():
		return because(Open, "not looked at since it came off: say what is on it, or that it is sound")
	}
	return because(Keep, p.kept(measured.good)...)
}

// kept says what speaks for keeping the part, and what nobody did.
func (p Part) kept(measured bool) []string {
	var out []string
	if measured {
		out = append(out, "measured and within limits")
	}
	switch {
	case p.Sound:
		out = append(out, "looked at and sound")
	case !measured && len(p.Marks) == 0:
		out = append(out, "not looked at")
	}
	return out
}

// measured is what the readings say of a part.
type measured struct {
	bad, open []string
	routes    []Route
	saved     bool // a rework answers all that is out of limits
	good      bool // something was measured and is within limits
}

func judge(p Part) measured {
	m := measured{saved: true}
	for _, f := range p.Findings {
		name := strings.ToLower(f.Name)
		switch f.Verdict {
		case metrology.Out:
			m.bad = append(m.bad, name)
			if r, ok := routeFor(p.Routes, f.Code); ok {
				m.routes = append(m.routes, r)
			} else {
				m.saved = false
			}
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

func routeFor(routes []Route, feature string) (Route, bool) {
	for _, r := range routes {
		if r.For == feature {
			return r, true
		}
	}
	return Route{}, false
}
