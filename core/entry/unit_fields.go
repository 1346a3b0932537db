package entry

import (
	"errors"
	"strconv"
	"time"

	"corvek/core/build"
	"corvek/core/family"
	"corvek/core/fluid"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/search"
	"corvek/core/unit"
)

// Rotations as seen on the shaft end.
const (
	RotationRight = "right"
	RotationLeft  = "left"
	RotationBoth  = "both"
)

var unitTable = table(unit.ScopeUnit)

var unitFields = []*Field{
	unitTable.line("name", "Name", func(p *Place) *string { return &p.Unit.Name }).required(),
	unitTable.line("maker", "Maker", func(p *Place) *string { return &p.Unit.Maker }),
	unitTable.line("model", "Model", func(p *Place) *string { return &p.Unit.Model }),
	unitTable.line("serial", "Serial", func(p *Place) *string { return &p.Unit.Serial }),
	unitTable.line("variant", "Variant", func(p *Place) *string { return &p.Unit.Variant }).lays(),
	unitTable.line("kit_came", "Kit that came, as its bag says",
		func(p *Place) *string { return &p.Unit.KitCame }).checked(ofThisBuild),
	unitTable.line("machine", "Machine it sits in", func(p *Place) *string { return &p.Unit.Machine }),
	unitTable.line("asset", "Asset number", func(p *Place) *string { return &p.Unit.Asset }),
	unitTable.choice("rotation", "Rotation from shaft end", offer(RotationRight, RotationLeft, RotationBoth),
		func(p *Place) *string { return &p.Unit.Rotation }),
	unitTable.line("fluid", "Fluid", func(p *Place) *string { return &p.Unit.Fluid }),
	unitTable.size("viscosity", "Viscosity at duty", quantity.KinematicViscosity,
		func(p *Place) *quantity.Quantity { return &p.Unit.Viscosity }),
	unitTable.size("density", "Density", quantity.Density,
		func(p *Place) *quantity.Quantity { return &p.Unit.Density }),
	unitTable.size("displacement", "Displacement", quantity.Displacement,
		func(p *Place) *quantity.Quantity { return &p.Unit.Displacement }),
	unitTable.size("speed", "Speed", quantity.Rotation, func(p *Place) *quantity.Quantity { return &p.Unit.Speed }),
	unitTable.size("duty_pressure", "Working pressure", quantity.Pressure,
		func(p *Place) *quantity.Quantity { return &p.Unit.DutyPressure }),
	unitTable.size("rated_pressure", "Rated for", quantity.Pressure,
		func(p *Place) *quantity.Quantity { return &p.Unit.RatedPressure }),
	unitTable.size("temperature", "Temperature", quantity.Temperature,
		func(p *Place) *quantity.Quantity { return &p.Unit.Temperature }),
	unitTable.size("parts_temperature", "Temperature of the parts when measured", quantity.Temperature,
		func(p *Place) *quantity.Quantity { return &p.Unit.PartsTemperature }),
	unitTable.size("hours", "Hours run", quantity.Time,
		func(p *Place) *quantity.Quantity { return &p.Unit.Hours }).bare("h"),
	unitTable.line("filtration", "Filtration", func(p *Place) *string { return &p.Unit.Filtration }),
	unitTable.area("changed", "What changed lately", func(p *Place) *string { return &p.Unit.Changed }),
	unitTable.area("modification", "Modified in the field", func(p *Place) *string { return &p.Unit.Modification }),
	unitTable.area("modification_kept", "What became of it",
		func(p *Place) *string { return &p.Unit.ModificationKept }),
	unitTable.line("shims_fitted", "Fitted now", func(p *Place) *string { return &p.Unit.ShimsFitted }).
		checked(func(_ *Place, text string) error { _, err := metrology.ParseShims(text); return err }),
	unitTable.line("shims_available", "Available", func(p *Place) *string { return &p.Unit.ShimsAvailable }).
		checked(func(_ *Place, text string) error { _, err := metrology.ParseShimStock(text); return err }),
	unitTable.size("off_body", "Lapped off the body", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Unit.OffBody }),
	unitTable.size("off_gears", "Ground off the gears", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Unit.OffGears }),
	unitTable.line("no_before", "It could not be run as it came, because",
		func(p *Place) *string { return &p.Unit.NoBefore }),
	unitTable.line("not_asked", "Nobody can be asked at the machine, because",
		func(p *Place) *string { return &p.Unit.NotAsked }),
	pair("gauge", "Asked at the machine", func(p *Place) []string {
		q, _ := p.question()
		var out []string
		for _, a := range q.Answers {
			out = append(out, a.Code)
		}
		return out
	}, func(p *Place) map[string]string { return p.Unit.Gauge }),
	pair("identity", "Mark on the outside", offer(Yes, "no"),
		func(p *Place) map[string]string { return p.Unit.Identity }),
	unitTable.size("setting_low", "Relief setting, at least", quantity.Pressure,
		func(p *Place) *quantity.Quantity { return &p.Unit.Setting.Low }).checked(settingInOrder),
	unitTable.size("setting_high", "and at most", quantity.Pressure,
		func(p *Place) *quantity.Quantity { return &p.Unit.Setting.High }).checked(settingInOrder),
	unitTable.line("setting_source", "Relief setting from",
		func(p *Place) *string { return &p.Unit.Setting.Source }),
	pair("more", "More of an assembly", moreTimes, func(p *Place) map[string]string { return p.Unit.More }).lays(),
	unitTable.choice("ending", "How it ends", offer(unit.EndReplaced, unit.EndCondemned, unit.EndReturned,
		unit.EndFindings, unit.EndNoFault), func(p *Place) *string { return &p.Unit.Ending }),
	unitTable.line("ending_note", "By what, or where it went",
		func(p *Place) *string { return &p.Unit.EndingNote }),
	unitTable.size("capacity", "System holds", quantity.Volume,
		func(p *Place) *quantity.Quantity { return &p.Unit.Capacity }),
	unitTable.size("level_before", "In it before", quantity.Volume,
		func(p *Place) *quantity.Quantity { return &p.Unit.LevelBefore }),
	unitTable.size(
		"drained",
		"Drained",
		quantity.Volume,
		func(p *Place) *quantity.Quantity { return &p.Unit.Drained },
	),
	unitTable.size(
		"water",
		"Water in it",
		quantity.Volume,
		func(p *Place) *quantity.Quantity { return &p.Unit.Water },
	),
	unitTable.size("gained_elsewhere", "Gained by another sump", quantity.Volume,
		func(p *Place) *quantity.Quantity { return &p.Unit.GainedElsewhere }),
	unitTable.size("vessel", "Drain vessel", quantity.Volume,
		func(p *Place) *quantity.Quantity { return &p.Unit.Vessel }),
	unitTable.line("drained_look", "Colour, metal, smell", func(p *Place) *string { return &p.Unit.DrainedLook }),
	unitTable.area("flushed", "How the system was flushed, and by whom",
		func(p *Place) *string { return &p.Unit.Flushed }),
	unitTable.line("flushed_by", "Flushed by", func(p *Place) *string { return &p.Unit.FlushedBy }),
	pair("flush", "Flushed", offer(FlushDone, FlushNone), func(p *Place) map[string]string { return p.Unit.Flushes }),
	{
		Scope: unit.ScopeUnit, Name: "fill", Label: "Filled, primed, bled", Kind: Line, check: fill,
		Clocked: true,
		get:     func(p *Place) string { return p.Unit.Filled[p.Ref.Code] },
		set: func(p *Place, text string) error {
			if text == "" {
				delete(p.Unit.Filled, p.Ref.Code)
				return nil
			}
			if p.Unit.Filled == nil {
				p.Unit.Filled = map[string]string{}
			}
			p.Unit.Filled[p.Ref.Code] = text
			return nil
		},
	},
	unitTable.line("other_sump", "What became of the sump that gained",
		func(p *Place) *string { return &p.Unit.OtherSump }),
}

// Whether a place of the circuit was flushed: done, or there is none.
const (
	FlushDone = "done"
	FlushNone = "none"
)

var errFill = errors.New("is the moment it was done, or none where it does not apply")

// fill takes the moment a step of the filling was done.
func fill(_ *Place, text string) error {
	if text == "" || text == build.FillNone {
		return nil
	}
	if _, err := time.Parse(time.RFC3339, text); err != nil {
		return errFill
	}
	return nil
}

// pair is one answer among many of a kind, told apart by the address's code.
func pair(name, label string, offered func(*Place) []string, at func(*Place) map[string]string) *Field {
	return &Field{
		Scope: unit.ScopeUnit, Name: name, Label: label, Kind: Choice, Choices: offered,
		get: func(p *Place) string { return at(p)[p.Ref.Code] },
		set: func(p *Place, text string) error {
			if text == "" {
				delete(at(p), p.Ref.Code)
				return nil
			}
			at(p)[p.Ref.Code] = text
			return nil
		},
	}
}

// settingInOrder refuses a setting that is upside down.
func settingInOrder(p *Place, text string) error {
	q := quantity.Kept(text, quantity.Pressure, "")
	low, high := p.Unit.Setting.Low, p.Unit.Setting.High
	if p.Ref.Name == "setting_low" {
		low = q
	} else {
		high = q
	}
	if !low.IsZero() && !high.IsZero() && low.SI > high.SI {
		return errOrder
	}
	return nil
}

// moreTimes is how often more an assembly may stand in a unit.
func moreTimes(*Place) []string {
	out := make([]string, family.MostTimes-1)
	for i := range out {
		out[i] = strconv.Itoa(i + 1)
	}
	return out
}

// When a mark was found, and how old it looks.
const (
	BeforeFreeing = "before_freeing"
	AfterFreeing  = "after_freeing"
	BeforeWiping  = "before_wiping"
	AfterWiping   = "after_wiping"
	AgeOld        = "old"
	AgeFresh      = "fresh"
	AgeNotTold    = "not_told"
)

var evidenceFields = markFields(table(unit.ScopeEvidence))

// partMarkFields are those of a mark on a part, which has a grade too.
var partMarkFields = append(markFields(table(unit.ScopePartMark)),
	table(unit.ScopePartMark).choice("grade", "How much", offer(family.MarkGrades...),
		func(p *Place) *string { return &p.Mark.Grade }))

func markFields(t table) []*Field {
	return []*Field{
		t.choice("state", "Seen or absent", offer(unit.MarkSeen, unit.MarkAbsent),
			func(p *Place) *string { return &p.Mark.State }),
		t.choice("origin", "Where it comes from", offer(unit.OriginFound, unit.OriginBench, unit.OriginUnknown),
			func(p *Place) *string { return &p.Mark.Origin }).required(),
		t.choice("found_how", "How it was found", offer(BeforeFreeing, AfterFreeing, BeforeWiping, AfterWiping),
			func(p *Place) *string { return &p.Mark.How }),
		t.choice("age", "How old it looks", offer(AgeFresh, AgeOld, AgeNotTold),
			func(p *Place) *string { return &p.Mark.Age }),
		t.area("note", "Note", func(p *Place) *string { return &p.Mark.Note }),
	}
}

var conclusionTable = table(unit.ScopeConclusion)

var conclusionFields = []*Field{
	conclusionTable.line("cause", "Root cause", func(p *Place) *string { return &p.Conclusion.Cause }).
		checked(knownCause).signed(),
	conclusionTable.area("statement", "In words, for the report",
		func(p *Place) *string { return &p.Conclusion.Statement }).signed(),
	conclusionTable.area("action", "Action outside the unit", func(p *Place) *string { return &p.Conclusion.Action }).
		signed(),
	conclusionTable.line("owner", "Who does it", func(p *Place) *string { return &p.Conclusion.Owner }).signed(),
	conclusionTable.line("blamed", "Part outside the unit that is blamed",
		func(p *Place) *string { return &p.Conclusion.Blamed }).signed(),
	conclusionTable.line("blamed_found", "What was measured on it",
		func(p *Place) *string { return &p.Conclusion.BlamedFound }).signed(),
	conclusionTable.line("cured", "Done before another unit ran there",
		func(p *Place) *string { return &p.Conclusion.Cured }).signed(),
}

func knownCause(p *Place, code string) error {
	none := code == "" || code == unit.CauseNotFound || code == unit.CauseNone
	if none || p.Shop.Knowledge(p.Unit.Family).KnowsCause(code) {
		return nil
	}
	return errCause
}

var causeTable = table(unit.ScopeCause)

// Places where a cause in free words can lie; a listed one brings its own.
var causePlaces = []string{"inside", "outside", "assembly", "handling"}

var causeFields = []*Field{
	causeTable.choice("role", "Its part in the failure", offer(unit.CauseRoles...),
		func(p *Place) *string { return &p.Cause.Role }).required(),
	causeTable.line("code", "Cause of the list", func(p *Place) *string { return &p.Cause.Code }).
		checked(listedCause),
	causeTable.line("words", "In words", func(p *Place) *string { return &p.Cause.Words }),
	causeTable.choice(
		"lies",
		"Where it lies",
		offer(causePlaces...),
		func(p *Place) *string { return &p.Cause.Lies },
	),
	causeTable.line("action", "What is done against it", func(p *Place) *string { return &p.Cause.Action }),
	causeTable.line("owner", "Who does it", func(p *Place) *string { return &p.Cause.Owner }),
}

// listedCause refuses a code that the list does not have.
func listedCause(p *Place, code string) error {
	if code == unit.CauseNotFound || code == unit.CauseNone {
		return errCause
	}
	return knownCause(p, code)
}

var looseTable = table(unit.ScopeLoose)

var looseFields = []*Field{
	looseTable.line("what", "What was found", func(p *Place) *string { return &p.Loose.What }).required().derived(),
	looseTable.line("place", "Where", func(p *Place) *string { return &p.Loose.Place }).derived(),
	looseTable.count("count", "How many", func(p *Place) *int { return &p.Loose.Count }).
		derived().
		checked(atLeastOne),
	looseTable.flag("bit", "a piece of a broken one", func(p *Place) *bool { return &p.Loose.Fragment }),
	looseTable.part("part", "belongs to", func(p *Place) *string { return &p.Loose.Part }),
	looseTable.line("note", "or what it is", func(p *Place) *string { return &p.Loose.Note }),
}

var pieceTable = table(unit.ScopePiece)

var pieceFields = append(
	sealFields(pieceTable, "", func(p *Place) *unit.Seal { return &p.Piece.Seal }),
	pieceTable.line("number", "Number on the bag", func(p *Place) *string { return &p.Piece.Code }).derived(),
	pieceTable.line("name", "Piece", func(p *Place) *string { return &p.Piece.Name }).required().derived(),
	pieceTable.count("count", "How many", func(p *Place) *int { return &p.Piece.Count }).
		derived().
		checked(atLeastOne),
	pieceTable.part("place", "belongs to", func(p *Place) *string { return &p.Piece.Part }),
	pieceTable.line("left_reason", "or why it is left over", func(p *Place) *string { return &p.Piece.LeftReason }),
	pieceTable.line("lot", "Taken of lot", func(p *Place) *string { return &p.Piece.Lot }).derived(),
	pieceTable.line("to_lot", "Put to lot", func(p *Place) *string { return &p.Piece.ToLot }).derived(),
	pieceTable.choice("fit", "Tried in its place", offer(unit.FitWords...),
		func(p *Place) *string { return &p.Piece.Fit.Says }),
	pieceTable.size("fit_gap", "Clearance there, measured", quantity.Length,
		func(p *Place) *quantity.Quantity { return &p.Piece.Fit.Gap }),
)

var attemptTable = table(unit.ScopeAttempt)

func changeKinds() (out []string) {
	for _, k := range search.Kinds {
		out = append(out, string(k))
	}
	return out
}

var attemptFields = []*Field{
	attemptTable.choice("source", "Figures from", offer(unit.SourceTyped, unit.SourceStand,
		unit.SourceLog, unit.SourceSimulated, unit.SourceUnknown),
		func(p *Place) *string { return &p.Attempt.Source }).required().derived(),
	attemptTable.area("one_change", "The one thing changed",
		func(p *Place) *string { return &p.Attempt.OneChange }).checked(openAttempt),
	attemptTable.choice("change_kind", "What was done", offer(changeKinds()...),
		func(p *Place) *string { return &p.Attempt.ChangeKind }).derived(),
	attemptTable.part("change_part", "To which part",
		func(p *Place) *string { return &p.Attempt.ChangePart }).derived(),
	attemptTable.area("second_change", "Changed at once with it",
		func(p *Place) *string { return &p.Attempt.SecondChange }).derived(),
	attemptTable.choice("second_kind", "What was done besides", offer(changeKinds()...),
		func(p *Place) *string { return &p.Attempt.SecondKind }).derived(),
	attemptTable.part("second_part", "To which other part",
		func(p *Place) *string { return &p.Attempt.SecondPart }).derived(),
	attemptTable.area("note", "Note", func(p *Place) *string { return &p.Attempt.Note }),
	attemptTable.line("pressure_gauge", "Pressure read with",
		func(p *Place) *string { return &p.Attempt.PressureGauge }).checked(openAttempt),
	attemptTable.line("flow_meter", "Flow read with",
		func(p *Place) *string { return &p.Attempt.FlowMeter }).checked(openAttempt),
	attemptTable.line("thermometer", "Temperature read with",
		func(p *Place) *string { return &p.Attempt.Thermometer }).checked(openAttempt),
	attemptTable.line("ran_on_stand", "Stand",
		func(p *Place) *string { return &p.Attempt.RanOn.Stand }).checked(openAttempt),
	attemptTable.line("ran_on_oil", "Oil, gas or grease in it",
		func(p *Place) *string { return &p.Attempt.RanOn.Oil }).checked(openAttempt),
	attemptTable.size("ran_on_temperature", "Its temperature", quantity.Temperature,
		func(p *Place) *quantity.Quantity { return &p.Attempt.RanOn.Temperature }).checked(openAttempt),
	attemptTable.size("ran_on_viscosity", "Its viscosity as it was run", quantity.KinematicViscosity,
		func(p *Place) *quantity.Quantity { return &p.Attempt.RanOn.Viscosity }).checked(openAttempt),
	attemptTable.line("ran_on_clean", "How clean it is, ISO 4406",
		func(p *Place) *string { return &p.Attempt.RanOn.Clean }).checked(isoCode),
	attemptTable.flag("closed", "Closed", func(p *Place) *bool { return &p.Attempt.Closed }).derived(),
	attemptTable.choice("verdict", "Verdict", offer(string(metrology.In), string(metrology.Out),
		string(metrology.Undecided)), func(p *Place) *string { return &p.Attempt.Verdict }).derived(),
}

// isoCode asks for a cleanliness as ISO 4406 writes it, of a test that goes on.
func isoCode(p *Place, text string) error {
	if err := openAttempt(p, text); err != nil {
		return err
	}
	if _, ok := fluid.ParseCleanliness(text); !ok && text != "" {
		return errors.New("is written as in 18/16/13, by ISO 4406")
	}
	return nil
}

// openAttempt refuses to change the figures of a test that is over. A document
// brings closed attempts with it: there the attempt closes after its figures.
func openAttempt(p *Place, _ string) error {
	if p.Attempt.Closed {
		return errClosed
	}
	return nil
}
