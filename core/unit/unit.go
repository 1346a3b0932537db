package unit

import (
	"time"

	"corvek/core/quantity"
)

// Unit is one hydraulic unit on the bench.
type Unit struct {
	Number int // from 1 within the job
	Family string

	Name     string
	Maker    string
	Model    string
	Serial   string
	Variant  string
	Rotation string // right, left or both, seen on the shaft end

	Fluid        string
	Viscosity    quantity.Quantity // at duty
	Density      quantity.Quantity
	Displacement quantity.Quantity
	Speed        quantity.Quantity
	DutyPressure quantity.Quantity
	Temperature  quantity.Quantity
	Hours        quantity.Quantity
	Filtration   string

	Changed          string // what changed lately
	Modification     string // made in the field
	ModificationKept string // what became of it at Build

	ShimsFitted    string // 0.10 mm, 0.05 mm
	ShimsAvailable string // 0.05 mm x2, 0.02 mm
	OffBody        quantity.Quantity
	OffGears       quantity.Quantity

	Limits  []*StepLimit // of figures of the test, that this unit has from a document or a customer
	Setting Setting      // of its relief, where the book or the customer gives one

	NotAsked string            // why nobody at the machine can be asked
	Gauge    map[string]string // answers by question
	Identity map[string]string // yes or no by identity mark
	More     map[string]string // how often more than in the family, by assembly

	Ending     string // one of the End constants
	EndingNote string // what replaced it, where it went

	Capacity        quantity.Quantity
	LevelBefore     quantity.Quantity
	Drained         quantity.Quantity
	Water           quantity.Quantity
	GainedElsewhere quantity.Quantity
	Vessel          quantity.Quantity
	DrainedLook     string
	Flushed         string
	FlushedBy       string
	Flushes         map[string]string // done or none, by place of the circuit
	Filled          map[string]string // when, or none, by step of the filling
	OtherSump       string            // what became of the sump that gained

	Accounts    []*Account
	Rounds      []*Round
	Parts       []*Part // in the order they came off
	Loose       []*Loose
	Marks       []*Mark
	Conclusions []*Conclusion
	Causes      []*NamedCause // beside the root causes concluded
	Kit         []*Piece
	Attempts    []*Attempt
}

// Setting is the pressure that a unit's relief is to hold, from a document or as it was
// agreed. What was not given is zero.
type Setting struct {
	Low, High quantity.Quantity
	Source    string
}

// Round is the number of the round at work.
func (u *Unit) Round() int { return u.Rounds[len(u.Rounds)-1].Number }

// Part finds a part by its code, nil when there is none.
func (u *Unit) Part(code string) *Part {
	return find(u.Parts, func(p *Part) bool { return p.Code == code })
}

// LooseNo finds what was found loose by its number.
func (u *Unit) LooseNo(number int) *Loose {
	return find(u.Loose, func(l *Loose) bool { return l.Number == number })
}

// Piece finds a kit piece by its number.
func (u *Unit) Piece(number int) *Piece {
	return find(u.Kit, func(k *Piece) bool { return k.Number == number })
}

// Account is what one person told of the unit. Two that agree are two sources
// and no proof: they may have it from one another.
type Account struct {
	Number int
	Teller string
	Words  string
}

// Round is one pass through the stations; a failed test opens the next.
type Round struct {
	Number   int
	Reason   string
	BackTo   string
	OpenedBy string
	OpenedAt time.Time
}

// Loose is debris or a piece found lying loose.
type Loose struct {
	Number int
	What   string
	Place  string
	Count  int
	Bit    bool   // a piece of a broken one, not a whole one
	Part   string // code of the part it belongs to, "" while not told
	Note   string // what it is, where it belongs to no part
}

// Piece is a line of the repair kit.
type Piece struct {
	Number     int
	Code       string // what stands on the bag
	Name       string
	Count      int
	Part       string // code of the part it is for, "" while not told
	LeftReason string
	Seal       Seal
	Fit        Fit // where it was tried
}

// latest is the row of the highest round, of two the later one.
func latest[T any](rows []*T, round func(*T) int) *T {
	var best *T
	for _, r := range rows {
		if best == nil || round(r) >= round(best) {
			best = r
		}
	}
	return best
}

// FlushPlaces are the places of a circuit where pieces lie after a break-up.
var FlushPlaces = []string{"tank", "cooler_and_lines", "filters", "feed_side"}
