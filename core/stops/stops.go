// Package stops says what must be settled before the next station is honest. Each stop
// follows from the unit as it really is and from what was worked out of it; whether a
// lead waived one is not decided here.
package stops

import (
	"cmp"
	"fmt"

	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/kit"
	"corvek/core/machine"
	"corvek/core/measure"
	"corvek/core/strip"
	"corvek/core/unit"
)

// Stop is something that must be settled.
type Stop struct {
	unit.StopCode
	Text string
	Act  string // what is done about it next, "" where the text says so itself
}

// Next is what is done about it, in words.
func (s Stop) Next() string { return cmp.Or(s.Act, s.Text) }

// Unit is a unit as it really is, with what was worked out of it.
type Unit struct {
	*unit.Unit
	Job    *unit.Job
	Family *family.Family
	Gauge  machine.Gauge
	Parts  []Part // that are on it, in the order they came off
	Known  Known  // of its duty
	// Baseline tells that figures were taken as it was received.
	Baseline bool
	Asked    string // more than its maker rates it for, "" where not

	Conclusion unit.Conclusion
	Cause      *explain.Cause // that was concluded, nil without one
	Found      []string       // what was seen and told, in words
	Misfit     string         // what does not fit it, "" where all does
	NotLooked  []string       // likelier roots nobody looked for, where it is only what is left
	Suspects   []Suspect      // what the cause blames and nobody measured
	Causes     []Cause        // all that were named, with who does what
	BrokenUp   bool           // pieces of it went into the circuit

	Kit      []kit.Issue
	Unfilled []string // steps of filling, priming and bleeding that nobody did
	// Claims that were not shown, and of which nobody said why that is not possible
	Unsettled []string
	Exercise  bool // only the simulated stand was asked
}

// Known tells what of the duty is known.
type Known struct{ Displacement, Speed, Pressure bool }

// Suspect is something measured that a cause blames.
type Suspect struct{ Part, PartName, Feature string }

// Cause is a cause that was named.
type Cause struct {
	Number        int // 0 of the root that was concluded
	Name          string
	Outside       bool
	Action, Owner string
}

// Part is a part with what was found, decided and done.
type Part struct {
	*unit.Part
	Strip    strip.Part
	Def      *family.Part
	Choice   decide.Choice
	Proposal decide.Proposal
	Decision unit.Decision
	Step     unit.Step
	Ways     []Way // that are gone to save it
	CountIn  int   // as many must be counted in, 0 where that is not asked
	Joint    *build.Joint
	Groove   string // how deep the groove is that its lip must run beside, "" where there is none
	Lip      build.LipRun
	AsksFeel bool // it is felt by hand once it is fitted
	Stuck    bool // it did not come off freely
	Stack    *Stack
	Lacks    string // what its place in the kit lacks of new pieces, "" where it has them or wants none
	Features []Feature
}

// Stack is a pack whose order and facing matter.
type Stack struct {
	Found, Fit           []family.Piece
	FoundFault, FitFault string             // what cannot be read
	FitDiff              []strip.Difference // from what belongs
	FitDoes              strip.Delivery
	Unknown              bool // nobody knows what belongs
}

// Way is a way that is gone to save a part.
type Way struct {
	decide.Route
	Oversize bool // seals of the next size make up for what came off
	Flat     bool // how flat it is now is asked
	Row      unit.Rework
}

// Feature is something measured.
type Feature struct {
	*unit.Feature
	Def          *family.Feature
	Found, Built measure.Result
	Overdue      string // the tool and when it was due for calibration, "" where it holds
	TooCoarse    bool   // the resolution cannot judge so narrow a limit
}

// list gathers the stops of one unit.
type list struct {
	*Unit
	all map[string][]Stop
}

// All gives the stops of a unit by station; those of stations that its ending does not
// owe are left out.
func All(u *Unit) map[string][]Stop {
	l := &list{u, map[string][]Stop{}}
	l.cautions()
	l.receive()
	l.strip()
	l.measure()
	l.explain()
	l.decide()
	l.kit()
	l.build()
	l.prove()
	l.handover()
	for station := range l.all {
		if !u.Owes(station) {
			delete(l.all, station)
		}
	}
	return l.all
}

func (l *list) add(code unit.StopCode, format string, args ...any) *Stop {
	code.Unit = l.Number
	all := append(l.all[code.Station], Stop{StopCode: code, Text: fmt.Sprintf(format, args...)})
	l.all[code.Station] = all
	return &all[len(all)-1]
}

// of notes a stop of the unit as a whole.
func (l *list) of(station string, kind unit.StopKind, format string, args ...any) *Stop {
	return l.add(unit.StopCode{Station: station, Kind: kind}, format, args...)
}

// part notes a stop of a part.
func (l *list) part(p *Part, station string, kind unit.StopKind, format string, args ...any) *Stop {
	return l.add(unit.StopCode{Station: station, Kind: kind, Part: p.Code}, format, args...)
}

// at notes a stop of something measured.
func (l *list) at(p *Part, f *Feature, station string, kind unit.StopKind, format string, args ...any) *Stop {
	return l.add(unit.StopCode{Station: station, Kind: kind, Part: p.Code, Feature: f.Code}, format, args...)
}
