// Package search keeps the ledger of a search for the fault after a failed test. It is inference: what may be wrong
// is weighed, each change says what of it it could have cured, and each reading updates all that is left. It works
// step by step of the test, because a unit may have several troubles that show at different steps.
package search

import (
	"slices"

	"corvek/core/metrology"
)

// Kind is what was done between two attempts.
type Kind string

// The kinds of change.
const (
	Swap    Kind = "swap"    // a piece known to be good in its place
	Renew   Kind = "renew"   // a new piece, or reworked and measured
	Refit   Kind = "refit"   // the same piece out, and in again as it belongs: seated, turned, drawn evenly
	Loosen  Kind = "loosen"  // a joint slackened for one run, to see whether what it clamps binds
	Adjust  Kind = "adjust"  // a setting brought to its book
	Clean   Kind = "clean"   // washed, bled, worked free
	Inspect Kind = "inspect" // out, looked at and in again, nothing changed
	Mask    Kind = "mask"    // hides the fault: a relief raised over its book, thicker oil
	Nothing Kind = "nothing" // run once more as it is: a hold run out, a gauge read right

	unsaid Kind = "" // it was told in words alone
)

// Kinds are all of them, in the order they are offered.
var Kinds = []Kind{Swap, Renew, Refit, Loosen, Adjust, Clean, Inspect, Mask, Nothing}

// Way is how a part can be the trouble.
type Way string

// The ways. A seat is a sound part that does not lie as it belongs; a setting is one that is off its book.
const (
	Fault   Way = "fault"
	Seat    Way = "seat"
	Dirt    Way = "dirt"
	Setting Way = "setting"
)

// cures is how often a change of a part takes away a trouble that lies in it. What is put in anew lies anew as well.
// Who only looked has cured nothing.
var cures = map[Kind]map[Way]float64{
	Swap:   {Fault: 0.95, Dirt: 0.95, Setting: 0.8, Seat: 0.6},
	Renew:  {Fault: 0.95, Dirt: 0.95, Setting: 0.4, Seat: 0.6},
	Refit:  {Seat: 0.9, Dirt: 0.3},
	Adjust: {Setting: 0.95},
	Clean:  {Dirt: 0.85, Seat: 0.2},
	unsaid: {Fault: 0.5, Dirt: 0.5, Setting: 0.5, Seat: 0.5},
}

const (
	eased  = 0.9 // how often a slack joint takes the strain off what it clamps
	moved  = 0.2 // how often a part that only came off on the way lies right afterwards where it did not before
	byJob  = 0.02
	itself = 0.005 // how often a new trouble comes by what was done, and by itself
)

// Trouble is one thing that may be wrong with the unit.
type Trouble struct {
	Part   string // its code; "" of something that nobody thought of
	Way    Way
	Weight float64  // how much speaks for it before the first attempt, in shares of any sum
	Behind []string // the joints that clamp it
	Within string   // the sub-assembly it belongs to, "" for none
}

// Move is one change. Without a part it says nothing of any.
type Move struct {
	Kind Kind
	Part string
	Off  []string // what came off on the way to it, and went back
}

// cures is how likely the change takes a trouble away.
func (m Move) cures(t Trouble) float64 {
	switch {
	case t.Part == "":
		return 0
	case t.Part == m.Part:
		return cures[m.Kind][t.Way]
	case t.Way == Seat && slices.Contains(m.Off, t.Part):
		return moved
	}
	return 0
}

// eases is how likely a trouble does not show while the change lasts: a joint is slack.
func (m Move) eases(t Trouble) float64 {
	if m.Kind == Loosen && t.Part != m.Part && slices.Contains(t.Behind, m.Part) {
		return eased
	}
	return 0
}

// Reading is how a step came out. Off is how far its figure lies from good, in its own unit, and Shown the figure
// as it is said; both are valid with Told.
type Reading struct {
	Verdict metrology.Verdict
	Off     float64
	Told    bool
	Shown   string
}

// Try is an attempt: what was changed before it, and how its steps came out.
type Try struct {
	Number int
	Moves  []Move
	Steps  map[string]Reading // by code of the step; none where it was not done
}

// has reports that a change of a kind is among those of the attempt.
func (t Try) has(kind Kind) bool {
	return slices.ContainsFunc(t.Moves, func(m Move) bool { return m.Kind == kind })
}

// lasts reports that the unit is after the attempt as it was in it: a joint that was slack is drawn again, and what
// hides a fault is taken back before anybody believes a figure.
func (t Try) lasts() bool { return !t.has(Loosen) && !t.has(Mask) }

// Outcome is how a reading stands to the one before it.
type Outcome string

// The outcomes. Better and worse are told by figures, a quarter of the way at least; without them a step that is
// still out is the same.
const (
	Right  Outcome = "right"
	Better Outcome = "better"
	Same   Outcome = "same"
	Worse  Outcome = "worse"
)

// Outcomes are all of them, best first.
var Outcomes = []Outcome{Right, Better, Same, Worse}

// telling is the share of what a figure is off that must come or go to be told.
const telling = 0.25

// against tells how a reading came out after another; ok is false where it tells nothing.
func (now Reading) against(was Reading) (o Outcome, ok bool) {
	switch {
	case now.Verdict == metrology.In:
		return Right, true
	case now.Verdict != metrology.Out:
		return "", false
	case was.Verdict != metrology.Out:
		return Worse, true
	case was.Told && now.Told && now.Off <= (1-telling)*was.Off:
		return Better, true
	case was.Told && now.Told && now.Off >= (1+telling)*was.Off:
		return Worse, true
	}
	return Same, true
}
