package explain

import (
	"cmp"
	"slices"
)

// Reach is how far a unit must be taken apart before a mark can be looked at.
type Reach string

// The places, nearest first.
const (
	Asked    Reach = "asked"    // told by those who ran it
	Outside  Reach = "outside"  // on the machine, or on the unit as it came
	Opened   Reach = "opened"   // once it is open
	Stripped Reach = "stripped" // with its parts laid out and washed
)

// Places are all places, nearest first.
var Places = []Reach{Asked, Outside, Opened, Stripped}

// Situation is how far a unit has come when somebody asks what to look at next.
type Situation struct {
	Reached Reach // how far it is taken apart
	MayRun  bool  // it is whole, and nothing in it is known to be broken
	Alone   bool  // it came without its machine, and nobody is there who can be asked of it

	nothingLate bool // what is seen only before can be told all the same
}

// What a check costs beside the look itself, in minutes: to fetch tool and lamp or the
// one who knows, and to get there. What is opened is not as it was, so that it comes late.
const (
	base  = 10
	open  = 20
	strip = 60
	call  = 10 // somebody goes to the machine once the unit lies open on a bench
)

var way = map[Reach]float64{Opened: open, Stripped: strip}

// Cost is the minutes of a look, with opening the unit up to it.
func (s Situation) Cost(e *Evidence) float64 {
	minutes := e.Minutes + base + max(0, way[e.At]-way[s.Reached])
	if e.There && way[s.Reached] > 0 {
		minutes += call
	}
	return minutes
}

// Can reports that the look is possible in the situation: the unit may still run, and it
// is not too far apart for what is seen only before.
func (s Situation) Can(e *Evidence) bool {
	if s.Alone && (e.There || e.From.Gauge.Asked()) {
		return false
	}
	late := !s.nothingLate && e.Before != "" && slices.Index(Places, s.Reached) >= slices.Index(Places, e.Before)
	return (s.MayRun || !e.Runs) && !late
}

// Opening is how many minutes it takes to come so far.
func (r Reach) Opening() float64 { return way[r] }

// makesSense reports that a look may be asked for: of what it comes after, something
// was seen.
func (c caseState) makesSense(e *Evidence) bool {
	return len(e.After) == 0 || slices.ContainsFunc(c.facts, func(f fact) bool {
		return f.s > half && slices.Contains(e.After, f.e.Code)
	})
}

// half is the strength above which a mark is rather there than not.
const half = 0.5

// In is the same knowledge for a unit that has come so far.
func (k *Knowledge) In(s Situation) *Knowledge {
	c := *k
	c.situation = &s
	return &c
}

// where is the situation that is asked for; without one everything can be reached.
func (k *Knowledge) where() Situation {
	if k.situation == nil {
		return Situation{Reached: Stripped, MayRun: true, nothingLate: true}
	}
	return *k.situation
}

// question is what is done to get the answer, "" for a look of its own: marks that one
// question tells apart are one check.
func (e *Evidence) question() string {
	if e.Question != "" {
		return e.Question
	}
	return cmp.Or(e.From.Gauge.To, e.From.Word.To)
}
