package stops_test

import (
	"testing"

	"corvek/core/build"
	"corvek/core/decide"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/kit"
	"corvek/core/machine"
	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/stops"
	"corvek/core/strip"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func newtons(nm float64) quantity.Quantity {
	return quantity.Quantity{Typed: "typed", SI: nm, Dim: quantity.Torque}
}

// settled is a pump of one part on which nothing is open at any station.
func settled() *stops.Unit {
	part := &unit.Part{Code: "spool", Name: "Control spool", Off: true, Note: "moved 2 mm"}
	feature := &unit.Feature{Code: "clearance"}
	in := measure.Result{Any: true, Verdict: metrology.In}
	return &stops.Unit{
		Unit:       &unit.Unit{Number: 1, Rounds: []*unit.Round{{Number: 1}}},
		Job:        &unit.Job{Complaint: "weak when hot"},
		Family:     &family.Family{Action: "pump"},
		Gauge:      machine.Gauge{Verdict: machine.AtUnit},
		Known:      stops.Known{Displacement: true, Speed: true, Pressure: true},
		Baseline:   true,
		Conclusion: unit.Conclusion{Cause: "contamination"},
		Cause:      &explain.Cause{Code: "contamination", Name: "Hard dirt in the oil", Where: "outside"},
		Causes:     []stops.Cause{{Name: "Hard dirt in the oil", Outside: true, Action: "Flush", Owner: "the mill"}},
		Parts: []stops.Part{{
			Part: part, Def: &family.Part{Code: "spool", Facing: "drilled end in"}, Choice: decide.Keep,
			Strip: strip.Part{Code: "spool", Name: "Control spool", Off: true, Expected: 1, Found: 1, Counted: true},
			Step:  unit.Step{Done: true, Facing: "drilled end in"},
			Features: []stops.Feature{{Feature: feature, Def: &family.Feature{Name: "Clearance", Clearance: true},
				Found: in, Built: in}},
		}},
	}
}

// Where all is settled nothing stops; each thing left open is one stop at its station,
// and a word about one thing settles no other.
func TestEachThingLeftOpenIsOneStop(t *testing.T) {
	require.Empty(t, stops.All(settled()))
	part := func(u *stops.Unit) *stops.Part { return &u.Parts[0] }
	for _, c := range []struct {
		code string
		open func(u *stops.Unit)
	}{
		{"u1/receive/complaint", func(u *stops.Unit) { u.Job.Complaint = "  " }},
		{"u1/receive/displacement", func(u *stops.Unit) { u.Known.Displacement = false }},
		{"u1/receive/speed", func(u *stops.Unit) { u.Known.Speed = false }},
		{"u1/receive/duty_pressure", func(u *stops.Unit) { u.Known.Pressure = false }},
		{"u1/receive/baseline", func(u *stops.Unit) { u.Baseline = false }},
		{"u1/receive/rating", func(u *stops.Unit) { u.Asked = "it is asked more than it is made for" }},
		{"u1/receive/warranty", func(u *stops.Unit) { u.Job.WarrantyHold = true }},
		{"u1/prove/caution/rotating", func(u *stops.Unit) { u.Family.Cautions = []string{"rotating"} }},
		{"u1/strip/gauges/elsewhere", func(u *stops.Unit) { u.Gauge = machine.Gauge{Verdict: machine.Elsewhere} }},
		{"u1/strip/acquitted", func(u *stops.Unit) { u.Gauge = machine.Gauge{Verdict: machine.Cleared} }},
		{"u1/strip/short/spool", func(u *stops.Unit) { part(u).Strip.Found = 0 }},
		{"u1/strip/stuck/spool", func(u *stops.Unit) { part(u).Stuck, part(u).Note = true, "" }},
		{"u1/strip/stack/spool", func(u *stops.Unit) {
			part(u).Stack = &stops.Stack{Fit: []family.Piece{{}}}
		}},
		{"u1/measure/fault/spool/clearance", func(u *stops.Unit) {
			part(u).Features[0].Found.Faults = map[string]string{"v1": "x"}
		}},
		{"u1/measure/undecided/spool/clearance", func(u *stops.Unit) {
			part(u).Features[0].Found.Verdict = metrology.Undecided
		}},
		{"u1/measure/spring/spool/clearance", func(u *stops.Unit) {
			part(u).Def.Kind, part(u).Choice = "disc_springs", decide.Keep
			part(u).Features[0].Found, part(u).Features[0].Built = measure.Result{}, measure.Result{}
			part(u).Features[0].Def.Clearance = false
		}},
		{"u1/measure/not_measured/spool/clearance", func(u *stops.Unit) {
			part(u).Features[0].Found, part(u).Features[0].Def.MustHave = measure.Result{}, true
		}},
		{"u1/measure/calibration/spool/clearance", func(u *stops.Unit) {
			part(u).Features[0].Overdue = "Micrometer 3 was due"
		}},
		{"u1/measure/coarse/spool/clearance", func(u *stops.Unit) {
			part(u).Features[0].TooCoarse, part(u).Features[0].Def.MustHave = true, true
		}},
		{"u1/measure/suspect/pulley/runout", func(u *stops.Unit) {
			u.Suspects = []stops.Suspect{{Part: "pulley", PartName: "Pulley", Feature: "runout"}}
		}},
		{"u1/explain/conclusion", func(u *stops.Unit) {
			u.Conclusion, u.Cause, u.Causes = unit.Conclusion{}, nil, nil
		}},
		{"u1/explain/outside", func(u *stops.Unit) { u.Causes[0].Owner = " " }},
		{"u1/explain/outside/2", func(u *stops.Unit) {
			u.Causes = append(u.Causes, stops.Cause{Number: 2, Name: "No breather", Outside: true})
		}},
		{"u1/explain/misfit", func(u *stops.Unit) { u.Misfit = "side plates bright" }},
		{"u1/explain/left_over", func(u *stops.Unit) { u.NotLooked = []string{"water in the oil"} }},
		{"u1/decide/open/spool", func(u *stops.Unit) { part(u).Choice = decide.Open }},
		{"u1/decide/reason/spool", func(u *stops.Unit) {
			part(u).Decision.Choice, part(u).Proposal.Choice = "keep", decide.Replace
		}},
		{"u1/decide/answer", func(u *stops.Unit) { u.Job.Quote.GivenOn = "2031-05-13" }},
		{"u1/decide/answer", func(u *stops.Unit) {
			u.Job.Quote, u.Job.Policy = unit.Quote{Answer: unit.AnswerOverhaul}, string(decide.OnCondition)
		}},
		{"u1/decide/answer", func(u *stops.Unit) {
			u.Job.Quote, u.Job.Policy = unit.Quote{Answer: unit.AnswerRebuild}, string(decide.FullOverhaul)
		}},
		{"u1/build/rework/spool", func(u *stops.Unit) {
			part(u).Ways = []stops.Way{{Row: unit.Rework{Sent: "2031-05-13"}}}
		}},
		{"u1/build/rework/spool", func(u *stops.Unit) {
			part(u).Ways = []stops.Way{{Route: decide.Route{Stock: 1e-5, Taken: 2e-5}}}
		}},
		{"u1/build/rework/spool", func(u *stops.Unit) { part(u).Ways = []stops.Way{{Flat: true}} }},
		{"u1/build/rework/spool", func(u *stops.Unit) {
			part(u).Ways = []stops.Way{{Flat: true, Row: unit.Rework{FlatHow: unit.FlatNotFound}}}
		}},
		{"u1/build/rework/spool", func(u *stops.Unit) {
			part(u).Ways = []stops.Way{{Flat: true, Row: unit.Rework{FlatHow: unit.FlatBlued,
				FlatFirst: quantity.Quantity{Typed: "4 um", SI: 4e-6},
				FlatNow:   quantity.Quantity{Typed: "9 um", SI: 9e-6}}}}
		}},
		{"u1/build/again/spool/clearance", func(u *stops.Unit) {
			part(u).Ways = []stops.Way{{Route: decide.Route{For: []string{"clearance"}}}}
			part(u).Features[0].Def.Clearance, part(u).Features[0].Built = false, measure.Result{}
		}},
		{"u1/kit/place/spool", func(u *stops.Unit) { u.Kit = []kit.Issue{{Part: "spool", Text: "no piece"}} }},
		{"u1/kit/piece/3", func(u *stops.Unit) { u.Kit = []kit.Issue{{Piece: 3, Text: "left over"}} }},
		{"u1/build/empty/spool", func(u *stops.Unit) {
			part(u).Choice, part(u).Lacks = decide.Replace, "no piece for this place"
		}},
		{"u1/build/belongs/spool", func(u *stops.Unit) {
			pack := []family.Piece{{Def: &family.StackPiece{Kind: "shim"}}}
			part(u).Stack = &stops.Stack{Found: pack, Fit: pack, Unknown: true}
		}},
		{"u1/build/unfitted", func(u *stops.Unit) { part(u).Step.Done = false }},
		{"u1/build/facing/spool", func(u *stops.Unit) { part(u).Step.Facing = "drilled end out" }},
		{"u1/build/turn/spool", func(u *stops.Unit) { part(u).AsksFeel = true }},
		{"u1/build/stiff/spool", func(u *stops.Unit) { part(u).AsksFeel, part(u).Step.Turn = true, "tight_spot" }},
		{"u1/build/again/spool/clearance", func(u *stops.Unit) { part(u).Features[0].Built.Any = false }},
		{"u1/build/modification", func(u *stops.Unit) { u.Modification = "restrictor in the drain" }},
		{"u1/build/order/spool", func(u *stops.Unit) { part(u).Step.Over = "front needles" }},
		{"u1/build/count_in/spool", func(u *stops.Unit) { part(u).CountIn = 34 }},
		{"u1/build/count_in/spool", func(u *stops.Unit) { part(u).CountIn, part(u).Step.Count = 34, "33" }},
		{"u1/build/torque/spool", func(u *stops.Unit) {
			part(u).Joint = &build.Joint{Bolts: true, Thread: "M10", Class: "8.8"}
		}},
		{"u1/build/torque/spool", func(u *stops.Unit) {
			part(u).Joint, part(u).Step.Torque = &build.Joint{Bolts: true, Thread: "M10", Class: "8.8"}, newtons(120)
		}},
		{"u1/build/torque/spool", func(u *stops.Unit) {
			part(u).Joint, part(u).Step.Torque = &build.Joint{Bolts: true, Thread: "M10", Class: "unknown"}, newtons(5)
		}},
		{"u1/build/torque/spool", func(u *stops.Unit) {
			part(u).Joint, part(u).Step.Torque = &build.Joint{Bolts: true, Thread: "M10", Class: "8.8"}, newtons(38)
			part(u).Part.Joint.Engaged = quantity.Quantity{Typed: "8 mm", SI: 8e-3}
		}},
		{"u1/build/lip/spool", func(u *stops.Unit) { part(u).Groove = "0.025 mm" }},
		{"u1/build/lip/spool", func(u *stops.Unit) { part(u).Lip = build.LipRun{Known: true, OnOld: true} }},
		{"u1/build/lip/spool", func(u *stops.Unit) { part(u).Lip = build.LipRun{Known: true, None: true} }},
		{"u1/build/turn/spool", func(u *stops.Unit) { part(u).Def.Reaches = true }},
		{"u1/build/fill", func(u *stops.Unit) { u.Unfilled = []string{"Primed"} }},
		{"u1/kit/seal/2", func(u *stops.Unit) { u.Kit = []kit.Issue{{Piece: 2, Seal: true, Text: "too old"}} }},
		{"u1/prove/proved", func(u *stops.Unit) { u.Unsettled = []string{"turns freely"} }},
		{"u1/handover/lesson", func(u *stops.Unit) { u.Rounds = append(u.Rounds, &unit.Round{Number: 2}) }},
		{"u1/handover/blamed", func(u *stops.Unit) { u.Conclusion.Blamed = "pulley" }},
		{"u1/handover/sump", func(u *stops.Unit) {
			u.GainedElsewhere = quantity.Quantity{Typed: "5 L", SI: 0.005, Dim: quantity.Volume}
		}},
		{"u1/handover/flush", func(u *stops.Unit) { u.BrokenUp = true }},
	} {
		u := settled()
		c.open(u)
		var codes []string
		for _, list := range stops.All(u) {
			for _, s := range list {
				codes = append(codes, s.StopCode.String())
				assert.NotEmpty(t, s.Text)
			}
		}
		assert.Equal(t, []string{c.code}, codes)
		for _, code := range codes {
			_, ok := unit.ParseStopCode(code)
			assert.True(t, ok, "%s is read again as it is written", code)
		}
	}
}

// A unit that ends otherwise owes only what its ending owes, and says what became of it.
func TestAnEndingOwesItsOwn(t *testing.T) {
	u := settled()
	u.Ending, u.Unsettled = unit.EndCondemned, []string{"turns freely"}
	u.Parts[0].Step.Done = false
	all := stops.All(u)
	assert.Empty(t, all["build"])
	assert.Empty(t, all["prove"])
	require.Len(t, all["handover"], 1)
	assert.Contains(t, all["handover"][0].Text, "say where it went")
	u.EndingNote = "scrapped with the customer's word"
	assert.Empty(t, stops.All(u))

	u = settled()
	u.Ending, u.EndingNote = unit.EndReplaced, "by a new one"
	texts := ""
	for _, s := range stops.All(u)["handover"] {
		texts += s.Text
	}
	assert.Contains(t, texts, "Another unit runs where “hard dirt in the oil” was not cured")
}

// Every kind of stop there is can be written and read as an address.
func TestEveryKindIsAnAddress(t *testing.T) {
	for _, kind := range unit.StopKinds {
		c := unit.StopCode{Unit: 2, Station: "strip", Kind: kind, Part: "spool"}
		if kind == unit.StopLoose || kind == unit.StopPiece || kind == unit.StopSeal || kind == unit.StopOutside {
			c.Part, c.Number = "", 3
		}
		got, ok := unit.ParseStopCode(c.String())
		assert.True(t, ok, kind)
		assert.Equal(t, kind, got.Kind)
	}
}

// A bore that was honed is judged by what its oversize seals can make up, not by the limit
// of the usual ones.
func TestHonedBoreWithOversizeSeals(t *testing.T) {
	u := settled()
	f := &u.Parts[0].Features[0]
	f.Def.Clearance = false
	f.Found.HasNominal, f.Found.Nominal = true, 80e-3
	f.Built = measure.Result{Any: true, Verdict: metrology.Out, HasValue: true, Value: 80.25e-3}
	u.Parts[0].Ways = []stops.Way{{Oversize: true, Route: decide.Route{For: []string{"clearance"}, Stock: 0.3e-3}}}
	assert.Empty(t, stops.All(u)["build"])
	f.Built.Value = 80.35e-3
	assert.Len(t, stops.All(u)["build"], 1)
}

// Where a stop only says what is missing, it says besides what is done about it.
func TestWhatIsDoneAboutAStop(t *testing.T) {
	t.Parallel()
	u := settled()
	u.Job.Complaint = ""
	u.Known.Speed, u.Baseline, u.Unsettled = false, false, []string{"turns freely"}
	u.Conclusion = unit.Conclusion{}
	u.Gauge = machine.Gauge{Ask: "known_gauge"}
	u.Kit = []kit.Issue{{Part: "spool", Lacks: "Spool seal", Text: "Spool seal: no piece for this place"}}
	u.Parts[0].Strip.Off, u.Parts[0].Step = false, unit.Step{}
	u.Parts[0].Features[0].Def.MustHave, u.Parts[0].Features[0].Found = true, measure.Result{}
	next := map[unit.StopKind]string{}
	for _, list := range stops.All(u) {
		for _, s := range list {
			next[s.Kind] = s.Next()
		}
	}
	for kind, act := range map[unit.StopKind]string{
		unit.StopComplaint:   "write down what is wrong with it",
		unit.StopSpeed:       "write down its speed",
		unit.StopBaseline:    "enter the figures it came with, or say why it could not be run",
		unit.StopConclusion:  "look at what comes next, or name the root cause",
		unit.StopGauges:      "ask at the machine: Does a known-good gauge show the same?",
		unit.StopPlace:       "say what came for spool seal",
		unit.StopStillOn:     "take the next part off",
		unit.StopNotMeasured: "measure control spool: clearance",
		unit.StopUnfitted:    "fit the next part",
		unit.StopProved:      "run the bench test, or say at the step why it is not possible here",
	} {
		assert.Equal(t, act, next[kind])
	}
	assert.Equal(t, "Two left", stops.Stop{Text: "Two left"}.Next(), "its own words, where they say it")
}

// What hides a fault is neither a remedy nor a reason to keep a part.
func TestHidingIsNoRemedy(t *testing.T) {
	u := settled()
	u.Causes[0].Action = "run it on thicker oil"
	require.Len(t, stops.All(u)["explain"], 1)
	assert.Contains(t, stops.All(u)["explain"][0].Text, "no remedy")

	u = settled()
	p := &u.Parts[0]
	p.Proposal.Choice, p.Decision = decide.Replace, unit.Decision{
		Choice: "keep",
		Reason: "relief raised a turn instead",
	}
	assert.Empty(t, stops.All(u)["decide"], "somebody turned it down, in words")
	p.Decision.Reason = "relief raised a turn, it makes its pressure"
	require.Len(t, stops.All(u)["decide"], 1)
	assert.Contains(t, stops.All(u)["decide"][0].Text, "mends nothing")
	p.Decision.Reason = "its wear is in a place that does not seal"
	assert.Empty(t, stops.All(u)["decide"])
}

// A part alone is not sent before somebody saw what ate the old one.
func TestAPartAloneAsksFirst(t *testing.T) {
	t.Parallel()
	asked := func(u *stops.Unit) string {
		for _, s := range stops.All(u)["receive"] {
			if s.Kind == unit.StopPartOnly {
				return s.Text
			}
		}
		return ""
	}
	u := settled()
	assert.Empty(t, asked(u))
	u.Job.PartOnly = "front gasket"
	assert.Contains(t, asked(u),
		"front gasket. Before it is sent: pictures of the inside, and where the valves in drain")
	u.Job.ValvesAt = "ball valve in the drain, open; none in suction"
	assert.Contains(t, asked(u), "Before it is sent: pictures of the inside")
	u.Job.Pictures = append(u.Job.Pictures, &unit.Picture{})
	assert.Empty(t, asked(u))
}
