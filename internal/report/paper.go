package report

import (
	"fmt"
	"slices"

	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/document"
	"corvek/internal/draw"
)

// paper begins a paper of a kind: head and foot, and that the job was withdrawn.
func (d Data) paper(kind string) document.Document {
	out := document.Document{Shop: d.Shop, Tag: d.S.Job.Tag, Kind: kind, Title: d.S.Job.Title, Printed: d.Printed,
		Opens: d.Opens, Foot: d.Record.Words(), Style: d.Style, Icon: d.Icon, Load: d.Load}
	if d.S.Shop.Practice { // on each of its sheets
		out.Foot = "PRACTICE: a made-up unit. " + out.Foot
	}
	if d.S.Job.Withdrawn() {
		out.Add(WithdrawnBanner(d.S.Job))
	}
	return out
}

// WithdrawnBanner says that the job does not count any more.
func WithdrawnBanner(j *unit.Job) document.Banner {
	return document.Banner{Text: fmt.Sprintf("WITHDRAWN on %s by %s: %s", j.WithdrawnAt.Format("2 January 2006"),
		j.WithdrawnBy, j.WithdrawnReason), Tone: document.Danger}
}

// list adds a heading with lines under it, nothing where there are none.
func list(out *document.Document, head string, items []string) {
	if len(items) > 0 {
		out.Add(document.Heading{Text: head}, document.Lines{Items: items})
	}
}

// standing is what may be said of the unit, first and large.
func (d Data) standing() document.Banner {
	b := document.Banner{Text: d.Stands.Line(), Items: d.Stands.Missing, Tone: document.Look}
	if d.Stands.Proved {
		b.Tone = document.Good
	}
	return b
}

// facts say which unit it is and whose.
func (d Data) facts() document.Facts {
	j, u := d.S.Job, d.S.Unit
	return document.Facts{Rows: slices.DeleteFunc([]document.Fact{
		{Name: "Customer", Value: joined(", ", j.Customer.Name, j.Customer.Place)},
		{Name: "Received", Value: d.Date(j.ReceivedOn.Time())},
		{Name: "Unit", Value: d.S.Family.Name},
		{Name: "Maker", Value: read(u.Maker)},
		{Name: "Model", Value: read(u.Model)},
		{Name: "Serial", Value: read(u.Serial)},
		{Name: "Variant", Value: read(u.Variant)},
		{Name: "Duty", Value: d.Duty()},
		{Name: "Rating", Value: d.rating()},
		{Name: "Fluid", Value: joined(", ", u.Fluid, u.Viscosity.Typed, d.Drained)},
	}, func(f document.Fact) bool { return f.Value == "" })}
}

// rating is what it is asked against what its maker rates it for.
func (d Data) rating() string {
	r, _ := d.S.Rating()
	return r.Words
}

// read is what was read off the unit, or that it was not.
func read(text string) string {
	if text == "" {
		return "not read"
	}
	return text
}

// complaint is what the customer said.
func (d Data) complaint() (out []document.Block) {
	j := d.S.Job
	out = append(out, document.Heading{Text: "Complaint"})
	if j.Complaint != "" {
		out = append(out, document.Text{Text: "“" + j.Complaint + "”" + wording.Behind(" — ", j.Caller)})
	}
	if told := d.Symptoms(); told != "" {
		out = append(out, document.Text{Text: "Symptoms reported: " + told + "."})
	} else if j.Complaint == "" {
		out = append(out, document.Text{Text: "None was given."})
	}
	return out
}

// cause is what was concluded, with its chain.
func (d Data) cause() (out []document.Block) {
	out = append(out, document.Heading{Text: "Cause"})
	switch {
	case d.S.Cause != nil:
		out = append(out, document.Text{Lead: d.S.Cause.Name + ",", Text: d.S.Cause.Lies() + "."})
		if d.S.Conclude.Statement != "" {
			out = append(out, document.Text{Text: d.S.Conclude.Statement})
		}
		if len(d.Causes) > 0 {
			out = append(out, document.Lines{Items: d.Causes})
		}
		out = append(out, d.chain()...)
	case d.S.Conclude.Cause == unit.CauseNotFound:
		out = append(out, document.Text{Text: joined(" ", "The cause was not found.", d.S.Conclude.Statement)})
	case d.S.Conclude.Cause == unit.CauseNone:
		out = append(out, document.Text{Text: joined(" ", "Nothing was complained of, and nothing was found.",
			d.S.Conclude.Statement)})
	default:
		out = append(out, document.Text{Text: "No conclusion has been drawn."})
	}
	return out
}

// operator is what the one who runs it is told.
func (d Data) operator() []document.Block {
	if d.S.Job.OperatorNote == "" {
		return nil
	}
	return []document.Block{document.Heading{Text: "For the one who runs it"},
		document.Text{Text: d.S.Job.OperatorNote}}
}

// chain is the way from the complaint to the root, each link with what shows it.
func (d Data) chain() []document.Block {
	var items []string
	for _, l := range d.Chain {
		var shown []string
		for _, e := range l.Shown {
			shown = append(shown, e.Text)
		}
		state := l.Told
		switch {
		case len(shown) > 0:
			state = "shown by: " + joined("; ", shown...)
		case state != "":
		case l.Open:
			state = "open: nobody looked further"
		default:
			state = "not shown"
		}
		items = append(items, l.Text+" ("+state+")")
	}
	if len(items) == 0 {
		return nil
	}
	return []document.Block{document.Lines{Items: items, Ordered: true}}
}

// shots are the pictures with their marks.
func shots(head string, list []Shot) []document.Block {
	if len(list) == 0 {
		return nil
	}
	p := document.Pictures{}
	for _, s := range list {
		shot := document.Picture{Drawing: s.Drawing, Caption: s.Caption}
		if s.BeforeCleaning {
			shot.Caption += " (before cleaning)"
		}
		for _, m := range s.Marks {
			shot.Marks = append(shot.Marks, document.Fact{Name: fmt.Sprint(m.Number), Value: m.Words})
		}
		p.List = append(p.List, shot)
	}
	return []document.Block{document.Heading{Text: head}, p}
}

// waived, reopened and changed are what a reader of a later paper must know.
func (d Data) history(out *document.Document) {
	var items []string
	for _, s := range d.Waived {
		items = append(items, fmt.Sprintf("%s: %s (%s)", s.Text, s.Waived.Reason, s.Waived.By))
	}
	list(out, "Waived with a reason", items)
	items = nil
	for _, r := range d.Reopened {
		items = append(items, fmt.Sprintf("Handed over %s, opened again %s by %s: %s",
			r.HandedOver.Format("2 Jan 2006"), r.At.Format("2 Jan 2006"), r.By, r.Reason))
	}
	list(out, "Opened again after hand-over", items)
	if s := d.Since; s != nil {
		items = slices.Concat(s.Papers, s.Lines)
		if s.More > 0 {
			items = append(items, fmt.Sprintf("%d more changes stand in the record.", s.More))
		}
		list(out, "Changed since the papers of "+s.Day, items)
	}
}

// open are the stops that are not settled.
func (d Data) open() (items []string) {
	for _, s := range d.Open {
		items = append(items, s.Text)
	}
	return items
}

// verdictCell is a cell with a verdict, empty where there is none.
func verdictCell(verdict string) document.Cell {
	if draw.Verdict(verdict) == "" {
		return document.Cell{}
	}
	return document.Cell{Verdict: verdict}
}
