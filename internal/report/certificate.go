package report

import (
	"fmt"
	"strings"

	"corvek/core/quantity"
	"corvek/internal/document"
)

// Certificate says what the test of a unit shows, with the exact figures, and nothing beyond.
func Certificate(d Data) document.Document {
	out := d.paper("Test certificate")
	out.Add(d.standing(), d.facts())
	a := d.Counts
	if a == nil {
		out.Add(document.Text{Text: "No test was run, so nothing is certified."}, d.Sign.Seal())
		return out
	}
	t := document.Table{Heads: []string{"step", "read", "must be", "", "held"}, Shares: []float64{24, 28, 28, 10, 10}}
	for _, r := range d.Certified {
		cells := document.Cells(r.Step, "", "", "", r.Held)
		cells[1], cells[2] = stacked(r.Read), stacked(r.Limits)
		cells[3] = verdictCell(r.Verdict)
		t.Rows = append(t.Rows, cells)
	}
	out.Add(document.Heading{Text: fmt.Sprintf("Attempt %d, %s, %s", a.Number, SourceWords(a), a.By)}, t)
	d.charts(&out)
	list(&out, "What this does not say", d.unsaid())
	d.history(&out)
	out.Add(d.Sign.Seal())
	return out
}

func stacked(lines []string) (c document.Cell) {
	for _, l := range lines {
		c.Lines = append(c.Lines, document.Line{Text: l})
	}
	return c
}

// CertRow is a step of the test with its exact figures.
type CertRow struct {
	Step, Held, Verdict string
	Read, Limits        []string
}

// certify takes the steps of the test that counts.
func (d *Data) certify(units quantity.System) {
	if d.Counts == nil {
		return
	}
	for _, p := range d.Counts.Points {
		r := CertRow{Step: p.Test.Name, Verdict: string(p.Verdict), Read: ReadWords(p, units),
			Limits: LimitWords(p, units)}
		if p.Skipped != "" {
			r.Read = []string{"does not apply: " + p.Skipped}
		}
		if len(r.Read) == 0 {
			r.Read = []string{"not taken"}
		}
		switch {
		case len(p.Test.Good) > 0:
			r.Limits = append([]string{strings.Join(p.Test.Good, " or ")}, r.Limits...)
		case len(r.Limits) == 0 && p.Skipped == "":
			r.Limits = []string{"no limit: a figure, no verdict"}
		}
		if held := p.Row.Held(); held > 0 {
			r.Held = HeldWords(held)
		}
		if read, ok := p.Read("pressure"); ok && p.Skipped == "" {
			d.Highest = max(d.Highest, read)
		}
		d.Certified = append(d.Certified, r)
	}
	if d.Highest > 0 {
		d.Reached = quantity.Show(d.Highest, quantity.Pressure, units)
	}
}

// unsaid keeps a reader from reading more into a certificate than was shown.
func (d Data) unsaid() (out []string) {
	if d.Reached != "" {
		out = append(out, "Nothing above "+d.Reached+", the highest pressure that was read.")
	} else {
		out = append(out, "Nothing about any pressure: none was read.")
	}
	if duty := d.S.Duty; duty.HasPressure && d.Highest < duty.Pressure*0.999 {
		out = append(out, "Nothing at the duty of "+d.S.Unit.DutyPressure.In(d.Units)+", which the test did not reach.")
	}
	out = append(out, "Nothing for longer than each step was held, and nothing about the machine it goes into.")
	if again := Again(d.S); again != "" {
		out = append(out, "The complaint's own condition was not repeated here.")
	}
	return out
}
