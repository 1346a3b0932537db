package hidden

import (
	"slices"

	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/proof"
	"corvek/core/quantity"
)

// How much of its theory a pump gives before it is opened, beside what is accepted of it.
const (
	gives  = 0.03
	lacks  = 0.14
	beyond = 1.5 // how far a figure that is out lies beyond its limit
)

// run lays out what the unit shows on a stand before it is opened, at the steps of which a mark tells.
func (l *laying) run() {
	facts, err := l.st.Facts()
	if err != nil {
		return // it cannot be run: nothing is shown
	}
	for _, step := range l.st.Plan() {
		t := &step.Test
		if !step.Received || step.Skipped != "" || len(t.Reads) == 0 {
			continue
		}
		tied := l.told(func(f explain.From) bool { return f.Efficiency == t.Code || stepOf(f) == t.Code })
		if tied == nil {
			continue
		}
		shown := facts.Mount(t).Rest
		for _, r := range t.Reads {
			v, known := shown[r.Figure]
			if r.Figure == "pressure" && t.Pressure > 0 {
				v, known = t.Pressure*l.st.Duty.Pressure, true
			}
			if r.By == family.ByEfficiency {
				share := proof.Band(l.st.Family.Accept, t.Pressure) + gives
				e := l.told(func(f explain.From) bool { return f.Efficiency == t.Code })
				if e != nil && l.there[e.Code] {
					share -= gives + lacks
				}
				v, known = share*facts.Model.Theoretical(), true
			}
			if known {
				l.put(l.u.PointRef(0, t.Code, r.Figure), base(v, r.Figure))
			}
		}
	}
	l.out()
}

// out moves figures beyond their limits where a mark that is there says so.
func (l *laying) out() {
	if l.fault != nil {
		return
	}
	st, err := l.shop.state(l.j)
	if err != nil || st.Received == nil {
		l.fault = err
		return
	}
	for i := range l.k.Evidence {
		e := &l.k.Evidence[i]
		at := slices.IndexFunc(e.Froms(), func(f explain.From) bool { return f.Step != "" })
		if at < 0 || !l.there[e.Code] {
			continue
		}
		code, side := e.Froms()[at].OfStep()
		for _, p := range st.Received.Points {
			if p.Test.Code != code {
				continue
			}
			for _, f := range p.Figures {
				factor := 0.0
				switch {
				case f.Value == 0 || f.Q.IsZero():
					continue
				case side != "low" && f.Limits.HasUpper:
					factor = beyond * f.Limits.Upper / f.Value
				case side != "high" && f.Limits.HasLower:
					factor = f.Limits.Lower / beyond / f.Value
				default:
					continue
				}
				l.put(l.u.PointRef(0, code, f.Figure), base(f.Q.SI*factor, f.Figure))
				break
			}
		}
	}
}

func stepOf(f explain.From) string { code, _ := f.OfStep(); return code }

// base writes a figure as it is read, as finely as a good instrument tells.
func base(si float64, figure string) string {
	g, _ := family.FigureByCode(figure)
	if g.Dim == quantity.Number {
		return quantity.Figures(si, 4)
	}
	u, places := quantity.ShopUnit(si, g.Dim, quantity.Metric)
	return u.Format(si, places+1)
}
