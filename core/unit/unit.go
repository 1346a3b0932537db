package unit

import (
	"time"

	"corvek/core/quantity"
)

// Unit is one hydraulic unit on the bench.
type Unit struct {
	OfJob `json:"-"`

	// From 1 within the job
	Number int    `json:"number,omitempty" gorm:"primaryKey"`
	Family string `json:"family,omitempty"`

	Name    string `json:"name,omitempty"`
	Maker   string `json:"maker,omitempty"`
	Model   string `json:"model,omitempty"`
	Serial  string `json:"serial,omitempty"`
	Variant string `json:"variant,omitempty"`
	KitCame string `json:"kit_came,omitempty"` // which kit came, as it is called on its bag
	// Where it sits: the customer's machine, and its number in his books
	Machine string `json:"machine,omitempty"`
	Asset   string `json:"asset,omitempty"`
	// Right, left or both, seen on the shaft end
	Rotation string `json:"rotation,omitempty"`

	Fluid string `json:"fluid,omitempty"`
	// At duty
	Viscosity    quantity.Quantity `json:"viscosity,omitzero" gorm:"serializer:kinematic viscosity"`
	Density      quantity.Quantity `json:"density,omitzero" gorm:"serializer:density"`
	Displacement quantity.Quantity `json:"displacement,omitzero" gorm:"serializer:displacement"`
	Speed        quantity.Quantity `json:"speed,omitzero" gorm:"serializer:rotation"`
	DutyPressure quantity.Quantity `json:"duty_pressure,omitzero" gorm:"serializer:pressure"`
	// What its maker rates it for
	RatedPressure quantity.Quantity `json:"rated_pressure,omitzero" gorm:"serializer:pressure"`
	Temperature   quantity.Quantity `json:"temperature,omitzero" gorm:"serializer:temperature"`
	// Of its parts when they were measured
	PartsTemperature quantity.Quantity `json:"parts_temperature,omitzero" gorm:"serializer:temperature"`
	Hours            quantity.Quantity `json:"hours,omitzero" gorm:"serializer:time;bare:h"`
	Filtration       string            `json:"filtration,omitempty"`

	// What changed lately
	Changed string `json:"changed,omitempty"`
	// Made in the field
	Modification string `json:"modification,omitempty"`
	// What became of it at Build
	ModificationKept string `json:"modification_kept,omitempty"`

	// 0.10 mm, 0.05 mm
	ShimsFitted string `json:"shims_fitted,omitempty"`
	// 0.05 mm x2, 0.02 mm
	ShimsAvailable string            `json:"shims_available,omitempty"`
	OffBody        quantity.Quantity `json:"off_body,omitzero" gorm:"serializer:length"`
	OffGears       quantity.Quantity `json:"off_gears,omitzero" gorm:"serializer:length"`

	// Of the test, from a document or a customer
	Limits []*StepLimit `json:"step_limits,omitempty" gorm:"foreignKey:JobID,Unit"`
	// Of its relief, where the book or the customer gives one
	Setting Setting `json:"setting,omitzero" gorm:"embedded;embeddedPrefix:setting_"`

	// What the machine asks of it
	Need Need `json:"need,omitzero" gorm:"embedded;embeddedPrefix:need_"`

	// Why nobody at the machine can be asked
	NotAsked string `json:"not_asked,omitempty"`
	// Why it could not be run as it came: there is no before
	NoBefore string `json:"no_before,omitempty"`
	// Answers by question
	Gauge map[string]string `json:"gauge,omitempty" gorm:"serializer:answers"`
	// Yes or no by identity mark
	Identity map[string]string `json:"identity,omitempty" gorm:"serializer:answers"`
	// How often more than in the family, by assembly
	More map[string]string `json:"more,omitempty" gorm:"serializer:answers"`

	// One of the End constants
	Ending string `json:"ending,omitempty"`
	// What replaced it, where it went
	EndingNote string `json:"ending_note,omitempty"`

	Capacity        quantity.Quantity `json:"capacity,omitzero" gorm:"serializer:volume"`
	LevelBefore     quantity.Quantity `json:"level_before,omitzero" gorm:"serializer:volume"`
	Drained         quantity.Quantity `json:"drained,omitzero" gorm:"serializer:volume"`
	Water           quantity.Quantity `json:"water,omitzero" gorm:"serializer:volume"`
	GainedElsewhere quantity.Quantity `json:"gained_elsewhere,omitzero" gorm:"serializer:volume"`
	Vessel          quantity.Quantity `json:"vessel,omitzero" gorm:"serializer:volume"`
	DrainedLook     string            `json:"drained_look,omitempty"`
	Flushed         string            `json:"flushed,omitempty"`
	FlushedBy       string            `json:"flushed_by,omitempty"`
	// Done or none, by place of the circuit
	Flushes map[string]string `json:"flush,omitempty" gorm:"column:flush;serializer:answers"`
	// When, or none, by step of the filling
	Filled map[string]string `json:"fill,omitempty" gorm:"column:fill;serializer:answers"`
	// What became of the sump that gained
	OtherSump string `json:"other_sump,omitempty"`

	Accounts []*Account `json:"accounts,omitempty" gorm:"foreignKey:JobID,Unit"`
	Rounds   []*Round   `json:"rounds,omitempty" gorm:"foreignKey:JobID,Unit"`
	// In the order they came off
	Parts       []*Part       `json:"parts,omitempty" gorm:"foreignKey:JobID,Unit"`
	Loose       []*Loose      `json:"loose_items,omitempty" gorm:"foreignKey:JobID,Unit"`
	Marks       []*UnitMark   `json:"evidence,omitempty" gorm:"foreignKey:JobID,Unit"`
	Conclusions []*Conclusion `json:"conclusions,omitempty" gorm:"foreignKey:JobID,Unit"`
	// Beside the root causes concluded
	Causes   []*NamedCause `json:"causes,omitempty" gorm:"foreignKey:JobID,Unit"`
	Kit      []*Piece      `json:"kit,omitempty" gorm:"foreignKey:JobID,Unit"`
	Attempts []*Attempt    `json:"attempts,omitempty" gorm:"foreignKey:JobID,Unit"`
	// What stood when figures of its test were taken
	Grounds []*Ground `json:"grounds,omitempty" gorm:"foreignKey:JobID,Unit"`
}

// Setting is the pressure that a unit's relief is to hold, from a document or as it was
// agreed. What was not given is zero.
type Setting struct {
	Low    quantity.Quantity `json:"low,omitzero" gorm:"serializer:pressure"`
	High   quantity.Quantity `json:"high,omitzero" gorm:"serializer:pressure"`
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
	OfUnit `json:"-"`

	Number int    `json:"number,omitempty" gorm:"primaryKey;column:line"`
	Teller string `json:"teller,omitempty"`
	Words  string `json:"words,omitempty"`
}

// Round is one pass through the stations; a failed test opens the next.
type Round struct {
	OfUnit `json:"-"`

	Number   int       `json:"number,omitempty" gorm:"primaryKey"`
	Reason   string    `json:"reason,omitempty"`
	BackTo   string    `json:"back_to,omitempty"`
	OpenedBy string    `json:"opened_by,omitempty"`
	OpenedAt time.Time `json:"opened_at,omitzero"`
}

// Loose is debris or a piece found lying loose.
type Loose struct {
	OfUnit `json:"-"`

	Number   int    `json:"number,omitempty" gorm:"primaryKey;column:line"`
	What     string `json:"what,omitempty"`
	Place    string `json:"place,omitempty"`
	Count    int    `json:"count,omitempty"`
	Fragment bool   `json:"bit,omitempty" gorm:"column:bit"` // a piece of a broken one, not a whole one
	Part     string `json:"part,omitempty"`                  // code of the part it belongs to, "" while not told
	Note     string `json:"note,omitempty"`                  // what it is, where it belongs to no part
}

// Piece is a line of the repair kit.
type Piece struct {
	OfUnit `json:"-"`

	Number     int    `json:"line,omitempty" gorm:"primaryKey;column:line"`
	Code       string `json:"number,omitempty" gorm:"column:number"` // what stands on the bag
	Name       string `json:"name,omitempty"`
	Count      int    `json:"count,omitempty"`
	Part       string `json:"part,omitempty" gorm:"column:place"` // code of the part it is for, "" while not told
	LeftReason string `json:"left_reason,omitempty"`
	Lot        string `json:"lot,omitempty"`    // of the shop's stock that it was taken of, "" where it came in a bag
	ToLot      string `json:"to_lot,omitempty"` // of the stock that it was put to, "" while it is with the unit
	Seal       Seal   `json:"seal,omitzero" gorm:"embedded"`
	Fit        Fit    `json:"fit,omitzero" gorm:"embedded"` // where it was tried
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
