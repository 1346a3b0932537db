package entry

import (
	"errors"
	"strconv"
	"strings"

	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/family"
	"corvek/core/fastener"
	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"
)

var (
	errCause  = errors.New("is not a cause known for this family")
	errClosed = errors.New("this attempt is closed and stays as it was; start another")
	errHold   = errors.New("the job is on warranty hold; nothing is opened until it is lifted")
	errStack  = errors.New("has no stack whose order matters")
	errThere  = errors.New("cannot be said of a part that was counted or measured here; take that back first")
	errLeast  = errors.New("is a whole number, at least 1")
)

// How a part came off.
const (
	CameFree   = "free"
	CameStuck  = "stuck"
	CameSeized = "seized"
)

var partTable = table(unit.ScopePart)

var partFields = append(
	sealFields(partTable, "seal_", func(p *Place) *unit.Seal { return &p.Part.Seal }),
	partTable.line("absent", "Not on this unit, because", func(p *Place) *string { return &p.Part.Absent }).
		checked(mayLeaveOut),
	partTable.count("expected", "Expected", func(p *Place) *int { return &p.Part.Expected }).derived(),
	partTable.choice("expected_from", "Number expected is from",
		offer(unit.CountCounted, unit.CountVariant, unit.CountDrawing),
		func(p *Place) *string { return &p.Part.From }).derived(),
	partTable.line("expected_why", "Why another number is expected",
		func(p *Place) *string { return &p.Part.Why }).derived(),
	&Field{Scope: unit.ScopePart, Name: "off", Label: "Off the unit", Kind: Flag, Opens: true, Beside: "found",
		flag: func(p *Place) *bool { return &p.Part.Off }, check: mayOpen},
	&Field{Scope: unit.ScopePart, Name: "found", Label: "Found", Kind: Whole,
		text: func(p *Place) *string { return &p.Part.Found }},
	&Field{Scope: unit.ScopePart, Name: "bits", Label: "Pieces of broken ones", Kind: Whole,
		text: func(p *Place) *string { return &p.Part.Fragments }},
	&Field{Scope: unit.ScopePart, Name: "bits_make", Label: "They make up whole ones", Kind: Whole,
		text: func(p *Place) *string { return &p.Part.FragmentsMake }},
	partTable.choice("facing", "Facing as removed", facings, func(p *Place) *string { return &p.Part.Facing }),
	partTable.line("fastener", "Fastener and where it goes back", func(p *Place) *string { return &p.Part.Fastener }),
	partTable.area(
		"note",
		"Note: as found, before freeing or wiping",
		func(p *Place) *string { return &p.Part.Note },
	),
	partTable.line("explained", "Reason for the difference", func(p *Place) *string { return &p.Part.Explained }),
	partTable.line("witness", "Witness mark", func(p *Place) *string { return &p.Part.Witness }),
	partTable.choice("stuck", "How it came off", offer(CameFree, CameStuck, CameSeized),
		func(p *Place) *string { return &p.Part.Stuck }),
	partTable.line("freed", "What freed it", func(p *Place) *string { return &p.Part.Freed }),
	partTable.flag("sound", "Looked at: no mark on it", func(p *Place) *bool { return &p.Part.Sound }),
	partTable.area("stack_found", "Stack as removed", func(p *Place) *string { return &p.Part.StackFound }).
		checked(stack),
	partTable.choice("stack_from", "What belongs is known from", offer(unit.StackAsRemoved, unit.StackVariant,
		unit.StackDrawing, unit.StackUnknown), func(p *Place) *string { return &p.Part.StackFrom }),
	partTable.area("stack_right", "Stack as it belongs", func(p *Place) *string { return &p.Part.StackRight }).
		checked(stack),
	spring("spring_outside", "Spring outside", func(s *unit.Spring) *quantity.Quantity { return &s.Outside }),
	spring("spring_inside", "Spring inside", func(s *unit.Spring) *quantity.Quantity { return &s.Inside }),
	spring("spring_thickness", "Spring thickness", func(s *unit.Spring) *quantity.Quantity { return &s.Thickness }),
	spring("spring_cone", "Spring cone height", func(s *unit.Spring) *quantity.Quantity { return &s.Cone }),
	spring("stack_space", "Height it is held at", func(s *unit.Spring) *quantity.Quantity { return &s.Space }),
	partTable.size("stack_needed", "Force it must give there", quantity.Force,
		func(p *Place) *quantity.Quantity { return &p.Part.Spring.Needed }),
	partTable.size("friction", "Coefficient of friction, static", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Part.Rub.Friction }).checked(friction),
	partTable.line("friction_source", "Where that is from", func(p *Place) *string { return &p.Part.Rub.Source }),
	partTable.line("thread", "Thread, as measured here", func(p *Place) *string { return &p.Part.Joint.Thread }).
		checked(thread),
	partTable.choice("class", "Strength class on the head", classes,
		func(p *Place) *string { return &p.Part.Joint.Class }),
	partTable.flag("dry", "Goes in dry", func(p *Place) *bool { return &p.Part.Joint.Dry }),
	partTable.size("joint_torque", "Torque it is to have", quantity.Torque,
		func(p *Place) *quantity.Quantity { return &p.Part.Joint.Torque }),
	partTable.line("joint_source", "Document the torque stands in",
		func(p *Place) *string { return &p.Part.Joint.Source }),
	partTable.line("joint_angle", "Spanner and angle, where no torque is given",
		func(p *Place) *string { return &p.Part.Joint.Angle }),
	partTable.flag("snug", "Even and snug is enough", func(p *Place) *bool { return &p.Part.Joint.Snug }).
		checked(maySnug),
	partTable.line("locking", "Thread locking", func(p *Place) *string { return &p.Part.Joint.Locking }),
	partTable.size("engaged", "Thread engagement", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Part.Joint.Engaged }),
	lip("lip_groove", "Groove on the shaft begins at", func(l *unit.Lip) *quantity.Quantity { return &l.Groove }),
	lip("lip_groove_width", "Groove is wide", func(l *unit.Lip) *quantity.Quantity { return &l.Width }),
	lip(
		"lip_position",
		"Lip from the seal's outer face",
		func(l *unit.Lip) *quantity.Quantity { return &l.Position },
	),
	lip("lip_bore", "Bore is deep", func(l *unit.Lip) *quantity.Quantity { return &l.Bore }),
	lip("lip_shoulder", "Shoulder at, where there is one",
		func(l *unit.Lip) *quantity.Quantity { return &l.Shoulder }),
	partTable.size("price", "Price of a new one", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Part.Price }),
	partTable.choice("coil_is", "Whose spring is it?", offer(unit.CoilKinds...),
		func(p *Place) *string { return &p.Part.Coil.Is }),
	partTable.size("coil_rate", "Spring rate", quantity.SpringRate,
		func(p *Place) *quantity.Quantity { return &p.Part.Coil.Rate }),
	partTable.size("coil_wire", "Wire", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Part.Coil.Wire }),
	partTable.size("coil_mean", "Mean coil diameter", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Part.Coil.Mean }),
	partTable.size("coil_turns", "Active coils", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Part.Coil.Turns }),
	partTable.choice("order_state", "How far it is", offer(unit.OrderStates...),
		func(p *Place) *string { return &p.Part.Order.State }).orders(),
	partTable.line("order_supplier", "Supplier", func(p *Place) *string { return &p.Part.Order.Supplier }),
	partTable.line("order_number", "Order number", func(p *Place) *string { return &p.Part.Order.Number }),
	partTable.day("order_due", "Due on", func(p *Place) *unit.Date { return &p.Part.Order.Due }),
	partTable.day("order_placed", "Ordered on", func(p *Place) *unit.Date { return &p.Part.Order.Placed }),
	partTable.day("order_came", "Came on", func(p *Place) *unit.Date { return &p.Part.Order.Came }),
	partTable.count("order_days", "Lead time, days", func(p *Place) *int { return &p.Part.Order.Days }),
	partTable.line("handling", "How it is handled: delicate, not to be had again",
		func(p *Place) *string { return &p.Part.Handling }),
)

// ClassUnknown is the strength class of a bolt whose head bears no mark.
const ClassUnknown = "unknown"

func classes(*Place) []string {
	all := fastener.AllClasses()
	out := make([]string, 0, len(all)+1)
	for _, c := range all {
		out = append(out, strings.ReplaceAll(c.Name, " ", "_"))
	}
	return append(out, ClassUnknown)
}

var errSnug = errors.New("is for single screws, plugs and fittings that only seat; a circle of bolts has a torque")

// maySnug refuses snug where a joint carries: on a circle of bolts.
func maySnug(p *Place, text string) error {
	if text == Yes && (p.Def.Kind == "bolts" || p.Def.Bolt != nil && p.Def.Bolt.Circle > 1) {
		return errSnug
	}
	return nil
}

func lip(name, label string, at func(*unit.Lip) *quantity.Quantity) *Field {
	return partTable.size(name, label, quantity.Length, func(p *Place) *quantity.Quantity { return at(&p.Part.Lip) })
}

func thread(_ *Place, text string) error {
	if text == "" {
		return nil
	}
	_, err := fastener.ParseThread(text)
	return err
}

func spring(name, label string, at func(*unit.Spring) *quantity.Quantity) *Field {
	return partTable.size(
		name,
		label,
		quantity.Length,
		func(p *Place) *quantity.Quantity { return at(&p.Part.Spring) },
	)
}

// mayLeaveOut refuses to leave a part out that was counted or measured here.
func mayLeaveOut(p *Place, text string) error {
	if text == "" {
		return nil
	}
	if n, err := strconv.Atoi(p.Part.Found); err == nil && n > 0 {
		return errThere
	}
	for _, f := range p.Part.Features {
		if len(f.Readings) > 0 {
			return errThere
		}
	}
	return nil
}

// mayOpen keeps a unit under warranty closed.
func mayOpen(p *Place, text string) error {
	if text == Yes && p.Job.WarrantyHold {
		return errHold
	}
	return nil
}

func facings(p *Place) []string { return p.Def.Facings }

func stack(p *Place, text string) error {
	switch {
	case text == "":
		return nil
	case p.Def.Stack == nil:
		return errStack
	}
	_, err := p.Def.Stack.Read(text)
	return err
}

func atLeastOne(_ *Place, text string) error {
	if n, err := strconv.Atoi(text); err != nil || n < 1 {
		return errLeast
	}
	return nil
}

var decisionTable = table(unit.ScopeDecision)

var decisionFields = []*Field{
	decisionTable.choice("choice", "Keep, rework or new",
		offer(string(decide.Keep), string(decide.Rework), string(decide.Replace)),
		func(p *Place) *string { return &p.Decision.Choice }),
	decisionTable.line("reason", "Reason", func(p *Place) *string { return &p.Decision.Reason }),
}

var reworkTable = table(unit.ScopeRework)

var reworkFields = []*Field{
	reworkTable.flag("goes", "This way", func(p *Place) *bool { return &p.Rework.Goes }),
	reworkTable.size("taken", "Taken off in all", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Rework.Taken }),
	reworkTable.choice("flat_how", "Flatness found by", offer(unit.FlatWays...),
		func(p *Place) *string { return &p.Rework.FlatHow }),
	reworkTable.size("flat_first", "Out of flat before", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Rework.FlatFirst }),
	reworkTable.size("flat_now", "Out of flat now", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Rework.FlatNow }),
	reworkTable.size("price", "Price of the work", quantity.Number,
		func(p *Place) *quantity.Quantity { return &p.Rework.Price }),
	reworkTable.day("sent", "Sent out on", func(p *Place) *unit.Date { return &p.Rework.Sent }),
	reworkTable.day("back", "Came back on", func(p *Place) *unit.Date { return &p.Rework.Back }),
}

var stepTable = table(unit.ScopeStep)

var stepFields = []*Field{
	{
		Scope: unit.ScopeStep, Name: "done", Label: "Fitted", Kind: Flag, Fits: true,
		get: func(p *Place) string { return flagText(p.Step.Done) },
		set: func(p *Place, text string) error {
			p.Step.Done = text == Yes
			if p.Shop != nil {
				p.Step.By = p.Shop.Who
			}
			return nil
		},
	},
	stepTable.choice("facing", "Facing as fitted", fittings, func(p *Place) *string { return &p.Step.Facing }),
	{Scope: unit.ScopeStep, Name: "count", Label: "Counted in", Kind: Whole,
		text: func(p *Place) *string { return &p.Step.Count }},
	stepTable.choice("turn", "Turn the shaft by hand: how does it feel?", turns,
		func(p *Place) *string { return &p.Step.Turn }),
	stepTable.choice("turn_round", "It went so at", offer(build.Rounds...),
		func(p *Place) *string { return &p.Step.TurnRound }),
	stepTable.size("torque", "Tightened to", quantity.Torque,
		func(p *Place) *quantity.Quantity { return &p.Step.Torque }).tightens(),
	stepTable.size("turn_torque", "Torque to turn it by hand", quantity.Torque,
		func(p *Place) *quantity.Quantity { return &p.Step.TurnTorque }),
	stepTable.size("push", "Force to move it", quantity.Force,
		func(p *Place) *quantity.Quantity { return &p.Step.Push }),
	stepTable.size("proud", "Stands proud under the joint, 0 when flush", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Step.Proud }),
	stepTable.size("press", "Pressed to, below the housing's face", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Step.Press }),
	stepTable.flag("cycled", "Moved by hand over its whole way, free",
		func(p *Place) *bool { return &p.Step.Cycled }),
	stepTable.line("order_why", "Why it went in before them", func(p *Place) *string { return &p.Step.OrderWhy }),
	stepTable.line("over", "Missing under it when it went in",
		func(p *Place) *string { return &p.Step.Over }).derived(),
	stepTable.count("taken_out", "Times it came out again",
		func(p *Place) *int { return &p.Step.TakenOut }).derived(),
	stepTable.area("note", "Note", func(p *Place) *string { return &p.Step.Note }),
	stepTable.area("stack_removed", "Stack as it came off this time",
		func(p *Place) *string { return &p.Step.StackRemoved }).checked(stack),
	stepTable.area("stack_fit", "Stack as fitted", func(p *Place) *string { return &p.Step.StackFit }).checked(stack),
}

// fittings are the ways the part can go in.
func fittings(p *Place) []string {
	ways, _ := build.FittingWays(p.Def)
	return ways
}

// turns are the feels offered: of what slides how it slides, else how it turns.
func turns(p *Place) (out []string) {
	of := build.Turns
	if build.Slides(p.Family.Action, p.Def.Kind) {
		of = build.Slidings
	}
	for _, t := range of {
		out = append(out, string(t))
	}
	return out
}

var featureTable = table(unit.ScopeFeature)

var featureFields = []*Field{
	featureTable.size("lower", "Lower limit", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Feature.Lower }).checked(inOrder).limits(),
	featureTable.size("upper", "Upper limit", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Feature.Upper }).checked(inOrder).limits(),
	featureTable.choice("standing", "Source of the limit",
		offer(string(family.SourceMaker), string(family.SourceStandard), string(family.SourceShop),
			string(family.SourceSheet), string(family.SourceGuidance), string(family.SourceEarlier),
			string(family.SourceNone)),
		func(p *Place) *string { return &p.Feature.LimitSource }).required(),
	featureTable.line("source", "Document it stands in", func(p *Place) *string { return &p.Feature.Source }),
	featureTable.choice("measured", "Measured", offer(string(metrology.Total), string(metrology.Each)),
		func(p *Place) *string { return &p.Feature.Measured }),
	featureTable.choice("limit_for", "Limit for", offer(string(metrology.Total), string(metrology.Each)),
		func(p *Place) *string { return &p.Feature.LimitFor }).required(),
	{Scope: unit.ScopeFeature, Name: "instrument", Label: "Instrument", Kind: Line,
		get: func(p *Place) string { return p.Feature.Instrument }, set: setInstrument},
	featureTable.size("resolution", "Resolution", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Feature.Resolution }),
	featureTable.choice("tool", "Kind of instrument", offer(metrology.Tools()...),
		func(p *Place) *string { return &p.Feature.Tool }),
	featureTable.size("permitted", "Its largest error, as certified", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Feature.Permitted }),
	featureTable.size("setting", "Error of the ring it is set by", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Feature.Setting }),
	featureTable.size("new_low", "Size as new", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Feature.New.Low }).checked(newInOrder).asNew(),
	featureTable.size("new_high", "Size as new, up to", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Feature.New.High }).checked(newInOrder),
	featureTable.choice("new_from", "Where it is known from", offer(unit.NewFrom...),
		func(p *Place) *string { return &p.Feature.New.From }),
	featureTable.size("made_low", "Brought to", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Feature.Made.Low }).checked(madeInOrder),
	featureTable.size("made_high", "Brought to, up to", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Feature.Made.High }).checked(madeInOrder),
	featureTable.line("made_source", "By whom, on what paper",
		func(p *Place) *string { return &p.Feature.Made.Source }),
	featureTable.line("new_source", "Document and page, or place",
		func(p *Place) *string { return &p.Feature.New.Source }),
}

// asNew notes that a size as new was typed.
func (f *Field) asNew() *Field {
	f.then = func(p *Place) { p.Feature.Said() }
	return f
}

// bandInOrder refuses a band that is upside down: of the size as new, or of what a rework brought it to.
func bandInOrder(of func(*unit.Feature) (low, high quantity.Quantity), fault error) func(*Place, string) error {
	return func(p *Place, text string) error {
		low, high := of(p.Feature)
		if q := quantity.Kept(text, quantity.Length, ""); strings.HasSuffix(p.Ref.Name, "_high") {
			high = q
		} else {
			low = q
		}
		if !high.IsZero() && (low.IsZero() || low.SI > high.SI) {
			return fault
		}
		return nil
	}
}

var newInOrder = bandInOrder(func(f *unit.Feature) (low, high quantity.Quantity) { return f.New.Low, f.New.High },
	errors.New("a band of the size as new runs from its lower end to its upper one"))

var madeInOrder = bandInOrder(func(f *unit.Feature) (low, high quantity.Quantity) { return f.Made.Low, f.Made.High },
	errors.New("a band that it was brought to runs from its lower end to its upper one"))

var errFriction = errors.New("a coefficient of friction lies between 0 and 1")

func friction(_ *Place, text string) error {
	if q := quantity.Kept(text, quantity.Number, ""); text != "" && (q.SI <= 0 || q.SI > 1) {
		return errFriction
	}
	return nil
}

// limits marks a limit: one that was typed here is the shop's.
func (f *Field) limits() *Field {
	f.then = func(p *Place) { p.Feature.Typed() }
	return f
}

var errOrder = errors.New("the lower limit lies above the upper one")

// inOrder refuses a band that is upside down.
func inOrder(p *Place, text string) error {
	q := quantity.Kept(text, quantity.Length, "")
	low, high := p.Feature.Lower, p.Feature.Upper
	if p.Ref.Name == "lower" {
		low = q
	} else if p.Ref.Name == "upper" {
		high = q
	}
	if !low.IsZero() && !high.IsZero() && low.SI > high.SI {
		return errOrder
	}
	return nil
}

// setInstrument takes a tool by its name; one of the shop's brings its
// kind, resolution and permissible error along.
func setInstrument(p *Place, name string) error {
	p.Feature.Instrument = name
	p.Feature.Tool = "" // its name says what it is
	if tool, ok := p.tool(name); ok {
		p.Feature.Resolution = quantity.Kept(tool.Resolution, quantity.Length, "")
		p.Feature.Permitted = quantity.Kept(tool.Permitted, quantity.Length, "")
		p.Feature.Setting = quantity.Kept(tool.Setting, quantity.Length, "")
		by, _ := metrology.ToolNamed(name)
		if kind, ok := metrology.ToolNamed(tool.Kind); ok && kind != by {
			p.Feature.Tool = string(kind)
		}
	}
	return nil
}

var readingFields = []*Field{
	{Scope: unit.ScopeReading, Name: "value", Label: "Reading", Kind: Reading, get: getReading, set: setReading,
		check: checkReading},
}

// spec is how the feature of the place is measured on this unit.
func (p *Place) spec() measure.Spec { return measure.SpecOf(p.Unit, p.Def, p.FeatureDef, p.Feature) }

func (p *Place) hasSlot() bool { return measure.ValidSlot(p.spec(), p.Ref.Name) }

// figures reports that the slot holds a figure and not a leaf or a grade.
func (p *Place) figures() bool { return measure.IsFigure(p.Ref.Name) }

func getReading(p *Place) string {
	for _, r := range p.Feature.Newest(p.Ref.Stage) {
		if r.Slot == p.Ref.Name {
			return r.Value
		}
	}
	return ""
}

func checkReading(p *Place, text string) error {
	if fault := measure.CheckEntry(p.spec(), p.Ref.Name, text); fault != nil {
		return errors.New(fault.Text)
	}
	return nil
}

// setReading keeps a reading of the round at work: the first figure of a new
// round starts a new set.
func setReading(p *Place, text string) error {
	f, round := p.Feature, p.Unit.Round()
	for i, r := range f.Readings {
		if r.Round != round || r.Stage != p.Ref.Stage || r.Slot != p.Ref.Name {
			continue
		}
		if text == "" {
			f.Readings = append(f.Readings[:i], f.Readings[i+1:]...)
			return nil
		}
		r.Value, r.By, r.At = text, p.Shop.Who, p.Shop.Now
		r.Measure()
		return nil
	}
	if text == "" {
		return nil
	}
	r := &unit.Reading{
		Round: round,
		Stage: p.Ref.Stage,
		Slot:  p.Ref.Name,
		Value: text,
		By:    p.Shop.Who,
		At:    p.Shop.Now,
	}
	r.Measure()
	f.Readings = append(f.Readings, r)
	return nil
}
