package web

import (
	"fmt"
	"time"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/job"
	"corvek/internal/report"
)

// PointRow is a step of the test with what was read at it.
type PointRow struct {
	Code, Name     string
	How            string // under what condition it is done, of the complaint's step
	Hold           string // how long it is held, "" where it is not
	Held           string // how long it was
	HoldUntil      string // while the hold runs: the moment it ends, for the clock beside it
	MayHold        bool
	Skipped        string // why it does not apply
	Limits         string // between which a relief is to hold, and who says so
	Skip           *Entry
	Row            string  // the tone of the row
	Word           *Choice // what was observed, at a step without figures
	Pressure, Flow *Entry
	Under          []*Entry // pressure and temperature at which it was looked at
	Efficiency     string
	Tone, Words    string // how it came out
}

// Tones of a verdict, for rows and words.
var (
	rowTones  = map[metrology.Verdict]string{metrology.In: "good", metrology.Out: "bad", metrology.Undecided: "open"}
	wordTones = map[metrology.Verdict]string{metrology.In: "petrol", metrology.Out: "red",
		metrology.Undecided: "ochre"}
)

// pointRows lays out the steps of an attempt, or of the unit as received.
func (l *look) pointRows(a *job.AttemptState) (out []PointRow) {
	for _, pt := range a.Points {
		r := PointRow{Code: pt.Test.Code, Name: pt.Test.Name, How: pt.Test.How,
			Row: rowTones[pt.Verdict], Tone: wordTones[pt.Verdict],
			Words: pointWords(a, pt), Skipped: pt.Skipped}
		if a.Number > 0 {
			l.hold(&r, a, pt)
		}
		r.Limits = report.SettingWords(l.st, pt, l.Units)
		switch pt.Test.Kind {
		case family.TestObserve, family.TestLeak:
			word := l.choose(l.unit.PointRef(a.Number, pt.Test.Code, "word")).Named(pt.Test.Name).Wrap()
			word.Locked = word.Locked || a.Closed
			r.Word = &word
			if pt.Test.Code == family.ComplaintTest {
				r.Under = []*Entry{l.pointEntry(a.Attempt, pt, "pressure"), l.pointEntry(a.Attempt, pt, "temperature")}
			}
		case family.TestFlow:
			r.Pressure, r.Flow = l.pointEntry(a.Attempt, pt, "pressure"), l.pointEntry(a.Attempt, pt, "flow")
		default:
			r.Pressure = l.pointEntry(a.Attempt, pt, "pressure")
		}
		if pt.HasFlow && pt.Efficiency != 0 {
			r.Efficiency = fmt.Sprintf("%.0f %%", 100*pt.Efficiency)
		}
		out = append(out, r)
	}
	return out
}

// hold fills in how long a step is held: the clock tells it, from the tap that
// begins it to the reading that ends it.
func (l *look) hold(r *PointRow, a *job.AttemptState, pt job.PointState) {
	r.Hold = pt.Test.Hold
	open := !a.Closed && l.CanWork()
	q, err := quantity.Parse(pt.Test.Hold, quantity.Time)
	switch held := pt.Row.Held(); {
	case err != nil:
	case held > 0:
		r.Held = fmt.Sprintf("held %d min %02d s", int(held.Minutes()), int(held.Seconds())%60)
	case !pt.Row.HoldFrom.IsZero() && open:
		r.HoldUntil = pt.Row.HoldFrom.Add(time.Duration(q.SI * float64(time.Second))).Format(time.RFC3339)
	}
	r.MayHold = open && err == nil && pt.Row.Held().Seconds() < q.SI
	if open && (pt.Row.Skipped != "" || pt.Verdict == "" && pt.Skipped == "") {
		skip := l.field(l.unit.PointRef(a.Number, pt.Test.Code, "not_applicable"))
		r.Skip = &skip
	}
}

// pointEntry is the field of a step's figure.
func (l *look) pointEntry(a *unit.Attempt, pt job.PointState, what string) *Entry {
	e := l.field(l.unit.PointRef(a.Number, pt.Test.Code, what))
	e.Label = pt.Test.Name + ", " + what
	e.ReadOnly = e.ReadOnly || a.Closed
	if what == "pressure" && pt.Test.Kind == family.TestFlow && l.st.Duty.HasPressure && !e.ReadOnly {
		e.Planned = l.show(pt.Target, quantity.Pressure)
	}
	return &e
}

// pointWords say how a step came out; empty as received, which is judged by nobody.
func pointWords(a *job.AttemptState, pt job.PointState) string {
	switch {
	case a.Number == 0 || pt.Verdict == "":
		return ""
	case pt.Verdict == metrology.Undecided:
		return "?"
	case pt.Short:
		return "pressure not reached"
	}
	return string(pt.Verdict)
}
