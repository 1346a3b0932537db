package unit

import (
	"strings"
	"time"

	"corvek/core/family"
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

// Attempt finds a run of the test by its number, nil when there is none.
func (u *Unit) Attempt(number int) *Attempt {
	return find(u.Attempts, func(a *Attempt) bool { return a.Number == number })
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

// Feature is something measured, with the limit that holds on this unit.
type Feature struct {
	Code       string
	Lower      quantity.Quantity
	Upper      quantity.Quantity
	Standing   string // where the limit is from
	Source     string // the document it stands in
	Measured   string // total or each
	LimitFor   string // total or each
	Instrument string
	Resolution quantity.Quantity
	Readings   []*Reading
}

// Typed notes that a limit was typed here: it is the shop's then, and no longer what
// shipped.
func (f *Feature) Typed() {
	if f.Standing == string(family.StandingGuidance) || f.Standing == string(family.StandingNone) {
		f.Standing = string(family.StandingShop)
	}
}

// Stands is what the limit is worth: a maker's or a standard's only with the document
// it stands in.
func (f *Feature) Stands() family.Standing {
	s := family.Standing(f.Standing)
	if f.Source == "" && (s == family.StandingMaker || s == family.StandingStandard) {
		return family.StandingShop
	}
	return s
}

// The stages a reading belongs to.
const (
	StageFound = "found"
	StageBuilt = "built"
)

// Reading is one figure, leaf or grade.
type Reading struct {
	Round int
	Stage string
	Slot  string
	Value string            // as typed
	Size  quantity.Quantity // the figure, where the slot holds one
	By    string
	At    time.Time
}

// Mark is something looked for on the unit or on one of its parts: seen, absent,
// or not said.
type Mark struct {
	Round  int
	Code   string
	State  string // seen or absent
	Grade  string // of a mark on a part: light, clear or heavy
	Origin string // found_so, made_by_us or unknown
	Note   string
	How    string // before or after freeing or wiping
	Age    string
}

// The states and origins of a mark.
const (
	MarkSeen      = "seen"
	MarkAbsent    = "absent"
	OriginFound   = "found_so"
	OriginBench   = "made_by_us"
	OriginUnknown = "unknown"
)

// Conclusion is what was found to be the cause.
type Conclusion struct {
	Round       int
	Cause       string // a code, or CauseNotFound
	Statement   string
	Action      string
	Owner       string
	Blamed      string // a part outside the unit that is blamed
	BlamedFound string // what was measured on it
	Cured       string // what was done before another unit ran there
}

// CauseNotFound concludes that the cause was looked for and not found.
const CauseNotFound = "not_found"

// Conclusion is the newest conclusion; the zero one when there is none.
func (u *Unit) Conclusion() Conclusion {
	if c := latest(u.Conclusions, func(c *Conclusion) int { return c.Round }); c != nil {
		return *c
	}
	return Conclusion{}
}

// LastSaid is what was last said of a mark. Of one nobody spoke of it is that
// it would be found so.
func (u *Unit) LastSaid(code string) Mark { return lastSaid(u.Marks, code) }

func lastSaid(marks []*Mark, code string) Mark {
	var of []*Mark
	for _, m := range marks {
		if m.Code == code {
			of = append(of, m)
		}
	}
	said := Mark{Code: code}
	if m := latest(of, func(m *Mark) int { return m.Round }); m != nil {
		said = *m
	}
	if said.Origin == "" {
		said.Origin = OriginFound
	}
	return said
}

// Decision is a person's choice for a part.
type Decision struct {
	Round  int
	Choice string // keep, rework or replace; "" follows the proposal
	Reason string
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

// StepLimit is what a figure of a step of the test must be on this unit.
type StepLimit struct {
	Code        string // STEP.FIGURE
	Least, Most quantity.Quantity
	Source      string // the document or the person that says so
}

// StepLimit finds the unit's own limit of a figure, nil where it has none.
func (u *Unit) StepLimit(step, figure string) *StepLimit {
	return find(u.Limits, func(l *StepLimit) bool { return l.Code == step+"."+figure })
}

// Figure is the code of the figure that is limited.
func (l *StepLimit) Figure() string {
	_, figure, _ := strings.Cut(l.Code, ".")
	return figure
}

// Step is the code of the step that reads it.
func (l *StepLimit) Step() string {
	step, _, _ := strings.Cut(l.Code, ".")
	return step
}

// LimitRef addresses a field of the unit's own limit of a figure.
func (u *Unit) LimitRef(step, figure, name string) Ref {
	return Ref{Scope: ScopeLimit, Unit: u.Number, Code: step + "." + figure, Name: name}
}

// Attempt is a run of the bench test; number 0 is as received.
type Attempt struct {
	Number    int
	Round     int
	Source    string // typed or simulated
	OneChange string
	Note      string
	Closed    bool
	Verdict   string
	By        string
	At        time.Time
	Points    []*Point

	ChangeKind, ChangePart               string // of the one change: what was done, to which part
	SecondChange, SecondKind, SecondPart string // made at once with it
	PressureGauge, FlowMeter             string // the shop's names of what the figures were read with
}

// Where an attempt's figures are from.
const (
	SourceTyped     = "typed"
	SourceStand     = "stand"     // a real one, over its link
	SourceLog       = "log"       // a log that another stand wrote
	SourceSimulated = "simulated" // an exercise
)

// Point finds a step of the attempt, nil where nothing was entered.
func (a *Attempt) Point(code string) *Point {
	return find(a.Points, func(p *Point) bool { return p.Code == code })
}

// Point is one step of an attempt.
type Point struct {
	Code     string
	Figures  map[string]quantity.Quantity // what was read, by the code of the figure
	Word     string
	HoldFrom time.Time // when its hold began, zero where it did not
	HoldTo   time.Time // when the step was last read after that
	Skipped  string    // why it does not apply to this unit, "" where it does
}

// Figure is what was read of one thing; the zero quantity where it was not.
func (p *Point) Figure(code string) quantity.Quantity { return p.Figures[code] }

// Put writes a figure; an empty one is taken away.
func (p *Point) Put(code string, q quantity.Quantity) {
	if q.IsZero() {
		delete(p.Figures, code)
		return
	}
	if p.Figures == nil {
		p.Figures = map[string]quantity.Quantity{}
	}
	p.Figures[code] = q
}

// Empty reports that nothing was entered at the step.
func (p *Point) Empty() bool {
	return len(p.Figures) == 0 && p.Word == "" && p.Skipped == ""
}

// Held is how long the step was held before it was read.
func (p *Point) Held() time.Duration {
	if p.HoldFrom.IsZero() || p.HoldTo.Before(p.HoldFrom) {
		return 0
	}
	return p.HoldTo.Sub(p.HoldFrom)
}

// Read notes that the step was read: that ends its hold.
func (p *Point) Read(now time.Time) {
	if !p.HoldFrom.IsZero() {
		p.HoldTo = now
	}
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

// Measure reads the figure of a reading once, where its slot holds one.
func (r *Reading) Measure() {
	r.Size = quantity.Quantity{}
	if q, err := quantity.Parse(r.Value, quantity.Length); err == nil {
		r.Size = q
	}
}

// Newest are a stage's readings of the last round that has any. A later round's
// readings replace those of an earlier one as a whole: mixing leaves of before
// and after a rework would contradict itself.
func (f *Feature) Newest(stage string) []*Reading {
	newest := 0
	for _, r := range f.Readings {
		if r.Stage == stage {
			newest = max(newest, r.Round)
		}
	}
	var out []*Reading
	for _, r := range f.Readings {
		if r.Stage == stage && r.Round == newest {
			out = append(out, r)
		}
	}
	return out
}

// FlushPlaces are the places of a circuit where pieces lie after a break-up.
var FlushPlaces = []string{"tank", "cooler_and_lines", "filters", "feed_side"}
