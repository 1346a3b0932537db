package unit

import "corvek/core/quantity"

// Part is a line of the strip record.
type Part struct {
	Code      string // unique in the unit
	Name      string
	Kind      string // what it looks like; only of a part that the family does not know
	Branch    string
	Absent    string // why it is not on this unit, "" while it is
	Expected  int
	From      string // where the number expected is from, one of the Count constants
	Why       string // why it is not the family's
	Off       bool
	Found     string // whole pieces, a number as typed, "" while not counted
	Bits      string // pieces of broken ones, a number as typed
	BitsMake  string // how many whole ones the bits make together
	Facing    string // as removed
	Fastener  string
	Note      string
	Explained string // why the count differs
	Witness   string
	Stuck     string // free, stuck or seized
	Freed     string
	Sound     bool // looked at, and no mark of its kind seen

	StackFound string // as removed
	StackFrom  string // where it is known from what belongs, one of the Stack constants
	StackRight string // what belongs, where the family does not say it for this unit
	Spring     Spring // dished springs of this unit's own size

	Joint Joint             // how this unit's own is bolted on, where it was looked at
	Coil  Coil              // of a coil spring, what was found out about this one
	Price quantity.Quantity // money for one new piece
	Lip   Lip               // of a lip seal: where the old one ran
	Seal  Seal              // what a seal or bearing is
	Order Order             // of a new one

	Features  []*Feature
	Marks     []*Mark // seen on this part
	Decisions []*Decision
	Reworks   []*Rework
	Steps     []*Step
}

// Joint is how a part is bolted on, as it was read off this unit. What was not said
// is the family's.
type Joint struct {
	Thread  string
	Class   string // a strength class, or unknown where the head bears no mark
	Dry     bool   // goes in dry; oiled otherwise
	Torque  quantity.Quantity
	Source  string            // the document the torque stands in
	Snug    bool              // even and snug is enough: nothing but seating is asked
	Locking string            // what keeps it from coming loose
	Engaged quantity.Quantity // thread that carries
}

// Spring is the size of a unit's own dished springs and the height they are held at.
// A size that was not given is zero.
type Spring struct {
	Outside, Inside, Thickness, Cone, Space quantity.Quantity
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
	Round  int
	Choice string // keep, rework or replace; "" follows the proposal
	Reason string
}

// Step is the fitting of a part.
type Step struct {
	Round  int
	Done   bool
	Facing string
	Count  string // counted in, a number as typed
	Turn   string
	Torque quantity.Quantity

	TurnTorque quantity.Quantity // to turn the shaft by hand afterwards
	Push       quantity.Quantity // force to move a spool, rod or piston afterwards
	Proud      quantity.Quantity // how far what lies under the joint stands proud
	Press      quantity.Quantity // depth of a lip seal's outer face below the housing's
	Cycled     bool              // moved by hand over its whole way, and free
	Over       string            // what was still missing under it when it went in, in words
	OrderWhy   string            // why it went in all the same
	TakenOut   int               // how often it came out again

	Note string
	By   string

	StackRemoved string // as it came off in this round, where that is not the first
	StackFit     string // as fitted
}

// TakeOut notes that the part came out again: what was seen and felt of its fitting is said
// anew when it goes back.
func (s *Step) TakeOut() {
	*s = Step{Round: s.Round, Note: s.Note, By: s.By, StackRemoved: s.StackRemoved, TakenOut: s.TakenOut + 1}
}
