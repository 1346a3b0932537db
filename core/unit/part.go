package unit

import "corvek/core/quantity"

// Part is a line of the strip record.
type Part struct {
	OfUnit `json:"-"`
	// Its place in the order in which they came off, from 1, as it was kept
	Ordinal int `json:"-" gorm:"position"`

	// Unique in the unit
	Code string `json:"code,omitempty" gorm:"primaryKey"`
	Name string `json:"name,omitempty"`
	// What it looks like; only of a part that the family does not know
	Kind   string `json:"kind,omitempty"`
	Branch string `json:"branch,omitempty"`
	// Why it is not on this unit, "" while it is
	Absent   string `json:"absent,omitempty"`
	Expected int    `json:"expected,omitempty"`
	// Of the number expected, a Count constant
	From string `json:"expected_from,omitempty" gorm:"column:expected_from"`
	// Why it is not the family's
	Why string `json:"expected_why,omitempty" gorm:"column:expected_why"`
	Off bool   `json:"off,omitempty"`
	// Whole pieces, a number as typed, "" while not counted
	Found string `json:"found,omitempty"`
	// Pieces of broken ones, a number as typed
	Fragments string `json:"bits,omitempty" gorm:"column:bits"`
	// How many whole ones the bits make together
	FragmentsMake string `json:"bits_make,omitempty" gorm:"column:bits_make"`
	// As removed
	Facing   string `json:"facing,omitempty"`
	Fastener string `json:"fastener,omitempty"`
	Note     string `json:"note,omitempty"`
	// Why the count differs
	Explained string `json:"explained,omitempty"`
	Witness   string `json:"witness,omitempty"`
	// Free, stuck or seized
	Stuck string `json:"stuck,omitempty"`
	Freed string `json:"freed,omitempty"`
	// Looked at, and no mark of its kind seen
	Sound bool `json:"sound,omitempty"`

	// As removed
	StackFound string `json:"stack_found,omitempty"`
	// Where it is known from what belongs, one of the Stack constants
	StackFrom string `json:"stack_from,omitempty"`
	// What belongs, where the family does not say it for this unit
	StackRight string `json:"stack_right,omitempty"`
	// Dished springs of this unit's own size
	Spring Spring `json:"spring,omitzero" gorm:"embedded"`
	// Of friction plates
	Rub Rub `json:"rub,omitzero" gorm:"embedded"`

	// How this unit's own is bolted on, where it was looked at
	Joint Joint `json:"joint,omitzero" gorm:"embedded"`
	// Of a coil spring, what was found out about this one
	Coil Coil `json:"coil,omitzero" gorm:"embedded;embeddedPrefix:coil_"`
	// Money for one new piece
	Price quantity.Quantity `json:"price,omitzero" gorm:"serializer:number"`
	// Of a lip seal: where the old one ran
	Lip Lip `json:"lip,omitzero" gorm:"embedded;embeddedPrefix:lip_"`
	// What a seal or bearing is
	Seal Seal `json:"seal,omitzero" gorm:"embedded;embeddedPrefix:seal_"`
	// Of a new one
	// How it is handled: delicate, not to be had again
	Handling string `json:"handling,omitempty"`
	Order    Order  `json:"order,omitzero" gorm:"embedded;embeddedPrefix:order_"`

	Features []*Feature `json:"features,omitempty" gorm:"foreignKey:JobID,Unit,Part"`
	// Seen on this part
	Marks     []*PartMark `json:"marks,omitempty" gorm:"foreignKey:JobID,Unit,Part"`
	Decisions []*Decision `json:"decisions,omitempty" gorm:"foreignKey:JobID,Unit,Part"`
	Reworks   []*Rework   `json:"reworks,omitempty" gorm:"foreignKey:JobID,Unit,Part"`
	Steps     []*Step     `json:"steps,omitempty" gorm:"foreignKey:JobID,Unit,Part"`
}

// Joint is how a part is bolted on, as it was read off this unit. What was not said
// is the family's.
type Joint struct {
	Thread string `json:"thread,omitempty"`
	// A strength class, or unknown where the head bears no mark
	Class string `json:"class,omitempty"`
	// Goes in dry; oiled otherwise
	Dry    bool              `json:"dry,omitempty"`
	Torque quantity.Quantity `json:"torque,omitzero" gorm:"column:joint_torque;serializer:torque"`
	// The document the torque stands in
	Source string `json:"source,omitempty" gorm:"column:joint_source"`
	// Spanner and angle, where no torque is given: two flats past hand tight
	Angle string `json:"angle,omitempty" gorm:"column:joint_angle"`
	// Even and snug is enough: nothing but seating is asked
	Snug bool `json:"snug,omitempty"`
	// What keeps it from coming loose
	Locking string `json:"locking,omitempty"`
	// Thread that carries
	Engaged quantity.Quantity `json:"engaged,omitzero" gorm:"serializer:length"`
}

// Spring is the size of a unit's own dished springs and the height they are held at.
// A size that was not given is zero.
type Spring struct {
	Outside quantity.Quantity `json:"outside,omitzero" gorm:"column:spring_outside;serializer:length"`
	Inside  quantity.Quantity `json:"inside,omitzero" gorm:"column:spring_inside;serializer:length"`

	Thickness quantity.Quantity `json:"thickness,omitzero" gorm:"column:spring_thickness;serializer:length"`
	Cone      quantity.Quantity `json:"cone,omitzero" gorm:"column:spring_cone;serializer:length"`
	Space     quantity.Quantity `json:"space,omitzero" gorm:"column:stack_space;serializer:length"`
	// Force that the stack must give there
	Needed quantity.Quantity `json:"needed,omitzero" gorm:"column:stack_needed;serializer:force"`
}

// Rub is how the plates of a pack rub.
type Rub struct {
	// Coefficient of friction as it runs, static
	Friction quantity.Quantity `json:"friction,omitzero" gorm:"column:friction;serializer:number"`
	// The document it stands in, or whose experience it is
	Source string `json:"source,omitempty" gorm:"column:friction_source"`
}

// Where it is known from what stack belongs.
const (
	StackFamily    = ""           // the family's
	StackAsRemoved = "as_removed" // this unit's own, as it came off
	StackVariant   = "variant"
	StackDrawing   = "drawing"
	StackUnknown   = "unknown"
)

// Where the number of pieces expected is from.
const (
	CountFamily  = "" // the family's, as it came
	CountCounted = "counted"
	CountVariant = "variant"
	CountDrawing = "drawing"
)

// OnUnit reports that the part is on this unit.
func (p *Part) OnUnit() bool { return p.Absent == "" }

// LastSaid is what was last said of a mark on the part. Of one nobody spoke of it
// is that it would be found so.
func (p *Part) LastSaid(code string) Mark { return lastSaid(p.Marks, code) }

// Feature finds what is measured by its code, nil when there is none.
func (p *Part) Feature(code string) *Feature {
	return find(p.Features, func(f *Feature) bool { return f.Code == code })
}

// Removed is the stack as it last came off.
func (p *Part) Removed() string {
	text, round := p.StackFound, 0
	for _, s := range p.Steps {
		if s.StackRemoved != "" && s.Round >= round {
			text, round = s.StackRemoved, s.Round
		}
	}
	return text
}

// Fitted is the stack as it was fitted by a round.
func (p *Part) Fitted(round int) string {
	if s := p.Built(round); s != nil {
		return s.StackFit
	}
	return ""
}

// Step is the fitting of the part in a round, nil when nothing was done.
func (p *Part) Step(round int) *Step {
	return find(p.Steps, func(s *Step) bool { return s.Round == round })
}

// Built is how the part is fitted by a round: a part that was not touched since stays as it
// was; nil when it was never fitted.
func (p *Part) Built(round int) *Step {
	var by []*Step
	for _, s := range p.Steps {
		if s.Round <= round {
			by = append(by, s)
		}
	}
	return latest(by, func(s *Step) int { return s.Round })
}

// Decision is what was decided last, nil when nothing was.
func (p *Part) Decision() *Decision {
	return latest(p.Decisions, func(d *Decision) int { return d.Round })
}

// Decision is a person's choice for a part.
type Decision struct {
	OfPart `json:"-"`

	Round  int    `json:"round,omitempty" gorm:"primaryKey"`
	Choice string `json:"choice,omitempty"` // keep, rework or replace; "" follows the proposal
	Reason string `json:"reason,omitempty"`
}

// Step is the fitting of a part.
type Step struct {
	OfPart `json:"-"`

	Round  int    `json:"round,omitempty" gorm:"primaryKey"`
	Done   bool   `json:"done,omitempty"`
	Facing string `json:"facing,omitempty"`
	// Counted in, a number as typed
	Count string `json:"count,omitempty"`
	Turn  string `json:"turn,omitempty"`
	// At which round of tightening it first went so, one of Rounds of build
	TurnRound string            `json:"turn_round,omitempty"`
	Torque    quantity.Quantity `json:"torque,omitzero" gorm:"serializer:torque"`

	// To turn the shaft by hand afterwards
	TurnTorque quantity.Quantity `json:"turn_torque,omitzero" gorm:"serializer:torque"`
	// Force to move a spool, rod or piston afterwards
	Push quantity.Quantity `json:"push,omitzero" gorm:"serializer:force"`
	// How far what lies under the joint stands proud
	Proud quantity.Quantity `json:"proud,omitzero" gorm:"serializer:length"`
	// Depth of a lip seal's outer face below the housing's
	Press quantity.Quantity `json:"press,omitzero" gorm:"serializer:length"`
	// Moved by hand over its whole way, and free
	Cycled bool `json:"cycled,omitempty"`
	// What was missing under it when it went in, in words
	Over string `json:"over,omitempty"`
	// Why it went in all the same
	OrderWhy string `json:"order_why,omitempty"`
	// How often it came out again
	TakenOut int `json:"taken_out,omitempty"`

	Note string `json:"note,omitempty"`
	By   string `json:"by,omitempty" gorm:"column:by_name"`

	// As it came off in this round, where that is not the first
	StackRemoved string `json:"stack_removed,omitempty"`
	// As fitted
	StackFit string `json:"stack_fit,omitempty"`
}

// TakeOut notes that the part came out again: what was seen and felt of its fitting is said
// anew when it goes back.
func (s *Step) TakeOut() {
	*s = Step{Round: s.Round, Note: s.Note, By: s.By, StackRemoved: s.StackRemoved, TakenOut: s.TakenOut + 1}
}
