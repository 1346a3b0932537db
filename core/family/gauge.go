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
}

// Answer is one thing the gauge can show, with what it means.
type Answer struct {
	Code, Say, Means string
	Points           Points
}

// questions is the shop's gauge logic; families name the ones that apply.
var questions = []Question{
	{"known_gauge", "Does a known-good gauge show the same?",
		"Swap the gauge before anything else; it costs five minutes", []Answer{
			{"same", "same reading", "the reading is real", Sound},
			{"differs", "other reading", "the gauge was wrong; start over with the good one", Elsewhere}}},
	{"pressure_builds", "Does pressure build at the outlet when the load is blocked?",
		"Test port at the outlet, relief proved first", []Answer{
			{"full", "to the relief", "it pumps; what does nothing lies downstream", Elsewhere},
			{"some", "some, falls short", "not enough flow is left after leaks, inside or outside", Open},
			{"none", "none at all", "no flow: unit, drive, inlet or an open path to tank", AtUnit}}},
	{"drive_turns", "Does the shaft turn with the drive?",
		"Look at coupling, key and spline with the guard back on before it runs", []Answer{
			{"yes", "turns", "the drive is whole", Sound},
			{"no", "drive turns, shaft does not", "coupling, key or spline has gone", Elsewhere}}},
	{"inlet", "Is the inlet open and full?", "Valve, strainer, level, vacuum at the inlet port", []Answer{
		{"good", "open, little vacuum", "the inlet is not the reason", Sound},
		{"choked", "closed or high vacuum", "it starves; mend the inlet and try again", Elsewhere},
		{NotLooked, "not looked", "look before it is opened", Open}}},
	{"feed_pressure", "What does the feed pump give?", "Test port between feed and main pump", []Answer{
		{"good", "in its range", "the feed is not the reason", Sound},
		{"low", "low or none", "feed pump, its drive or an open path; not the main pump yet", Open}}},
	{"on_stroke", "Does it go to high pressure the moment it turns, with no demand?",
		"Watch outlet pressure as the drive starts", []Answer{
			{"yes", "yes, the drive labours",
				"on stroke with no demand: control, swash plate or the valve that feeds the signal", Open},
			{"no", "no", "the control lets it rest", Open}}},
	{"vent_signal", "Signal line vented: does it fall to standby?",
		"Vent to tank at the control's port, never to air", []Answer{
			{"falls", "falls to standby",
				"the signal is held up from outside; the pump answers as it should", Elsewhere},
			{"stays", "stays high", "control or swash plate holds it on stroke", AtUnit}}},
	{"adjuster", "Does its adjuster change anything?", "Half a turn out and back, counted", []Answer{
		{"works", "pressure follows", "the valve answers", Elsewhere},
		{"dead", "no effect", "stuck, or fed by something that overrides it", AtUnit}}},
	{"new_unit", "Did another unit show the same in its place?", "Ask what was swapped, and when", []Answer{
		{"same", "same symptom", "the unit is cleared; the fault stayed at the machine", Acquits},
		{"cured", "cured", "the fault went with the unit", AtUnit},
		{NotTried, "not tried", "nothing follows", Open}}},
	{"burst_disc", "Is a burst disc blown?", "Look at its tell-tale", []Answer{
		{"blown", "blown", "something downstream is blocked", Elsewhere},
		{"whole", "whole", "pressure never went that far", Open}}},
	{"creep_way", "When does it creep?", "Try turning with no load, then holding a load", []Answer{
		{"no_load", "turns with no load", "clutch drags", AtUnit},
		{"pays_out", "pays out under load", "brake is weak", AtUnit},
		{"both", "both", "two faults until shown otherwise", Open},
		{"not", "does not creep", "nothing drags and nothing slips", Sound}}},
	{"load_holds", "Ports blocked at the unit: does it still drift?",
		"Shut-off at the unit's own ports; load supported first", []Answer{
			{"drifts", "still drifts", "it leaks inside", AtUnit},
			{"holds", "holds", "the leak is in the valve or line", Elsewhere}}},
	{"cylinder_shut", "Shut at the cylinder's own ports: does the load still drift?",
		"Shut-off at the cylinder, away from this valve; load supported first", []Answer{
			{"drifts", "still drifts", "the cylinder lets it down by itself", Elsewhere},
			{"holds", "holds", "what lets it down lies on the valve's side", AtUnit}}},
	{"second_fluid", "Has another sump gained what this one lost?",
		"Levels of both, read with the machine as its book says", []Answer{
			{"gained", "gained", "a shaft seal passes oil across; ask what loaded it", AtUnit},
			{"not", "no", "it went elsewhere", Open}}},
	{"air_supply", "Is the supply air there at the unit while it works?", "Gauge at the unit's own port, working",
		[]Answer{
			{"good", "full pressure", "the supply is not the reason", Sound},
			{"falls", "falls away", "supply, regulator or line", Elsewhere}}},
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

// Gauge is what the answers together say.
type Gauge struct {
	Verdict Points
	Because []string // what the answers that count mean
	Against []string // what speaks the other way
	Unasked []string // codes of questions nobody answered
	First   string   // code of a question that comes before anything is opened, "" for none
	Sound   int      // answers that say that something at the machine is whole
}

// Hold is why a unit is not opened yet.
type Hold string

// The holds. None lets it be opened.
const (
	HoldNone      Hold = ""
	HoldCleared   Hold = "cleared"   // the gauges acquit it
	HoldElsewhere Hold = "elsewhere" // they point elsewhere
	HoldDisagree  Hold = "disagree"  // they point both ways
	HoldFirst     Hold = "first"     // one question comes first
	HoldNotTold   Hold = "not_told"  // nobody asked enough
)

// soundEnough is how many things found whole at the machine are asked before a unit is opened.
const soundEnough = 3

// upstream are the answers that say that what the unit is given is wrong: whatever it shows then follows from that,
// and does not speak against it.
var upstream = map[string]string{
	"known_gauge":   "differs",
	"drive_turns":   "no",
	"inlet":         "choked",
	"feed_pressure": "low",
	"air_supply":    "falls",
}

// Holds says whether a unit may be opened by what the gauges told. Where nobody is
// left to ask, only what was told counts.
func (g Gauge) Holds(nobodyToAsk bool) Hold {
	switch {
	case g.Verdict == Acquits:
		return HoldCleared
	case g.Verdict == Elsewhere:
		return HoldElsewhere
	case g.First != "" && !nobodyToAsk:
		return HoldFirst
	case g.Verdict == AtUnit:
		return HoldNone
	case len(g.Because) > 0 && len(g.Against) > 0:
		return HoldDisagree
	case len(g.Unasked) > 0 && g.Sound < soundEnough && !nobodyToAsk:
		return HoldNotTold
	}
	return HoldNone
}

// Conclude weighs the answers of a family's questions: a swap that changed
// nothing clears the unit; answers that point both ways stay open.
func (f *Family) Conclude(answers map[string]string) Gauge {
	said := map[Points][]string{}
	var given []string // what it is given and is wrong
	g := Gauge{Verdict: Open}
	for _, code := range f.Gauge {
		q, ok := QuestionByCode(code)
		if !ok {
			continue
		}
		a, ok := q.AnswerByCode(answers[code])
		if !ok {
			g.Unasked = append(g.Unasked, code)
			continue
		}
		said[a.Points] = append(said[a.Points], a.Means)
		if upstream[code] == answers[code] && a.Points == Elsewhere {
			given = append(given, a.Means)
		}
	}
	g.Sound = len(said[Sound])
	// High pressure at once with no demand: the signal line is vented before
	// anything is opened, for it can be held up from outside.
	if answers["on_stroke"] == "yes" && slices.Contains(g.Unasked, "vent_signal") {
		g.First = "vent_signal"
	}
	switch {
	case len(said[Acquits]) > 0:
		g.Verdict, g.Because, g.Against = Acquits, said[Acquits], said[AtUnit]
	case len(given) > 0: // starved or not driven, it can show what it likes
		g.Verdict, g.Because = Elsewhere, given
	case len(said[Elsewhere]) > 0 && len(said[AtUnit]) == 0:
		g.Verdict, g.Because = Elsewhere, said[Elsewhere]
	case len(said[AtUnit]) > 0 && len(said[Elsewhere]) == 0:
		g.Verdict, g.Because = AtUnit, said[AtUnit]
	default:
		g.Because, g.Against = said[AtUnit], said[Elsewhere]
	}
	return g
}
