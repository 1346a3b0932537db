package stops

import (
	"strings"

	"corvek/core/family"
	"corvek/core/machine"
	"corvek/core/unit"
)

// cautions holds each station whose serious cautions were not read.
func (l *list) cautions() {
	for _, station := range unit.Stations {
		for _, c := range l.Family.ReadAt(station) {
			if c.Serious && l.Job.Acknowledged(c.Code) == nil {
				title := strings.ToLower(c.Title)
				l.add(unit.StopCode{Station: station, Kind: unit.StopCaution, Part: c.Code}, "Caution not read: %s",
					title).Act = "read the caution: " + title
			}
		}
	}
}

func (l *list) receive() {
	if blank(l.Job.Complaint) && len(l.Job.Symptoms) == 0 {
		l.of("receive", unit.StopComplaint, "No complaint written down").Act = "write down what is wrong with it"
	}
	if l.Family.Action == "pump" && l.Owes("prove") {
		for _, n := range []struct {
			known bool
			kind  unit.StopKind
			name  string
		}{
			{l.Known.Displacement, unit.StopDisplacement, "displacement"},
			{l.Known.Speed, unit.StopSpeed, "speed"},
			{l.Known.Pressure, unit.StopDutyPressure, "duty pressure"},
		} {
			if !n.known {
				l.of("receive", n.kind, "Not known: %s", n.name).Act = "write down its " + n.name
			}
		}
		if !l.Baseline && blank(l.NoBefore) {
			l.of("receive", unit.StopBaseline, "No as-received figures: without them nobody can say what the "+
				"work changed").Act = "enter the figures it came with, or say why it could not be run"
		}
	}
	if l.Asked != "" && l.Owes("prove") {
		l.of("receive", unit.StopRating, "%s", l.Asked).Act = "settle with the customer what " +
			"it is asked, or correct one of the two"
	}
	l.partOnly()
	if l.Job.WarrantyHold {
		l.of("receive", unit.StopWarranty, "Warranty hold: do not open")
	}
}

// partOnly asks, before a part alone is sent, what ate the old one: a gasket that blew twice was blown by a shut
// drain.
func (l *list) partOnly() {
	var lacks []string
	if len(l.Job.Pictures) == 0 {
		lacks = append(lacks, "pictures of the inside")
	}
	if blank(l.Job.ValvesAt) {
		lacks = append(lacks, "where the valves in drain and suction are")
	}
	if !blank(l.Job.PartOnly) && len(lacks) > 0 {
		l.of("receive", unit.StopPartOnly, "Only a part is asked for, %s. Before it is sent: %s", l.Job.PartOnly,
			strings.Join(lacks, ", and ")).Act = "ask for " + lacks[0]
	}
}

// GaugeHold says in words why the gauges keep a unit shut, with the stop that stands for
// it; a waiver of one reason settles no other. It is "" where they do not.
func GaugeHold(g machine.Gauge, u *unit.Unit) (code unit.StopCode, why string) {
	because := strings.Join(g.Because, "; ")
	hold := g.Holds(u.NotAsked != "")
	code = unit.StopCode{Unit: u.Number, Station: "strip", Kind: unit.StopGauges, Part: string(hold)}
	switch hold {
	case machine.HoldCleared:
		code.Kind, code.Part = unit.StopAcquitted, ""
		why = "the unit is cleared by the gauges: " + because + "; it is not opened"
	case machine.HoldElsewhere:
		why = "the gauges point elsewhere: " + because + "; look there first"
	case machine.HoldFirst:
		why = "ask first, before anything is opened: " + ask(g.Ask)
	case machine.HoldNotTold:
		why = "not settled at the machine yet; ask there: " + ask(g.Ask)
	}
	return code, why
}

// ask is what a question asks at the machine.
func ask(code string) string {
	q, _ := family.QuestionByCode(code)
	return q.Ask
}

func blank(s string) bool { return strings.TrimSpace(s) == "" }
