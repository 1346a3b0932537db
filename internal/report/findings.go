package report

import (
	"fmt"
	"strings"

	"corvek/internal/document"
)

// Findings is the findings report: what was told, found, done and tested, and what is open.
func Findings(d Data) document.Document {
	out := d.paper("Findings report")
	out.Add(d.standing(), d.facts())
	out.Add(d.complaint()...)
	out.Add(d.cause()...)
	list(&out, "What must change", d.Customer)
	out.Add(d.operator()...)
	out.Add(document.Drawing{SVG: d.Line})
	d.measured(&out)
	list(&out, "This unit and its family", d.Differs)
	list(&out, "Marks seen", d.Seen)
	list(&out, "Stacks", d.Stacks)
	d.parts(&out)
	d.tested(&out)
	list(&out, "The search", d.Searched)
	d.worked(&out)
	d.history(&out)
	list(&out, "Still open", d.open())
	out.Add(shots("Pictures", d.Pictures)...)
	if d.Handed != "" {
		out.Add(document.Heading{Text: "Handed over"}, document.Text{Text: d.Handed + "."})
	}
	out.Add(Seal(d.Sign))
	return out
}

func (d Data) measured(out *document.Document) {
	t := document.Table{Heads: []string{"part", "feature", "limit", "source of the limit", "as found", "",
		"after the work", ""}, Shares: []float64{14, 14, 15, 14, 15, 8, 12, 8}, None: "Nothing was measured."}
	for _, r := range d.Rows {
		cells := document.Cells(r.Part, r.Feature, r.Limit, r.LimitSource, r.Found, "", r.After, "")
		cells[5], cells[7] = verdictCell(r.Verdict), verdictCell(r.AfterVerdict)
		t.Rows = append(t.Rows, cells)
	}
	out.Add(document.Heading{Text: "Measured against limits"}, t)
	if d.Leak != "" {
		out.Add(document.Text{Lead: "Estimated leak at duty:", Text: fmt.Sprintf("%s as found, %s after the work "+
			"(laminar gap flow from the clearances above).", d.Leak, d.LeakAfter)})
	}
}

func (d Data) parts(out *document.Document) {
	t := document.Table{Heads: []string{"no.", "part", "count", "done", "why"}, Shares: []float64{5, 22, 7, 10, 56},
		None: "Every part was kept."}
	for _, r := range d.Parts {
		t.Rows = append(t.Rows, document.Cells(r.No, r.Name, r.Count, r.Choice, r.Reason))
	}
	out.Add(document.Heading{Text: "Parts"}, t,
		document.Text{Text: "Parts not listed were kept; no look at them was noted.", Quiet: true})
	for _, b := range d.S.Besides() {
		out.Add(document.Text{Lead: "Beside new " + strings.Join(b.New, ", ") + ":",
			Text: "went back as before: " + strings.Join(b.Old, ", ") + "."})
	}
}

// tested is the test with its charts and figures, before and after.
func (d Data) tested(out *document.Document) {
	out.Add(document.Heading{Text: "Test, before and after"})
	d.charts(out)
	t := document.Table{Heads: []string{"step", "as received", "after the work", ""},
		Shares: []float64{34, 26, 30, 10}, None: "This unit has no test."}
	for _, r := range d.Tests {
		cells := document.Cells(r.Name, r.Before, r.After, "")
		cells[3] = verdictCell(r.Verdict)
		t.Rows = append(t.Rows, cells)
	}
	out.Add(t)
	if why := strings.TrimSpace(d.S.Unit.NoBefore); why != "" {
		out.Add(document.Text{Lead: "No before:", Text: "it could not be run as it came, because " + why + "."})
	}
	if a := d.Counts; a != nil {
		out.Add(document.Text{Text: fmt.Sprintf("Attempt %d, %s, %s.%s", a.Number, SourceWords(a), a.By,
			between(" Changed since the attempt before: ", a.OneChange, "."))})
	}
	list(out, "Made good besides the repair", d.Stands.Masks)
	if words := d.earlier(); words != "" {
		out.Add(document.Text{Lead: "Earlier attempts:", Text: words + "."})
	}
}

// charts are the drawings of the test, with what a predicted curve rests on.
func (d Data) charts(out *document.Document) {
	for _, c := range d.Charts {
		out.Add(document.Drawing{Name: c.Name, SVG: c.SVG, Part: true})
		if c.Note != "" {
			out.Add(document.Text{Text: c.Note, Quiet: true})
		}
	}
}

// earlier are the attempts that do not count.
func (d Data) earlier() string {
	var words []string
	for _, a := range d.Attempts {
		if len(d.Attempts) < 2 || a.Verdict == "in" {
			continue
		}
		how := "open"
		if a.Verdict == "out" {
			how = "failed"
		}
		words = append(words, fmt.Sprintf("no. %d %s", a.Number, how)+between(" after “", a.OneChange, "”"))
	}
	return joined("; ", words...)
}

func (d Data) worked(out *document.Document) {
	if len(d.Worked) == 0 {
		return
	}
	t := document.Table{Heads: []string{"calculation", "given", "answer"}, Shares: []float64{28, 36, 36}}
	for _, w := range d.Worked {
		answer := []document.Line{{Text: w.ResultText()}}
		for _, warn := range w.Warns {
			answer = append(answer, document.Line{Text: warn.Text, Small: true})
		}
		t.Rows = append(t.Rows, []document.Cell{
			{Lines: []document.Line{{Text: w.Summary}, {Text: w.Note, Small: true}}[:1+min(1, len(w.Note))]},
			{Lines: []document.Line{{Text: w.GivenText()}}}, {Lines: answer}})
	}
	out.Add(document.Heading{Text: "Worked out"}, t)
}
