package unit

import "corvek/core/quantity"

// Part is a line of the strip record.
type Part struct {
	Code          string `json:"code,omitempty"` // unique in the unit
	Name          string `json:"name,omitempty"`
	Kind          string `json:"kind,omitempty"` // what it looks like; only of a part that the family does not know
	Branch        string `json:"branch,omitempty"`
	Absent        string `json:"absent,omitempty"` // why it is not on this unit, "" while it is
	Expected      int    `json:"expected,omitempty"`
	From          string `json:"expected_from,omitempty"` // of the number expected, a Count constant
	Why           string `json:"expected_why,omitempty"`  // why it is not the family's
	Off           bool   `json:"off,omitempty"`
	Found         string `json:"found,omitempty"`     // whole pieces, a number as typed, "" while not counted
	Fragments     string `json:"bits,omitempty"`      // pieces of broken ones, a number as typed
	FragmentsMake string `json:"bits_make,omitempty"` // how many whole ones the bits make together
	Facing        string `json:"facing,omitempty"`    // as removed
	Fastener      string `json:"fastener,omitempty"`
	Note          string `json:"note,omitempty"`
	Explained     string `json:"explained,omitempty"` // why the count differs
	Witness       string `json:"witness,omitempty"`
	Stuck         string `json:"stuck,omitempty"` // free, stuck or seized
	Freed         string `json:"freed,omitempty"`
	Sound         bool   `json:"sound,omitempty"` // looked at, and no mark of its kind seen

	StackFound string `json:"stack_found,omitempty"` // as removed
	StackFrom  string `json:"stack_from,omitempty"`  // where it is known from what belongs, one of the Stack constants
	StackRight string `json:"stack_right,omitempty"` // what belongs, where the family does not say it for this unit
	Spring     Spring `json:"spring,omitzero"`       // dished springs of this unit's own size

	Joint Joint             `json:"joint,omitzero"` // how this unit's own is bolted on, where it was looked at
	Coil  Coil              `json:"coil,omitzero"`  // of a coil spring, what was found out about this one
	Price quantity.Quantity `json:"price,omitzero"` // money for one new piece
	Lip   Lip               `json:"lip,omitzero"`   // of a lip seal: where the old one ran
	Seal  Seal              `json:"seal,omitzero"`  // what a seal or bearing is
	Order Order             `json:"order,omitzero"` // of a new one

	Features  []*Feature  `json:"features,omitempty"`
	Marks     []*Mark     `json:"marks,omitempty"` // seen on this part
	Decisions []*Decision `json:"decisions,omitempty"`
	Reworks   []*Rework   `json:"reworks,omitempty"`
	Steps     []*Step     `json:"steps,omitempty"`
}

// Joint is how a part is bolted on, as it was read off this unit. What was not said
// is the family's.
type Joint struct {
	Thread  string            `json:"thread,omitempty"`
	Class   string            `json:"class,omitempty"` // a strength class, or unknown where the head bears no mark
	Dry     bool              `json:"dry,omitempty"`   // goes in dry; oiled otherwise
	Torque  quantity.Quantity `json:"torque,omitzero"`
	Source  string            `json:"source,omitempty"`  // the document the torque stands in
	Snug    bool              `json:"snug,omitempty"`    // even and snug is enough: nothing but seating is asked
	Locking string            `json:"locking,omitempty"` // what keeps it from coming loose
	Engaged quantity.Quantity `json:"engaged,omitzero"`  // thread that carries
}

// Spring is the size of a unit's own dished springs and the height they are held at.
// A size that was not given is zero.
type Spring struct {
	Outside   quantity.Quantity `json:"outside,omitzero"`
	Inside    quantity.Quantity `json:"inside,omitzero"`
	Thickness quantity.Quantity `json:"thickness,omitzero"`
	Cone      quantity.Quantity `json:"cone,omitzero"`
	Space     quantity.Quantity `json:"space,omitzero"`
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
	Round  int    `json:"round,omitempty"`
	Choice string `json:"choice,omitempty"` // keep, rework or replace; "" follows the proposal
	Reason string `json:"reason,omitempty"`
}

// Step is the fitting of a part.
type Step struct {
	Round  int               `json:"round,omitempty"`
	Done   bool              `json:"done,omitempty"`
	Facing string            `json:"facing,omitempty"`
	Count  string            `json:"count,omitempty"` // counted in, a number as typed
	Turn   string            `json:"turn,omitempty"`
	Torque quantity.Quantity `json:"torque,omitzero"`

	TurnTorque quantity.Quantity `json:"turn_torque,omitzero"` // to turn the shaft by hand afterwards
	Push       quantity.Quantity `json:"push,omitzero"`        // force to move a spool, rod or piston afterwards
	Proud      quantity.Quantity `json:"proud,omitzero"`       // how far what lies under the joint stands proud
	Press      quantity.Quantity `json:"press,omitzero"`       // depth of a lip seal's outer face below the housing's
	Cycled     bool              `json:"cycled,omitempty"`     // moved by hand over its whole way, and free
	Over       string            `json:"over,omitempty"`       // what was missing under it when it went in, in words
	OrderWhy   string            `json:"order_why,omitempty"`  // why it went in all the same
	TakenOut   int               `json:"taken_out,omitempty"`  // how often it came out again

	Note string `json:"note,omitempty"`
	By   string `json:"by,omitempty"`

	StackRemoved string `json:"stack_removed,omitempty"` // as it came off in this round, where that is not the first
	StackFit     string `json:"stack_fit,omitempty"`     // as fitted
}

// TakeOut notes that the part came out again: what was seen and felt of its fitting is said
// anew when it goes back.
func (s *Step) TakeOut() {
	*s = Step{Round: s.Round, Note: s.Note, By: s.By, StackRemoved: s.StackRemoved, TakenOut: s.TakenOut + 1}
}
