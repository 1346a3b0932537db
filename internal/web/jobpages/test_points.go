package jobpages

import (
	"net/url"
	"strings"
	"time"

	"corvek/core/bench"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/report"
)

// PointRow is a step of the test with what was read at it.
type PointRow struct {
	Code, Name  string
	How         string // what is done, or under what condition
	Unsaid      string // what it does not show
	Medium      string // where it is not the unit's own fluid
	Hold        string // how long it is held, "" where it is not
	Held        string // how long it was
	HoldUntil   string // while the hold runs: the moment it ends, for the clock beside it
	MayHold     bool
	MayEnd      bool   // the hold runs
	Skipped     string // why nothing is read there
	Skip        *Entry
	Row         string  // the tone of the row
	Word        *Choice // what was seen, nil where nothing is looked for
	Figures     []FigureCell
	More        []FigureCell // that can be left out, and were so far
	Limits      []LimitRow   // the unit's own limits, where they can be typed
	Tone, Words string       // how it came out
	MayPour     bool         // oil goes in by portions
	Pours       []PourRow    // that went in
	Reckon      *Reckon      // the calculator for such a step, with what was read
}

// Reckon leads to a calculator that is filled in with what stands at a step.
type Reckon struct{ Name, Address string }

// reckoned are the calculators for what a step reads, with the names they know its figures by.
var reckoned = []struct {
	figure, calculator, name string
	given                    map[string]string
}{
	{"standby", "standby", "Tune it under its ceiling", map[string]string{"standby": "measured", "flow": "flow"}},
	{"pressure_end", "pressure_decay", "Reckon the hold", map[string]string{"pressure": "start_pressure",
		"pressure_end": "end_pressure", "temperature": "start_temperature", "temperature_end": "end_temperature"}},
}

// reckon is the calculator for a step, nil where there is none.
func (l *look) reckon(pt *bench.Point) *Reckon {
	for _, r := range reckoned {
		if pt.Figure(r.figure) == nil {
			continue
		}
		q := url.Values{"for": {l.job.Tag}}
		for i := range pt.Figures {
			if f := &pt.Figures[i]; !f.Q.IsZero() && r.given[f.Figure] != "" {
				q.Set(r.given[f.Figure], f.Q.String())
			}
		}
		if r.calculator == "pressure_decay" {
			q.Set("medium", map[bool]string{true: "gas", false: "oil"}[proof.GasIn(pt.Test)])
			if held := pt.Row.Held(); held > 0 {
				q.Set("duration", quantity.Show(held.Seconds(), quantity.Time, l.Units))
			}
		}
		return &Reckon{r.name, "/toolbox/" + r.calculator + "?" + q.Encode()}
	}
	return nil
}

// FigureCell is a figure of a step: its field, what was worked out of it and what it must be.
type FigureCell struct {
	*Entry
	Worked, Limit string
	Tone, Verdict string
}

// LimitRow is what a figure must be on this unit, and who says so.
type LimitRow struct {
	Name                string
	Least, Most, Source Entry
}

// Tones of a verdict, for rows and words.
var (
	rowTones  = map[metrology.Verdict]string{metrology.In: "good", metrology.Out: "bad", metrology.Undecided: "open"}
	wordTones = map[metrology.Verdict]string{metrology.In: "petrol", metrology.Out: "red",
		metrology.Undecided: "ochre"}
)

// pointRows lays out the steps of an attempt, or of the unit as received.
func (l *look) pointRows(a *bench.Attempt) (out []PointRow) {
	for _, pt := range a.Points {
		r := PointRow{Code: pt.Test.Code, Name: pt.Test.Name, How: pt.Test.How, Medium: pt.Test.Medium,
			Row: rowTones[pt.Verdict], Tone: wordTones[pt.Verdict],
			Words: pointWords(a, pt), Skipped: pt.Skipped}
		if a.Number > 0 {
			l.hold(&r, a, pt)
		}
		if len(pt.Test.Words) > 0 {
			word := l.choose(l.unit.PointRef(a.Number, pt.Test.Code, "word")).Named(pt.Test.Name).Wrap()
			word.Locked = word.Locked || a.Closed
			r.Word = &word
		}
		for i := range pt.Figures {
			switch f := &pt.Figures[i]; {
			case !f.May || !f.Q.IsZero():
				r.Figures = append(r.Figures, l.figureCell(a, pt, f))
			case !a.Closed:
				r.More = append(r.More, l.figureCell(a, pt, f))
			}
		}
		if a.Number > 0 && !a.Closed && l.CanWork() {
			r.Limits = l.limitRows(pt)
		}
		r.Pours, r.MayPour = l.pourRows(&pt), pt.Test.Pours != "" && a.Number > 0 && !a.Closed && l.CanWork()
		r.Unsaid = pt.Test.Unsaid
		r.Reckon = l.reckon(&pt)
		out = append(out, r)
	}
	return out
}

// PourRow is a portion of oil with the stroke after it.
type PourRow struct {
	Put, Stroke string
	Gained      string // and what it explains, "" of the first
	Says        string
}

// pourRows are the portions of a step.
func (l *look) pourRows(pt *bench.Point) (out []PourRow) {
	coarse := func(v float64) string { // as a stroke is read beside a rule
		u, _ := quantity.ShopUnit(0.1, quantity.Length, l.Units)
		return u.Format(v, map[bool]int{true: 2, false: 1}[u.System == quantity.Inch])
	}
	for _, p := range l.st.Pours(pt.Test, &pt.Row) {
		r := PourRow{Put: p.Volume.In(l.Units), Stroke: p.Stroke.In(l.Units), Says: p.Says()}
		if !p.First {
			r.Gained = "gained " + coarse(p.Gained)
		}
		if p.Explains > 0 {
			r.Gained = strings.TrimPrefix(r.Gained+", this oil explains "+coarse(p.Explains), ", ")
		}
		out = append(out, r)
	}
	return out
}

func (l *look) figureCell(a *bench.Attempt, pt bench.Point, f *proof.Figured) FigureCell {
	c := FigureCell{Entry: l.pointEntry(a.Attempt, pt, f), Worked: report.Worked(f, l.Units),
		Limit: report.LimitOf(f, l.Units)}
	if f.Needs != "" {
		c.Worked = "needs " + f.Needs
	}
	if a.Number > 0 && f.Verdict != "" && f.Verdict != pt.Verdict {
		c.Tone, c.Verdict = wordTones[f.Verdict], calledWords(f.Verdict)
	}
	if f.Figure == "pressure" && pt.Target > 0 && c.Limit == "" {
		c.Limit = "from " + l.Show(proof.Least(pt.Target), quantity.Pressure)
	}
	return c
}

// limitRows are the fields of the unit's own limits at a step.
func (l *look) limitRows(pt bench.Point) (out []LimitRow) {
	for _, f := range pt.Figures {
		at := func(name string) Entry {
			e := l.field(l.unit.LimitRef(pt.Test.Code, f.Figure, name))
			e.Label = f.Name + ": " + strings.ToLower(e.Label)
			return e
		}
		out = append(out, LimitRow{f.Name, at("least"), at("most"), at("source")})
	}
	return out
}

// hold fills in how long a step is held: the clock tells it, from the tap that
// begins it to the reading that ends it.
func (l *look) hold(r *PointRow, a *bench.Attempt, pt bench.Point) {
	r.Hold = pt.Test.Hold
	open := !a.Closed && l.CanWork()
	q, err := quantity.Parse(pt.Test.Hold, quantity.Time)
	switch held := pt.Row.Held(); {
	case err != nil:
	case held > 0:
		r.Held = "held " + report.HeldWords(held)
	case !pt.Row.HoldFrom.IsZero() && open:
		r.HoldUntil = pt.Row.HoldFrom.Add(time.Duration(q.SI * float64(time.Second))).Format(time.RFC3339)
	}
	r.MayEnd = r.HoldUntil != ""
	r.MayHold = open && err == nil && pt.Row.Held().Seconds() < q.SI
	if open && (pt.Row.Skipped != "" || pt.Row.Empty() && pt.Skipped == "") {
		skip := l.field(l.unit.PointRef(a.Number, pt.Test.Code, "not_applicable"))
		r.Skip = &skip
	}
}

// pointEntry is the field of a step's figure.
func (l *look) pointEntry(a *unit.Attempt, pt bench.Point, f *proof.Figured) *Entry {
	e := l.field(l.unit.PointRef(a.Number, pt.Test.Code, f.Figure))
	e.ReadOnly = e.ReadOnly || a.Closed
	if smaller, fits := smallUnits[f.Figure]; fits && f.Q.IsZero() && l.Units.For(quantity.Flow) != quantity.Inch {
		e.Hint, e.Unit = smaller, strings.Split(smaller, "|")[0]
	}
	if f.Figure == "volume" && pt.Test.Pours != "" {
		e.Label = "Put in"
	}
	if f.Figure == "pressure" && pt.Target > 0 && !e.ReadOnly {
		e.Planned = l.Show(pt.Target, quantity.Pressure)
	}
	return &e
}

// smallUnits are the units of figures that are small on every unit, the usual one first.
var smallUnits = map[string]string{
	"leakage": "ml/min|L/min|drops/min", "vent": "ml/min|L/min", "volume": "ml|L", "stroke_volume": "ml|L",
	"time": "s|min",
}

// pointWords say how a step came out; empty as received, which is judged by nobody.
func pointWords(a *bench.Attempt, pt bench.Point) string {
	switch {
	case a.Number == 0 || pt.Skipped != "":
		return ""
	case pt.Verdict == "" && len(pt.Missing) > 0 && !pt.Row.Empty():
		return "not read: " + strings.ToLower(strings.Join(pt.Missing, ", "))
	case pt.Verdict == "":
		return ""
	case pt.Short:
		return "pressure not reached"
	case pt.Verdict == metrology.Undecided && !pt.Judgeable():
		return "no limit to judge it by"
	}
	return calledWords(pt.Verdict)
}

// calledWords call a verdict by a word and a sign, so that it is told apart without colour.
func calledWords(v metrology.Verdict) string {
	return map[metrology.Verdict]string{metrology.In: "✓ in", metrology.Out: "✗ out",
		metrology.Undecided: "? undecided"}[v]
}
