// Package decide proposes for every part: keep, rework or replace.
//
// The proposal follows from what was measured, from the policy of the job and
// from what belongs together. It is only a proposal; a person may choose
// otherwise and writes down why.
package decide

import (
	"corvek/core/metrology"
	"fmt"
	"strings"
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

// Part is what the proposal for one part rests on.
type Part struct {
	Code, Name string
	Renew      bool // soft part, renewed at every rebuild
	Wearing    bool
	Works      bool   // it wears, moves or carries the load: it goes back only where somebody looked
	Set        string // matched set
	Short      int    // pieces not accounted for
	Chosen     Choice // by a person, "" where the proposal is followed
	Marks      []Mark // seen on it
	Sound      bool   // looked at, and no mark seen
	Stuck      string // how it came off where that was not freely: stuck or seized
	Findings   []Finding
	Routes     []Route
	Ask        string   // what must be answered first
	Calls      Call     // what an answer about the part asks for, strongest of all but what broke it
	Blamed     []string // concluded causes that this part is blamed for
	Remedies   []string // concluded causes whose remedy renews it
	Aged       string   // why it is too old to go back
	Unfit      string   // why a new one does not go in
	Wear       string   // how much of what may wear has worn
}

// Call is a choice that somebody's answer asks for, with why.
type Call struct {
	Choice Choice
	Reason string
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
	Unseen bool    // it is open for nothing but that nobody did
}

// Propose gives a proposal for each part, in the order given. A set goes together
// also where a person chose new for one of it; where one is reworked, the others are
// looked at with it.
func Propose(parts []Part, policy Policy) []Proposal {
	out := make([]Proposal, len(parts))
	renewed, reworked := map[string]string{}, map[string]string{}
	for i, p := range parts {
		out[i] = proposePart(p, policy)
		choice := p.Chosen
		if choice == "" {
			choice = out[i].Choice
		}
		first(renewed, p, choice == Replace)
		first(reworked, p, choice == Rework)
	}
	for i, p := range parts {
		with, mate := renewed[p.Set], reworked[p.Set]
		switch {
		case p.Set == "":
		case with != "" && with != p.Name && out[i].Choice != Replace && p.Unfit == "":
			out[i] = Proposal{Choice: Replace, Looked: out[i].Looked,
				Reason: fmt.Sprintf("goes with its set: %s is replaced", strings.ToLower(with))}
		case mate != "" && mate != p.Name && out[i].Choice == Keep:
			out[i].Reason += fmt.Sprintf(
				"; its mate is reworked: try it against %s afterwards",
				strings.ToLower(mate),
			)
		}
	}
	return out
}

// first keeps the name of the first part of a set of which something is so.
func first(of map[string]string, p Part, is bool) {
	if is && p.Set != "" && of[p.Set] == "" {
		of[p.Set] = p.Name
	}
}
