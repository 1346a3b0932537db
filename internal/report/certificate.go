package report

import (
	"slices"
	"strings"

	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/internal/answer"
	"corvek/internal/document"
)

// Certificate says what the test of a unit shows, claim by claim, with the exact figures, where they
// are from, and nothing beyond.
func Certificate(d Data) document.Document {
	out := d.paper("Test certificate")
	out.Add(d.standing(), d.facts())
	if len(d.Certified) == 0 {
		out.Add(document.Text{Text: "No test was run, so nothing is certified."}, Seal(d.Sign))
		return out
	}
	t := document.Table{Heads: []string{"claim and step", "read", "must be", "", "taken"},
		Shares: []float64{25, 27, 22, 11, 15}}
	for _, r := range d.Certified {
		step := document.Cell{}
		if r.Claim != "" {
			step.Lines = append(step.Lines, document.Line{Text: r.Claim, Bold: true})
		}
		step.Lines = append(step.Lines, document.Line{Text: r.Step, Small: r.Claim != ""})
		verdict := verdictCell(r.Verdict)
		if r.Verdict == "" {
			verdict = document.Cell{Lines: []document.Line{{Text: "not shown", Bold: true}}}
		}
		t.Rows = append(t.Rows, []document.Cell{step, stacked(r.Read), stacked(r.Limits), verdict, stacked(r.Taken)})
	}
	out.Add(document.Heading{Text: "What it owes, and what was shown"}, t)
	list(&out, "Made good besides the repair", d.Stands.Masks)
	list(&out, "How it was run", d.runs())
	d.charts(&out)
	list(&out, "What this does not say", d.unsaid())
	d.history(&out)
	out.Add(Seal(d.Sign))
	return out
}

func stacked(lines []string) (c document.Cell) {
	for _, l := range lines {
		c.Lines = append(c.Lines, document.Line{Text: l})
	}
	return c
}

// CertRow is a step that shows a claim, with its exact figures. A row that keeps its claim from being
// shown says why in what was read, and has the verdict of a bad figure or none.
type CertRow struct {
	Claim   string // at its first step
	Step    string
	Verdict string
	Read    []string
	Limits  []string
	Taken   []string
}

// certify takes the steps that each claim rests on: the same that the head rests on.
func (d *Data) certify(units quantity.System) {
	read := slices.ContainsFunc(d.S.Claims, func(c proof.Told) bool {
		return slices.ContainsFunc(c.Steps, func(s *proof.Shown) bool { return s.Read || s.NotPossible != "" })
	})
	if !read {
		return
	}
	for i := range d.S.Claims {
		c := &d.S.Claims[i]
		for n, s := range c.Steps {
			r := certRow(s, units)
			if n == 0 {
				r.Claim = answer.Capital(c.Says)
			}
			d.Certified = append(d.Certified, r)
		}
	}
	d.Highest = d.S.Highest()
	if d.Highest > 0 {
		d.Reached = quantity.Show(d.Highest, quantity.Pressure, units)
	}
}

func certRow(s *proof.Shown, units quantity.System) CertRow {
	why := s.Why()
	r := CertRow{Step: s.Test.Name, Read: FiguresOf(s, units), Limits: limitsOf(s, units), Taken: takenOf(s)}
	for _, w := range why {
		r.Read = append(r.Read, answer.Capital(w))
	}
	switch {
	case s.Read && s.Judged.Verdict == "out", len(why) == 0:
		r.Verdict = string(s.Judged.Verdict)
	}
	return r
}

// FiguresOf are the figures of a step as they were last read, and what was seen.
func FiguresOf(s *proof.Shown, units quantity.System) []string {
	if !s.Read {
		return nil
	}
	return ReadWords(s.Word, s.Judged.Figures, units)
}

func limitsOf(s *proof.Shown, units quantity.System) (out []string) {
	if len(s.Test.Good) > 0 {
		out = append(out, strings.Join(s.Test.Good, " or "))
	}
	out = append(out, LimitWords(s.Judged.Figures, units)...)
	if target := s.Judged.Target; target > 0 {
		out = append(out, "at "+quantity.Show(target, quantity.Pressure, units))
	}
	return out
}

// takenOf says how the figures of a step came.
func takenOf(s *proof.Shown) (out []string) {
	if !s.Read {
		return nil
	}
	out = append(out, originWords(s.From))
	if len(s.By) > 0 {
		out = append(out, strings.Join(s.By, ", "))
	}
	if s.Held > 0 {
		out = append(out, "held "+HeldWords(s.Held))
	}
	if len(s.Needed) > 0 {
		out = append(out, "then: "+strings.Join(s.Needed, ", "))
	}
	return out
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
	out = append(out, d.S.Untried(d.Units)...)
	out = append(out, "Nothing for longer than each step was held, and nothing about the machine it goes into.")
	if again := Again(d.S); again != "" {
		out = append(out, "The complaint's own condition was not repeated here.")
	}
	return out
}
