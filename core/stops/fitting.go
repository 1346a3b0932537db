package stops

import (
	"strconv"

	"corvek/core/build"
	"corvek/core/unit"
)

// order tells a part that closed over an open place.
func (l *list) order(p *Part) {
	if p.Step.Done && p.Step.Over != "" && blank(p.Step.OrderWhy) {
		l.part(p, "build", unit.StopOrder, "%s went in before what lies under it: %s", p.Name, p.Step.Over)
	}
}

// counted asks for the pieces to be counted in where they were counted out.
func (l *list) counted(p *Part) {
	if !p.Step.Done || p.CountIn == 0 {
		return
	}
	n, err := strconv.Atoi(p.Step.Count)
	switch {
	case err != nil:
		l.part(p, "build", unit.StopCount, "%s: count them in, %d belong", p.Name, p.CountIn)
	case n != p.CountIn:
		l.part(p, "build", unit.StopCount, "%s: %d went in, %d belong", p.Name, n, p.CountIn)
	}
}

// tightened judges what a joint was tightened to.
func (l *list) tightened(p *Part) {
	if !p.Step.Done || p.Joint == nil {
		return
	}
	load, typed := p.Joint.Loads(p.Step.Torque.SI)
	switch {
	case p.Part.Joint.Snug:
	case !p.Joint.Bolts && p.Joint.Angle != "":
	case p.Step.Torque.IsZero():
		l.part(p, "build", unit.StopTorque, "%s: say what it was tightened to", p.Name)
	case typed && load.Unknown:
		l.part(
			p,
			"build",
			unit.StopTorque,
			"%s: %s, and no torque is safe before thread and head mark are read",
			p.Name,
			p.Step.Torque.Typed,
		)
	case typed && load.Over:
		l.part(p, "build", unit.StopTorque, "%s: %s is %.0f %% of its proof load", p.Name, p.Step.Torque.Typed,
			100*load.Share)
	}
	if m := p.Part.Joint.Engaged; !m.IsZero() && p.Joint.Short(m.SI) {
		l.part(p, "build", unit.StopTorque, "%s: %s of thread carries, less than its diameter", p.Name, m.Typed)
	}
}

// lip holds a lip seal off the groove that the old one wore.
func (l *list) lip(p *Part) {
	switch {
	case !p.Step.Done:
	case p.Lip.Known && p.Lip.None:
		l.part(p, "build", unit.StopLip, "%s: no depth keeps its lip off the groove; sleeve the shaft", p.Name)
	case p.Lip.OnOld:
		l.part(p, "build", unit.StopLip, "%s: pressed to %s its lip runs on the old groove", p.Name,
			p.Step.Press.Typed)
	case p.Groove != "" && p.Step.Press.IsZero():
		l.part(p, "build", unit.StopLip, "%s: a groove %s deep is on the shaft; say how deep it is pressed", p.Name,
			p.Groove)
	}
	if p.Step.Done && p.Def.Reaches && !p.Step.Cycled {
		l.part(p, "build", unit.StopTurn, "%s: move what is behind it by hand over its whole way, whether it is free",
			p.Name)
	}
	if p.Step.Done && p.Step.Proud.SI > 0 && build.Turn(p.Step.Turn).Bad() {
		l.part(p, "build", unit.StopProud, "%s: %s stands proud under it", p.Name, p.Step.Proud.Typed)
	}
}
