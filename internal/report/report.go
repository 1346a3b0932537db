// Package report writes the papers that leave the shop: findings report, certificate, offer,
// start-up card, state of the evidence, build sheet, parts list and tote tag. They are worked
// out from the same computed state as the pages, so that paper and screen never disagree.
package report

import (
	"corvek/core/handover"
	"fmt"
	"slices"
	"strings"
	"time"

	"corvek/core/bench"
	"corvek/core/decide"
	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/shop"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/answer"
	"corvek/internal/document"
	"corvek/internal/draw"
	"corvek/internal/line"
)

// Row is a measured feature against its limit, before and after.
type Row struct {
	Part, Feature, AsNew, Limit, LimitSource, Found, Verdict, After, AfterVerdict string
}

// PartRow is what was done with a part and why.
type PartRow struct{ No, Name, Count, Choice, Reason string }

// TestRow is a step of the test, before and after.
type TestRow struct{ Name, Before, After, Verdict string }

// Data is a report of one unit of a job.
type Data struct {
	S         *bench.State
	Units     quantity.System // the reader's
	Shop      document.Shop
	Printed   time.Time
	Line      string // the unit pulled apart, as measured
	Charts    []Chart
	Rows      []Row
	Parts     []PartRow
	Differs   []string // from the family
	Seen      []string // marks
	Causes    []string // beside the one concluded
	Stacks    []string // as removed, as they belong, as fitted
	Tests     []TestRow
	Chain     []explain.LinkState
	Waived    []bench.Stop
	Reopened  []*unit.Reopening
	Since     *Since // nil where nothing was given out before
	Record    Record
	Open      []bench.Stop
	Stands    Standing
	Drained   string         // what came out of the system
	Counts    *bench.Attempt // the test that counts, nil without one
	Attempts  []*bench.Attempt
	Leak      string
	LeakAfter string
	Note      Note     // the paper that goes with the unit
	Customer  []string // what the customer must change
	Worked    []answer.Worked
	Pictures  []Shot
	Handed    string   // who took the unit, and what went back with it
	Searched  []string // what the attempts acquit, blame and leave open
	Sign      handover.SignOff
	Certified []CertRow
	Highest   float64 // pressure that was read in the test that counts, Pa
	Reached   string  // it in words
	Opens     string  // address that the code on the paper opens
	Style     string  // addresses of the style sheet and the mark, for the page
	Icon      string
	Load      func(address string) ([]byte, error) // gets a picture
}

// Record is how far the record went when the paper was printed, with the
// fingerprint of its last line: what is bent later no longer leads to it.
type Record struct {
	Lines       int
	Head, Fault string
}

// Words say it in a line; "" where the paper is made without a store.
func (r Record) Words() string {
	switch {
	case r.Fault != "":
		return "The record does not hold: " + r.Fault
	case r.Head == "":
		return ""
	}
	return fmt.Sprintf("Printed from %s, fingerprint %s",
		wording.Counted(r.Lines, "line of the record", "lines of the record"), r.Head)
}

// New works the report out. units are the reader's.
func New(st *bench.State, units quantity.System, now time.Time) Data {
	d := Data{S: st, Units: units, Shop: ShopOf(st.Shop), Printed: now, Line: line.Layer{Station: "measure"}.Draw(st),
		Stands: Stands(st, units), Counts: st.Counts(), Attempts: st.Attempts}
	for i, p := range st.Parts {
		for _, f := range p.Features {
			if f.Found.Any || f.Built.Any {
				d.Rows = append(d.Rows, row(p, f, units))
			}
		}
		if c := p.Choice(); c != decide.Keep || p.Decision.Reason != "" || p.Missing != 0 || p.Proposal.Looked {
			d.Parts = append(d.Parts, partRow(i+1, p))
		}
	}
	d.Differs, d.Seen, d.Stacks = Differs(st), Seen(st), Stacks(st, units)
	d.tests(units)
	d.certify(units)
	d.Handed = Handed(st.Job)
	for _, l := range st.Told() {
		d.Searched = append(d.Searched, fmt.Sprintf("Attempt %d: %s", l.Try, l.Words))
	}
	if st.Cause != nil {
		d.Chain = st.Why(st.Cause)
	}
	if st.Leak.Known {
		d.Leak = quantity.Show(st.Leak.Flow, quantity.Flow, units)
		d.LeakAfter = quantity.Show(st.Leak.Rebuilt, quantity.Flow, units)
	}
	for _, code := range unit.Stations {
		for _, stop := range st.Stops[code] {
			if stop.Waived != nil {
				d.Waived = append(d.Waived, stop)
			} else {
				d.Open = append(d.Open, stop)
			}
		}
	}
	d.Reopened, d.Drained = st.Job.Reopenings, Drained(st)
	d.Note = NoteOf(st, units)
	d.Causes = Causes(st)
	d.Customer = append(d.Customer, actions(st)...)
	if st.Cause != nil && st.Cause.Prevention != "" {
		d.Customer = append(d.Customer, st.Cause.Prevention)
	}
	d.Charts = Charts(st, units)
	d.Worked = answer.Kept(st.Job, units)
	d.pictures()
	return d
}

func row(p *bench.Part, f *bench.Feature, units quantity.System) Row {
	show := draw.Length(units)
	r := Row{Part: p.Name, Feature: f.Def.Name, LimitSource: standsOn(f, units), Limit: limitText(f, units),
		AsNew: asNew(f, units),
		Found: value(f, unit.StageFound, show), Verdict: string(f.Found.Verdict)}
	if f.Built.Any {
		r.After, r.AfterVerdict = value(f, unit.StageBuilt, show), string(f.Built.Verdict)
	}
	return r
}

// standsOn says by which limit a feature is judged, and whence.
func standsOn(f *bench.Feature, units quantity.System) string {
	if f.Def.Method == family.MethodGrade {
		return "guidance"
	}
	return wording.LimitFrom(f.Feature, f.Found.Bound, draw.Length(units))
}

func limitText(f *bench.Feature, units quantity.System) string {
	if f.Def.Method == family.MethodGrade {
		return "by touch"
	}
	if text := wording.LimitOf(f.Feature, f.Found.Bound, units, draw.Length(units)); text != "" {
		return text
	}
	return "none"
}

// asNew is the size as new of a feature, with its source; "" of what has none.
func asNew(f *bench.Feature, units quantity.System) string {
	if !f.Spec.IsSize() {
		return ""
	}
	if !f.New.Holds() {
		return wording.AsNewFrom(f.New)
	}
	size := f.New.Low.In(units)
	if !f.New.High.IsZero() {
		size += " to " + f.New.High.In(units)
	}
	return size + ", " + wording.AsNewFrom(f.New)
}

func value(f *bench.Feature, stage string, show func(float64) string) string {
	r := f.Result(stage)
	switch {
	case r.Grade >= 0:
		return family.Grades[r.Grade]
	case r.IsLeaves && r.Interval.Bounded:
		return show(r.Interval.AtLeast) + " to under " + show(r.Interval.LessThan)
	case r.IsLeaves:
		return "at least " + show(r.Interval.AtLeast)
	case r.HasValue:
		return show(r.Value) + fmt.Sprintf(" (worst of %d)", r.Count)
	}
	return "not taken"
}

func partRow(no int, p *bench.Part) PartRow {
	choice := map[decide.Choice]string{decide.Keep: "kept", decide.Rework: "reworked", decide.Replace: "new",
		decide.Open: "open"}[p.Choice()]
	reason := p.Proposal.Reason
	if p.Decision.Reason != "" {
		reason = p.Decision.Reason
	}
	for _, w := range p.Going() {
		reason += "; " + WayDone(w)
	}
	if p.Explained != "" {
		reason += "; count: " + p.Explained
	}
	return PartRow{fmt.Sprint(no), p.Name, fmt.Sprint(p.Expected), choice, reason}
}

func (d *Data) tests(units quantity.System) {
	st := d.S
	last := d.Counts
	for _, step := range st.Plan() {
		t := &step.Test
		s := st.Shown[t.Code]
		r := TestRow{Name: t.Name + wording.Behind(": ", t.How), Before: pointText(st.Received, t, units),
			After: finalText(s, last, units)}
		if s.Read {
			r.Name += wording.Behind(": ", strings.Join(limitsOf(s, units), ", "))
			r.Verdict = string(s.Judged.Verdict)
		}
		d.Tests = append(d.Tests, r)
	}
}

// finalText is what a step comes to on the unit as it is: what was last read at it, in whichever
// attempt, and what keeps that from showing anything.
func finalText(s *proof.Shown, last *bench.Attempt, units quantity.System) string {
	switch {
	case s.NotHere != "":
		return "not owed: " + s.NotHere
	case !s.Read && s.Exercise && last != nil:
		return "an exercise: " + pointText(last, s.Test, units)
	}
	words := FiguresOf(s, units)
	if last != nil && s.Read && s.Attempt != last.Number {
		words = append(words, fmt.Sprintf("attempt %d", s.Attempt))
	}
	for _, why := range s.Why() {
		if why != "out of its limits" {
			words = append(words, why)
		}
	}
	return strings.Join(words, ", ")
}

func pointText(a *bench.Attempt, t *family.Test, units quantity.System) string {
	if a == nil {
		return "not taken"
	}
	for _, p := range a.Points {
		if p.Test.Code != t.Code {
			continue
		}
		if p.Skipped != "" {
			return p.Skipped
		}
		if text := strings.Join(ReadWords(p.Row.Word, p.Figures, units), ", "); text != "" {
			return text
		}
	}
	return "not taken"
}

// Plot draws flow against pressure: theory, the band that is accepted, what the
// clearances predict before and after the work, and every measured point. The
// page of Prove shows the same drawing.
func Plot(st *bench.State, units quantity.System) string {
	delivers := slices.ContainsFunc(
		st.Family.Tests,
		func(t family.Test) bool { return t.Judges(family.ByEfficiency) },
	)
	if !delivers || st.Found.Theoretical() <= 0 || !st.Duty.HasPressure {
		return ""
	}
	f := draw.FlowPlot{Theory: st.Found.Theoretical(), Duty: st.Duty.Pressure, System: units, Tall: true,
		Top: st.Duty.Pressure * 1.05, Band: Band(st)}
	if st.Leak.Known {
		f.Curves = []draw.Curve{{Class: "found", Label: "predicted as received", Flow: st.Found.Deliver},
			{Class: "rebuilt", Label: "predicted after the work", Flow: st.Rebuilt.Deliver}}
	}
	f.Points = points(st.Received, "received", units)
	for i, a := range st.Attempts {
		class := "failed"
		if i == len(st.Attempts)-1 {
			class = "rebuilt"
		}
		f.Points = append(f.Points, points(a, class, units)...)
	}
	return f.SVG()
}

// assumed says of each clearance where the figure is from that the predicted curve rests on.
func assumed(st *bench.State, units quantity.System) (out []string) {
	if !st.Leak.Known {
		return nil
	}
	for _, g := range st.Gaps {
		words := g.Feature.Def.Name + ": " + g.Rebuilt.From
		if g.Rebuilt.Known {
			words = fmt.Sprintf("%s: %s, %s", g.Feature.Def.Name, draw.Length(units)(g.Rebuilt.Value), g.Rebuilt.From)
		}
		if !slices.Contains(out, words) {
			out = append(out, words)
		}
	}
	return append(out, "viscosity at duty "+st.Unit.Viscosity.In(units)+", laminar gap flow, nothing else leaks")
}

// Band is the accepted efficiency of the unit's family, nil where it has none.
func Band(st *bench.State) func(share float64) float64 {
	a := st.Family.Accept
	if a.EfficiencyDuty == 0 {
		return nil
	}
	return func(share float64) float64 { return proof.Band(a, share) }
}

func points(a *bench.Attempt, class string, units quantity.System) []draw.PlotPoint {
	if a == nil {
		return nil
	}
	var out []draw.PlotPoint
	for _, p := range a.Points {
		flow, ok := p.Read("flow")
		if !ok || !p.Test.Judges(family.ByEfficiency) {
			continue
		}
		at := p.Target
		if read, ok := p.Read("pressure"); ok {
			at = read
		}
		out = append(out, draw.PlotPoint{Class: class, Pressure: at, Flow: flow,
			Label: fmt.Sprintf("%s: %s at %s", p.Test.Name, quantity.Show(flow, quantity.Flow, units),
				quantity.Show(at, quantity.Pressure, units))})
	}
	return out
}

// Date writes a date for paper.
func (Data) Date(t time.Time) string { return t.Format("2 January 2006") }

// ShopOf is the letterhead as a paper shows it.
func ShopOf(h shop.Letterhead) document.Shop {
	return document.Shop{Name: h.Name, Address: h.Address, Mark: h.Mark, Size: document.Size(h.Sheet)}
}

// joined puts what there is of some texts together.
func joined(by string, list ...string) string { return strings.Join(nonEmpty(list...), by) }

// between puts a text in its sentence, nothing where there is none.
func between(before, text, after string) string {
	if text == "" {
		return ""
	}
	return before + strings.TrimSuffix(text, after) + after
}

func nonEmpty(list ...string) []string {
	return slices.DeleteFunc(slices.Clone(list), func(s string) bool { return s == "" })
}
