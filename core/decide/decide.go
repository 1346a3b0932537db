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
	Findings   []Finding
	Routes     []Route
}

// Proposal is what the figures suggest.
type Proposal struct {
	Choice Choice
	Routes []Route // for rework
	Reason string
}

// Propose gives a proposal for each part, in the order given.
func Propose(parts []Part, policy Policy) []Proposal {
	out := make([]Proposal, len(parts))
	replacedIn := map[string]string{}
	for i, p := range parts {
		out[i] = alone(p, policy)
		if out[i].Choice == Replace && p.Set != "" && replacedIn[p.Set] == "" {
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

func alone(p Part, policy Policy) Proposal {
	if p.Renew {
		return Proposal{Choice: Replace, Reason: "soft part, new at every rebuild"}
	}
	if p.Short > 0 {
		return Proposal{Choice: Replace, Reason: fmt.Sprintf("%d short of the count", p.Short)}
	}
	var bad, open []string
	var routes []Route
	saved := true
	measured := 0
	for _, f := range p.Findings {
		switch f.Verdict {
		case metrology.Out:
			bad = append(bad, strings.ToLower(f.Name))
			if r, ok := routeFor(p.Routes, f.Code); ok {
				routes = append(routes, r)
			} else {
				saved = false
			}
		case metrology.Undecided:
			if f.HasLimit {
				open = append(open, strings.ToLower(f.Name)+" is undecided")
			}
		case metrology.In:
			measured++
		default:
			if f.Must {
				open = append(open, strings.ToLower(f.Name)+" was never measured")
			}
		}
	}
	switch {
	case len(bad) > 0 && !saved:
		return Proposal{Choice: Replace, Reason: strings.Join(bad, ", ") + " out of limits, nothing left to rework"}
	case policy == FullOverhaul && p.Wearing:
		return Proposal{Choice: Replace, Reason: "wearing part, full overhaul"}
	case len(bad) > 0:
		return Proposal{Choice: Rework, Routes: routes, Reason: strings.Join(bad, ", ") + " out of limits"}
	case len(open) > 0:
		return Proposal{Choice: Open, Reason: strings.Join(open, ", ")}
	case measured > 0:
		return Proposal{Choice: Keep, Reason: "within limits"}
	}
	return Proposal{Choice: Keep, Reason: "nothing found against it"}
}

func routeFor(routes []Route, feature string) (Route, bool) {
	for _, r := range routes {
		if r.For == feature {
			return r, true
		}
	}
	return Route{}, false
}
