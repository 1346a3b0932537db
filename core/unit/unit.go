package unit

import (
	"time"

	"corvek/core/quantity"
)

// Unit is one hydraulic unit on the bench.
type Unit struct {
	Number int    `json:"number,omitempty"` // from 1 within the job
	Family string `json:"family,omitempty"`

	Name     string `json:"name,omitempty"`
	Maker    string `json:"maker,omitempty"`
	Model    string `json:"model,omitempty"`
	Serial   string `json:"serial,omitempty"`
	Variant  string `json:"variant,omitempty"`
	Rotation string `json:"rotation,omitempty"` // right, left or both, seen on the shaft end

	Fluid        string            `json:"fluid,omitempty"`
	Viscosity    quantity.Quantity `json:"viscosity,omitzero"` // at duty
	Density      quantity.Quantity `json:"density,omitzero"`
	Displacement quantity.Quantity `json:"displacement,omitzero"`
	Speed        quantity.Quantity `json:"speed,omitzero"`
	DutyPressure quantity.Quantity `json:"duty_pressure,omitzero"`
	Temperature  quantity.Quantity `json:"temperature,omitzero"`
	Hours        quantity.Quantity `json:"hours,omitzero"`
	Filtration   string            `json:"filtration,omitempty"`

	Changed          string `json:"changed,omitempty"`           // what changed lately
	Modification     string `json:"modification,omitempty"`      // made in the field
	ModificationKept string `json:"modification_kept,omitempty"` // what became of it at Build

	ShimsFitted    string            `json:"shims_fitted,omitempty"`    // 0.10 mm, 0.05 mm
	ShimsAvailable string            `json:"shims_available,omitempty"` // 0.05 mm x2, 0.02 mm
	OffBody        quantity.Quantity `json:"off_body,omitzero"`
	OffGears       quantity.Quantity `json:"off_gears,omitzero"`

	Limits  []*StepLimit `json:"step_limits,omitempty"` // of the test, from a document or a customer
	Setting Setting      `json:"setting,omitzero"`      // of its relief, where the book or the customer gives one

	NotAsked string            `json:"not_asked,omitempty"` // why nobody at the machine can be asked
	Gauge    map[string]string `json:"gauge,omitempty"`     // answers by question
	Identity map[string]string `json:"identity,omitempty"`  // yes or no by identity mark
	More     map[string]string `json:"more,omitempty"`      // how often more than in the family, by assembly

	Ending     string `json:"ending,omitempty"`      // one of the End constants
	EndingNote string `json:"ending_note,omitempty"` // what replaced it, where it went

	Capacity        quantity.Quantity `json:"capacity,omitzero"`
	LevelBefore     quantity.Quantity `json:"level_before,omitzero"`
	Drained         quantity.Quantity `json:"drained,omitzero"`
	Water           quantity.Quantity `json:"water,omitzero"`
	GainedElsewhere quantity.Quantity `json:"gained_elsewhere,omitzero"`
	Vessel          quantity.Quantity `json:"vessel,omitzero"`
	DrainedLook     string            `json:"drained_look,omitempty"`
	Flushed         string            `json:"flushed,omitempty"`
	FlushedBy       string            `json:"flushed_by,omitempty"`
	Flushes         map[string]string `json:"flush,omitempty"`      // done or none, by place of the circuit
	Filled          map[string]string `json:"fill,omitempty"`       // when, or none, by step of the filling
	OtherSump       string            `json:"other_sump,omitempty"` // what became of the sump that gained

	Accounts    []*Account    `json:"accounts,omitempty"`
	Rounds      []*Round      `json:"rounds,omitempty"`
	Parts       []*Part       `json:"parts,omitempty"` // in the order they came off
	Loose       []*Loose      `json:"loose_items,omitempty"`
	Marks       []*Mark       `json:"evidence,omitempty"`
	Conclusions []*Conclusion `json:"conclusions,omitempty"`
	Causes      []*NamedCause `json:"causes,omitempty"` // beside the root causes concluded
	Kit         []*Piece      `json:"kit,omitempty"`
	Attempts    []*Attempt    `json:"attempts,omitempty"`
}

// Setting is the pressure that a unit's relief is to hold, from a document or as it was
// agreed. What was not given is zero.
type Setting struct {
	Low    quantity.Quantity `json:"low,omitzero"`
	High   quantity.Quantity `json:"high,omitzero"`
	Source string            `json:"source,omitempty"`
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
	Number int    `json:"number,omitempty"`
	Teller string `json:"teller,omitempty"`
	Words  string `json:"words,omitempty"`
}

// Round is one pass through the stations; a failed test opens the next.
type Round struct {
	Number   int       `json:"number,omitempty"`
	Reason   string    `json:"reason,omitempty"`
	BackTo   string    `json:"back_to,omitempty"`
	OpenedBy string    `json:"opened_by,omitempty"`
	OpenedAt time.Time `json:"opened_at,omitzero"`
}

// Loose is debris or a piece found lying loose.
type Loose struct {
	Number   int    `json:"number,omitempty"`
	What     string `json:"what,omitempty"`
	Place    string `json:"place,omitempty"`
	Count    int    `json:"count,omitempty"`
	Fragment bool   `json:"bit,omitempty"`  // a piece of a broken one, not a whole one
	Part     string `json:"part,omitempty"` // code of the part it belongs to, "" while not told
	Note     string `json:"note,omitempty"` // what it is, where it belongs to no part
}

// Piece is a line of the repair kit.
type Piece struct {
	Number     int    `json:"line,omitempty"`
	Code       string `json:"number,omitempty"` // what stands on the bag
	Name       string `json:"name,omitempty"`
	Count      int    `json:"count,omitempty"`
	Part       string `json:"part,omitempty"` // code of the part it is for, "" while not told
	LeftReason string `json:"left_reason,omitempty"`
	Seal       Seal   `json:"seal,omitzero"`
	Fit        Fit    `json:"fit,omitzero"` // where it was tried
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
