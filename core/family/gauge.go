package family

import "slices"

// Points says which way an answer to a gauge question points.
type Points string

// Where an answer points.
const (
	AtUnit    Points = "unit"      // the fault can be in this unit
	Elsewhere Points = "elsewhere" // look outside first
	Acquits   Points = "acquits"   // the unit is cleared: it is not opened
	Open      Points = "open"      // says nothing yet
	Sound     Points = "sound"     // that much is whole, at the machine: it points nowhere, and is one thing less
)

// Question is asked at the machine before anything is opened.
type Question struct {
	Code, Ask, How string
	Answers        []Answer
	NeedsAnother   bool // it takes another unit, which few have at hand
	OfMachine      bool // one answer holds of all units of the machine
}

// Answer is one thing the gauge can show, with what it means.
type Answer struct {
	Code, Say, Means string
	Points           Points
}

// questions is the shop's gauge logic; families name the ones that apply.
var questions = []Question{
	{Code: "known_gauge", OfMachine: true, Ask: "Does a known-good gauge show the same?",
		How: "Swap the gauge before anything else; it costs five minutes", Answers: []Answer{
			{"same", "same reading", "the reading is real", Sound},
			{"differs", "other reading", "the gauge was wrong; start over with the good one", Elsewhere}}},
	{Code: "pressure_builds", Ask: "Does pressure build at the outlet when the load is blocked?",
		How: "Test port at the outlet, relief proved first", Answers: []Answer{
			{"full", "to the relief", "it pumps; what does nothing lies downstream", Elsewhere},
			{"some", "some, falls short", "not enough flow is left after leaks, inside or outside", Open},
			{"none", "none at all", "no flow: unit, drive, inlet or an open path to tank", AtUnit}}},
	{Code: "drive_turns", Ask: "Does the shaft turn with the drive?",
		How: "Look at coupling, key and spline with the guard back on before it runs", Answers: []Answer{
			{"yes", "turns", "the drive is whole", Sound},
			{"no", "drive turns, shaft does not", "coupling, key or spline has gone", Elsewhere}}},
	{
		Code: "inlet",
		Ask:  "Is the inlet open and full?",
		How:  "Valve, strainer, level, vacuum at the inlet port",
		Answers: []Answer{
			{"good", "open, little vacuum", "the inlet is not the reason", Sound},
			{"choked", "closed or high vacuum", "it starves; mend the inlet and try again", Elsewhere},
			{NotLooked, "not looked", "look before it is opened", Open}},
	},
	{
		Code: "feed_pressure",
		Ask:  "What does the feed pump give?",
		How:  "Test port between feed and main pump",
		Answers: []Answer{
			{"good", "in its range", "the feed is not the reason", Sound},
			{"low", "low or none", "feed pump, its drive or an open path; not the main pump yet", Open}},
	},
	{Code: "on_stroke", Ask: "Does it go to high pressure the moment it turns, with no demand?",
		How: "Watch outlet pressure as the drive starts", Answers: []Answer{
			{"yes", "yes, the drive labours",
				"on stroke with no demand: control, swash plate or the valve that feeds the signal", Open},
			{"no", "no", "the control lets it rest", Open}}},
	{Code: "vent_signal", Ask: "Signal line vented: does it fall to standby?",
		How: "Vent to tank at the control's port, never to air", Answers: []Answer{
			{"falls", "falls to standby",
				"the signal is held up from outside; the pump answers as it should", Acquits},
			{"stays", "stays high", "control or swash plate holds it on stroke", AtUnit}}},
	{
		Code: "adjuster",
		Ask:  "Does its adjuster change anything?",
		How:  "Half a turn out and back, counted",
		Answers: []Answer{
			{"works", "pressure follows", "the valve answers", Elsewhere},
			{"dead", "no effect", "stuck, or fed by something that overrides it", AtUnit}},
	},
	{Code: "new_unit", Ask: "Did another unit show the same in its place?", How: "Ask what was swapped, and when",
		NeedsAnother: true, Answers: []Answer{
			{"same", "same symptom", "the unit is cleared; the fault stayed at the machine", Acquits},
			{"cured", "cured", "the fault went with the unit", AtUnit},
			{NotTried, "not tried", "nothing follows", Open}}},
	{Code: "burst_disc", Ask: "Is a burst disc blown?", How: "Look at its tell-tale", Answers: []Answer{
		{"blown", "blown", "something downstream is blocked", Elsewhere},
		{"whole", "whole", "pressure never went that far", Open}}},
	{
		Code: "creep_way",
		Ask:  "When does it creep?",
		How:  "Try turning with no load, then holding a load",
		Answers: []Answer{
			{"no_load", "turns with no load", "a clutch drags it along, or oil that comes past a valve", Open},
			{"pays_out", "pays out under load", "brake is weak", AtUnit},
			{"both", "both", "two faults until shown otherwise", Open},
			{"not", "does not creep", "nothing drags and nothing slips", Sound}},
	},
	{Code: "release_line", Ask: "Control in neutral: does pressure stay in the brake's release line?",
		How: "Gauge in the line at the brake, load on the ground", Answers: []Answer{
			{"stays", "stays", "the brake is held open from outside", Elsewhere},
			{"gone", "gone", "nothing holds the brake open from outside", Sound}}},
	{Code: "load_holds", Ask: "Ports blocked at the unit: does it still drift?",
		How: "Shut-off at the unit's own ports; load supported first", Answers: []Answer{
			{"drifts", "still drifts", "it leaks inside", AtUnit},
			{"holds", "holds", "the leak is in the valve or line", Elsewhere}}},
	{Code: "cylinder_shut", Ask: "Shut at the cylinder's own ports: does the load still drift?",
		How: "Shut-off at the cylinder, away from this valve; load supported first", Answers: []Answer{
			{"drifts", "still drifts", "the cylinder lets it down by itself", Elsewhere},
			{"holds", "holds", "what lets it down lies on the valve's side", AtUnit}}},
	{Code: "gained_what", OfMachine: true, Ask: "The sump that rises: what came in?",
		How: "Smell; a drop on paper; a glass left to settle an hour", Answers: []Answer{
			{"fuel", "smells of fuel, thin", "fuel gets into the sump from the engine's side", Elsewhere},
			{"coolant", "sweet, or water below", "coolant or water gets in, by a cooler or from outside", Elsewhere},
			{"oil", "the other sump's oil", "oil passes from one side to the other", AtUnit},
			{NotLooked, "not looked", "look before a seal is blamed", Open}}},
	{Code: "second_fluid", Ask: "Has another sump gained what this one lost?",
		How: "Levels of both, read with the machine as its book says", Answers: []Answer{
			{"gained", "gained", "a shaft seal passes oil across; ask what loaded it", AtUnit},
			{"not", "no", "it went elsewhere", Open}}},
	{
		Code:      "air_supply",
		OfMachine: true,
		Ask:       "Is the supply air there at the unit while it works?",
		How:       "Gauge at the unit's own port, working",
		Answers: []Answer{
			{"good", "full pressure", "the supply is not the reason", Sound},
			{"falls", "falls away", "supply, regulator or line", Elsewhere}},
	},
}

// Questions are all gauge questions, in the order they are offered.
func Questions() []Question { return slices.Clone(questions) }

// QuestionByCode finds a gauge question.
func QuestionByCode(code string) (Question, bool) {
	i := slices.IndexFunc(questions, func(q Question) bool { return q.Code == code })
	if i < 0 {
		return Question{}, false
	}
	return questions[i], true
}

// AnswerByCode finds an answer of the question.
func (q Question) AnswerByCode(code string) (Answer, bool) {
	i := slices.IndexFunc(q.Answers, func(a Answer) bool { return a.Code == code })
	if i < 0 {
		return Answer{}, false
	}
	return q.Answers[i], true
}

// Answers that say that nobody looked or tried: nothing follows from them.
const (
	NotLooked = "unknown"
	NotTried  = "not_tried"
)

// Answered reports that an answer tells what was seen: not given, not looked and not tried tell nothing,
// and least of all that something is not there.
func Answered(code string) bool { return code != "" && code != NotLooked && code != NotTried }
