package report

import (
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"

	"codeberg.org/go-pdf/fpdf"
)

// PDF writes the findings report for sending. The drawing of the line is left
// to the printed page; figures and verdicts are the same.
func PDF(w io.Writer, d Data) error {
	p := &paper{fpdf.New("P", "mm", "A4", "")}
	p.AddUTF8FontFromBytes(face, "", regular)
	p.AddUTF8FontFromBytes(face, "B", bold)
	p.SetTitle(d.S.Job.Tag+" Findings report", true)
	p.SetMargins(16, 16, 16)
	p.SetAutoPageBreak(true, 16)
	p.SetFooterFunc(func() {
		p.SetY(-12)
		p.SetFont(face, "", 8)
		foot := fmt.Sprintf("%s  ·  %s  ·  page %d", d.S.Job.Tag, d.Date(d.Printed), p.PageNo())
		p.CellFormat(0, 5, printable(foot), "", 0, "C", false, 0, "")
	})
	p.AddPage()
	p.SetFont(face, "B", 10)
	p.CellFormat(90, 6, printable(d.Shop), "", 0, "L", false, 0, "")
	p.CellFormat(0, 6, printable("Findings report and test certificate  "+d.S.Job.Tag), "", 1, "R", false, 0, "")
	p.Line(16, 24, 194, 24)
	p.Ln(5)
	p.SetFont(face, "B", 18)
	p.MultiCell(0, 9, printable(d.S.Job.Title), "", "L", false)
	p.SetFont(face, "B", 13)
	p.MultiCell(0, 8, printable(d.Stands.Words), "", "L", false)
	p.SetFont(face, "", 13)
	for _, m := range d.Stands.Missing {
		p.MultiCell(0, 7, printable("- "+m), "", "L", false)
	}
	j, u := d.S.Job, d.S.Unit
	p.body("Customer: " + j.Customer.Name + "    Received: " + d.Date(j.ReceivedOn.Time()))
	p.body("Unit: " + d.S.Family.Name + ", " + u.Maker + " " + u.Model + ", serial " + u.Serial)
	p.body("Duty: " + strings.Join(nonEmpty(d.Duty(), u.Fluid, u.Viscosity.Typed, d.Drained), ", "))
	p.head("Complaint")
	if j.Complaint != "" {
		p.body("\"" + j.Complaint + "\"" + orEmpty(", ", j.Caller))
	}
	if told := d.Symptoms(); told != "" {
		p.body("Told: " + told + ".")
	} else if j.Complaint == "" {
		p.body("None was given.")
	}
	p.cause(d)
	p.list("What must change", d.Customer)
	p.head("Measured against limits")
	p.table([]float64{32, 34, 36, 38, 13, 25}, []string{"part", "feature", "limit", "as found", "", "after"},
		func(add func(...string)) {
			for _, r := range d.Rows {
				after := r.After
				if r.AfterVerdict != "" {
					after += " " + d.InWords(r.AfterVerdict)
				}
				add(r.Part, r.Feature, r.Limit, r.Found, d.InWords(r.Verdict), after)
			}
		})
	if d.Leak != "" {
		p.body("Estimated leak at duty: " + d.Leak + " as found, " + d.LeakAfter + " after the work.")
	}
	p.list("This unit and its family", d.Differs)
	p.list("Marks seen", d.Seen)
	p.list("Stacks", d.Stacks)
	p.head("Parts")
	p.table([]float64{10, 44, 14, 22, 88}, []string{"no.", "part", "count", "done", "why"}, func(add func(...string)) {
		for _, r := range d.Parts {
			add(r.No, r.Name, r.Count, r.Choice, r.Reason)
		}
	})
	p.head("Test, before and after")
	p.table([]float64{48, 56, 56, 18}, []string{"step", "as received", "after the work", ""},
		func(add func(...string)) {
			for _, r := range d.Tests {
				add(r.Name, r.Before, r.After, d.InWords(r.Verdict))
			}
		})
	if len(d.Worked) > 0 {
		p.head("Worked out")
		p.table([]float64{46, 62, 70}, []string{"calculation", "given", "answer"}, func(add func(...string)) {
			for _, w := range d.Worked {
				add(w.Summary+orEmpty(": ", w.Note), w.GivenText(), w.ResultText())
			}
		})
	}
	p.closing(d)
	return p.Output(w)
}

type paper struct{ *fpdf.Fpdf }

func (p *paper) head(s string) {
	p.Ln(3)
	p.SetFont(face, "B", 12)
	p.CellFormat(0, 7, printable(s), "B", 1, "L", false, 0, "")
	p.Ln(1)
}

func (p *paper) body(s string) {
	p.SetFont(face, "", 10)
	p.MultiCell(0, 5, printable(s), "", "L", false)
}

// list writes lines under a heading, nothing where there are none.
func (p *paper) list(head string, lines []string) {
	if len(lines) == 0 {
		return
	}
	p.head(head)
	for _, line := range lines {
		p.body("- " + line)
	}
}

func (p *paper) cause(d Data) {
	p.head("Cause")
	switch {
	case d.S.Cause != nil:
		p.SetFont(face, "B", 11)
		p.MultiCell(0, 6, printable(d.S.Cause.Name+", "+d.S.Cause.Lies()), "", "L", false)
		if d.S.Conclude.Statement != "" {
			p.body(d.S.Conclude.Statement)
		}
		for _, line := range d.Causes {
			p.body("- " + line)
		}
		for i, l := range d.Chain {
			state := l.Told
			switch {
			case l.Open:
				state = "open: nobody looked further"
			case state == "":
				state = "not shown"
			}
			if len(l.Shown) > 0 {
				state = "shown"
			}
			p.body(fmt.Sprintf("%d. %s (%s)", i+1, l.Text, state))
		}
	case d.S.Conclude.Cause == "not_found":
		p.body("The cause was not found. " + d.S.Conclude.Statement)
	default:
		p.body("No conclusion has been drawn.")
	}
}

func (p *paper) closing(d Data) {
	if a := d.Counts; a != nil {
		p.body(fmt.Sprintf("Attempt %d, %s, %s.%s", a.Number, SourceWords(a), a.By,
			between(" Changed since the attempt before: ", a.OneChange, ".")))
	}
	p.list("The search", d.Searched)
	if len(d.Passed) > 0 {
		p.head("Waived with a reason")
		for _, s := range d.Passed {
			p.body("- " + s.Text + ": " + s.Passed.Reason + " (" + s.Passed.By + ")")
		}
	}
	if len(d.Reopened) > 0 {
		p.head("Opened again after hand-over")
		for _, r := range d.Reopened {
			p.body(fmt.Sprintf("- handed over %s, opened again %s by %s: %s", r.HandedOver.Format("2 Jan 2006"),
				r.At.Format("2 Jan 2006"), r.By, r.Reason))
		}
	}
	if s := d.Since; s != nil {
		p.head("Changed since the papers of " + s.Day)
		for _, line := range slices.Concat(s.Papers, s.Lines) {
			p.body("- " + line)
		}
		if s.More > 0 {
			p.body(fmt.Sprintf("- %d more changes stand in the record", s.More))
		}
	}
	if len(d.Open) > 0 {
		p.head("Still open")
		for _, s := range d.Open {
			p.body("- " + s.Text)
		}
	}
	p.head(d.Note.Title)
	p.body(d.Note.Lead)
	for i, s := range d.Note.Lines {
		mark := "-"
		if d.Note.Ordered {
			mark = strconv.Itoa(i+1) + "."
		}
		p.body(mark + " " + s)
	}
	p.body(d.Note.Warning)
	if d.Handed != "" {
		p.head("Handed over")
		p.body(d.Handed + ".")
	}
	if words := d.Record.Words(); words != "" {
		p.head("Record")
		p.body(words)
	}
}

// table writes rows whose height follows the longest cell.
func (p *paper) table(widths []float64, heads []string, fill func(add func(...string))) {
	const line = 4.4
	write := func(style string, cells []string) {
		p.SetFont(face, style, 8.5)
		high := 1
		split := make([][]string, len(cells))
		for i, c := range cells {
			split[i] = p.SplitText(printable(c), widths[i]-1)
			high = max(high, len(split[i]))
		}
		_, pageHeight := p.GetPageSize()
		if p.GetY()+float64(high)*line > pageHeight-18 {
			p.AddPage()
		}
		x, y := p.GetXY()
		for i := range cells {
			for k, text := range split[i] {
				p.SetXY(x, y+float64(k)*line)
				p.CellFormat(widths[i], line, text, "", 0, "L", false, 0, "")
			}
			x += widths[i]
		}
		p.SetXY(16, y+float64(high)*line)
		p.SetDrawColor(190, 190, 185)
		p.Line(16, p.GetY(), 194, p.GetY())
		p.SetDrawColor(0, 0, 0)
	}
	write("B", heads)
	fill(func(cells ...string) { write("", cells) })
	p.Ln(1)
}

// between puts a text in its sentence, nothing where there is none.
func between(before, text, after string) string {
	if text == "" {
		return ""
	}
	return before + strings.TrimSuffix(text, after) + after
}

func nonEmpty(list ...string) []string {
	var out []string
	for _, s := range list {
		if s != "" {
			out = append(out, s)
		}
	}
	return out
}
