package report

import (
	"fmt"
	"strings"

	"corvek/core/bench"
	"corvek/core/quantity"
	"corvek/core/wording"
	"corvek/internal/document"
)

// Quote is the offer to the customer on paper: what was found on each unit, and the ways
// out with what each takes.
type Quote struct {
	Data          // of the first unit, for what stands once
	Units  []Data // with what was found on each
	Offers []Offered
	Needs  []string // what is not entered yet, so that there is no sum
}

// NewQuote works the offer out from all units of a job; d is of the first.
func NewQuote(states []*bench.State, d Data, units quantity.System) Quote {
	offers := bench.OffersOf(states)
	q := Quote{Data: d, Units: []Data{d}, Needs: offers.Needs}
	for _, st := range states[1:] {
		q.Units = append(q.Units, New(st, units, d.Printed))
	}
	for _, x := range offers.All() {
		q.Offers = append(q.Offers, OfferedOf(x, states[0].Job.Quote.Answer))
	}
	return q
}

// Paper lays the offer out.
func (q Quote) Paper() document.Document {
	j := q.S.Job
	out := q.Data.paper("What was found, and what it takes")
	out.Add(document.Text{Text: joined(", ", j.Customer.Name, j.Customer.Place)})
	if j.Complaint != "" {
		out.Add(document.Text{Text: "“" + j.Complaint + "”" + wording.Behind(" — ", j.Caller)})
	}
	out.Add(document.Heading{Text: "The ways out"}, q.ways())
	if len(q.Needs) > 0 {
		out.Add(document.Text{Text: "Not entered yet: " + strings.Join(q.Needs, ", ") + "."})
	}
	if j.PromisedOn != "" {
		out.Add(document.Text{Lead: "Ready by " + q.Date(j.PromisedOn.Time()) + ".",
			Text: "As the shop stands today; a later answer moves it."})
	}
	for _, u := range q.Units {
		q.found(&out, u)
	}
	out.Add(shots("Pictures", q.Pictures)...)
	out.Add(document.Heading{Text: "Answer"})
	if a := j.Quote; a.Answer != "" {
		out.Add(document.Text{Lead: fmt.Sprintf("Answered on %s by %s.", a.AnsweredOn, a.Person), Text: a.Note})
	}
	boxes := document.Boxes{}
	for _, o := range q.Offers {
		boxes.Names = append(boxes.Names, o.Name)
	}
	boxes.Names = append(boxes.Names, "back as it is")
	out.Add(boxes, document.Signs{Names: []string{"Name", "Day"}}, document.Text{Text: "The sums are what is known " +
		"today. What is found beyond it while building is told before it is done. Site rules, local codes and the " +
		"maker's manual come first."})
	return out
}

// ways are the offers beside one another: sum, figures, risks.
func (q Quote) ways() document.Table {
	t := document.Table{}
	var sums, figures, risks []document.Cell
	for _, o := range q.Offers {
		t.Heads, t.Shares = append(t.Heads, o.Name), append(t.Shares, 1)
		sum := "no sum yet"
		if o.Cost != "" {
			sum = o.Cost
			if o.AtLeast {
				sum = "at least " + sum
			}
		}
		cell := document.Cell{Lines: []document.Line{{Text: sum, Large: true}}}
		switch {
		case o.Advised != "":
			cell.Lines = append(cell.Lines, document.Line{Text: "Advised against: " + o.Advised})
		case o.Against != "":
			cell.Lines = append(cell.Lines, document.Line{Text: o.Against})
		}
		sums = append(sums, cell)
		cell = document.Cell{}
		for _, r := range o.Rows {
			cell.Lines = append(cell.Lines, document.Line{Text: joined(" ", r.Name+": "+r.Value, r.Note)})
		}
		figures = append(figures, cell)
		cell = document.Cell{}
		for _, r := range o.Risks {
			cell.Lines = append(cell.Lines, document.Line{Text: "Risk: " + r})
		}
		if len(o.Risks) == 0 {
			cell.Lines = []document.Line{{Text: "no risk is named"}}
		}
		risks = append(risks, cell)
	}
	t.Rows = [][]document.Cell{sums, figures, risks}
	return t
}

// found is what speaks for the offers on one unit.
func (q Quote) found(out *document.Document, u Data) {
	head := "Found"
	if len(q.Units) > 1 {
		head += " on " + u.S.Unit.Name
	}
	out.Add(document.Heading{Text: head})
	if len(u.Causes) > 0 {
		out.Add(document.Lines{Items: u.Causes})
	}
	if u.S.Cause != nil {
		out.Add(document.Text{Lead: "Cause: " + u.S.Cause.Name + ",", Text: u.S.Cause.Lies() + "."})
	}
	t := document.Table{Heads: []string{"part", "no.", "as proposed now", "because"},
		Shares: []float64{26, 8, 16, 50}, None: "Nothing is renewed or reworked."}
	for _, p := range u.Parts {
		if p.Choice != "kept" {
			t.Rows = append(t.Rows, document.Cells(p.Name, p.Count, p.Choice, p.Reason))
		}
	}
	out.Add(t)
	list(out, "What must change at the machine", u.Customer)
}
