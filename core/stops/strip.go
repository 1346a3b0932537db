package stops

import (
	"slices"
	"strings"

	"corvek/core/decide"
	"corvek/core/family"
	"corvek/core/machine"
	"corvek/core/metrology"
	"corvek/core/strip"
	"corvek/core/unit"
)

// strip asks for the gauges first: nothing comes off before them.
func (l *list) strip() {
	if code, why := GaugeHold(l.Gauge, l.Unit.Unit); why != "" {
		stop := l.add(code, "%s", strings.ToUpper(why[:1])+why[1:])
		if code.Part == string(machine.HoldNotTold) {
			stop.Act = "ask at the machine: " + ask(l.Gauge.Ask)
		}
	}
	var parts []strip.Part
	for i := range l.Parts {
		parts = append(parts, l.Parts[i].Strip)
	}
	var loose []strip.Loose
	for _, x := range l.Loose {
		loose = append(loose, strip.Loose{Number: x.Number, What: x.What, Tied: x.Part != "", Note: x.Note})
	}
	for _, i := range strip.Check(parts, loose) {
		stop := l.add(unit.StopCode{Station: "strip", Kind: i.Kind, Part: i.Part, Number: i.Loose}, "%s", i.Text)
		if i.Kind == unit.StopStillOn {
			stop.Act = "take the next part off"
		}
	}
	for i := range l.Parts {
		l.cameOff(&l.Parts[i])
	}
}

// cameOff asks how a part that would not come was found, and for the order and facing of
// a pack as it came off.
func (l *list) cameOff(p *Part) {
	if p.Stuck && blank(p.Note) {
		l.part(p, "strip", unit.StopStuck, "%s was %s: write how it was found, before freeing or wiping", p.Name,
			p.Part.Stuck)
	}
	s := p.Stack
	if s == nil || !p.Off {
		return
	}
	switch {
	case s.FoundFault != "":
		l.part(p, "strip", unit.StopStack, "%s: the stack as removed %s", p.Name, s.FoundFault)
	case len(s.Found) == 0:
		l.part(p, "strip", unit.StopStack, "%s: order and facing as removed not noted", p.Name)
	case slices.ContainsFunc(s.Found, unfaced):
		l.part(p, "strip", unit.StopStack, "%s: a facing as removed is not noted", p.Name)
	}
}

func unfaced(p family.Piece) bool { return p.Def.Faced && p.Facing == 0 }

func (l *list) measure() {
	for i := range l.Parts {
		p := &l.Parts[i]
		for k := range p.Features {
			l.measured(p, &p.Features[k])
		}
		l.springBack(p)
	}
	for _, s := range l.Suspects {
		l.add(unit.StopCode{Station: "measure", Kind: unit.StopSuspect, Part: s.Part, Feature: s.Feature},
			"%s: blamed by “%s” and never measured", s.PartName, strings.ToLower(l.Cause.Name))
	}
}

// springBack holds a spring that goes back in and that nobody measured: it looks the same when it is spent, or is
// another's.
func (l *list) springBack(p *Part) {
	if !p.Def.Springs() || p.Choice == decide.Replace || len(p.Features) == 0 {
		return
	}
	for i := range p.Features {
		if f := &p.Features[i]; f.Found.Any || f.Built.Any || f.Def.MustHave {
			return
		}
	}
	l.at(p, &p.Features[0], "measure", unit.StopSpring, "%s goes back in and was not measured", p.Name).Act =
		"measure it, or renew it at Decide: " + strings.ToLower(p.Name)
}

// measured holds what contradicts itself, is undecided or missing, and readings that
// cannot be trusted: taken with a tool out of calibration, or too coarse for the limit.
func (l *list) measured(p *Part, f *Feature) {
	name := p.Name + ": " + strings.ToLower(f.Def.Name)
	scrapped := p.Decision.Choice == string(decide.Replace) // what is undecided of it decides nothing any more
	switch {
	case scrapped && f.Found.Any:
		return
	case len(f.Found.Faults) > 0:
		l.at(p, f, "measure", unit.StopFault, "%s contradicts itself", name)
	case f.Found.Verdict == metrology.Undecided:
		l.at(p, f, "measure", unit.StopUndecided, "%s is undecided", name)
	case !f.Found.Any && f.Def.MustHave:
		l.at(p, f, "measure", unit.StopNotMeasured, "%s not measured", name).Act = "measure " + strings.ToLower(name)
	}
	if !f.Found.Any && !f.Built.Any {
		return
	}
	if f.Overdue != "" {
		l.at(p, f, "measure", unit.StopCalibration, "%s: %s", p.Name, f.Overdue)
	}
	if f.TooCoarse && f.Def.MustHave {
		l.at(p, f, "measure", unit.StopCoarse, "%s, %s: its instrument cannot judge so narrow a limit", p.Name,
			strings.ToLower(f.Def.Name))
	}
}
