package report

import (
	"cmp"
	"fmt"
	"iter"
	"strings"

	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/document"
)

// Dispute is the paper for a warranty or a dispute; history is the record of the job, oldest
// first. Both sides read the same words.
func Dispute(d Data, history iter.Seq2[unit.Entry, error]) (document.Document, error) {
	x := DisputeData{Data: d}
	if err := x.handling(history); err != nil {
		return document.Document{}, err
	}
	for _, s := range d.Pictures {
		if s.BeforeCleaning {
			x.Before = append(x.Before, s)
		} else {
			x.Later++
		}
	}
	x.marks()
	x.weigh()
	return x.paper(), nil
}

func (x *DisputeData) paper() document.Document {
	j, u := x.S.Job, x.S.Unit
	out := x.Data.paper("State of the evidence")
	out.Add(document.Text{Text: "This paper says what was found, what it supports and what it does not. It takes no " +
		"side."})
	facts := x.facts()
	facts.Rows = append(facts.Rows,
		document.Fact{Name: "Opened by", Value: cmp.Or(x.Opened, "not opened in this record")},
		document.Fact{Name: "Seals, tags", Value: cmp.Or(j.WarrantyNote, "nothing noted")})
	out.Add(facts)
	x.warranty(&out)
	out.Add(document.Heading{Text: "Who holds what"}, document.Lines{Items: x.holds()})
	out.Add(document.Heading{Text: "What was told"})
	if j.Complaint != "" {
		out.Add(document.Text{Text: "“" + j.Complaint + "”" + wording.Behind(" — ", j.Caller)})
	} else {
		out.Add(document.Text{Text: "No complaint was given."})
	}
	for _, a := range u.Accounts {
		out.Add(document.Text{Text: "“" + a.Words + "” — " + a.Teller})
	}
	if len(u.Accounts) > 1 {
		out.Add(document.Text{Text: "Accounts that agree may have it from one another; they are kept as told.",
			Quiet: true})
	}
	t := document.Table{Heads: []string{"when", "who", "what"}, Shares: []float64{22, 22, 56},
		None: "Nothing is recorded."}
	for _, h := range x.Handled {
		t.Rows = append(t.Rows, document.Cells(h.When, h.Who, h.What))
	}
	out.Add(document.Heading{Text: "Who handled it, and when"}, t)
	x.photographed(&out)
	x.seenMarks(&out)
	x.weighed(&out)
	x.history(&out)
	x.origins(&out)
	out.Add(Seal(x.Sign))
	return out
}

// warranty sums up for who decides on one: what is supported, what is not known, and what of
// it was photographed before anything was cleaned.
func (x *DisputeData) warranty(out *document.Document) {
	join := func(list []string, none string) []document.Line {
		if len(list) == 0 {
			return []document.Line{{Text: none}}
		}
		var lines []document.Line
		for _, text := range list {
			lines = append(lines, document.Line{Text: text})
		}
		return lines
	}
	var unknown []string
	if x.Unlooked > 0 {
		unknown = append(unknown, fmt.Sprintf("%d checks were not made", x.Unlooked))
	}
	for _, text := range x.Unknown {
		unknown = append(unknown, "where this is from: "+text)
	}
	if x.S.Unit.NotAsked != "" {
		unknown = append(unknown, "what the machine showed: "+x.S.Unit.NotAsked)
	}
	if x.S.Received == nil {
		unknown = append(unknown, "how it ran as it came: it was not run before it was opened"+
			wording.Behind(", because ", x.S.Unit.NoBefore))
	}
	var before []string
	for _, s := range x.Before {
		before = append(before, s.Caption)
	}
	out.Add(document.Heading{Text: "In short"}, document.Table{
		Heads:  []string{"supported", "not known", "photographed before cleaning"},
		Shares: []float64{34, 33, 33},
		Rows: [][]document.Cell{{{Lines: join(x.Supports, "No cause is supported on what was found.")},
			{Lines: join(unknown, "Nothing that was asked is open.")}, {Lines: join(before, "Nothing was.")}}}})
}

// holds says where the unit, what came off it and its pictures are, as far as it was written down: whoever
// decides on a warranty asks for them.
func (x *DisputeData) holds() []string {
	j := x.S.Job
	unit := "The unit: here."
	switch {
	case j.HandedOver() && j.CollectedBy != "":
		unit = "The unit: collected by " + j.CollectedBy + "."
	case j.HandedOver():
		unit = "The unit: handed over; nobody wrote to whom."
	}
	out := []string{unit}
	for _, part := range []struct {
		name string
		gave bool
	}{{"The old parts", j.GaveOldParts}, {"The old springs", j.GaveSprings}} {
		switch {
		case part.gave:
			out = append(out, part.name+": given back with it.")
		case j.HandedOver():
			out = append(out, part.name+": not written down that they were given back.")
		default:
			out = append(out, part.name+": here.")
		}
	}
	return append(out, fmt.Sprintf("Pictures: %d in this job's record, of them %d from before cleaning.",
		len(x.Before)+x.Later, len(x.Before)))
}

func (x *DisputeData) photographed(out *document.Document) {
	const head = "Photographed before cleaning"
	if blocks := shots(head, x.Before); blocks != nil {
		out.Add(blocks...)
	} else {
		out.Add(document.Heading{Text: head}, document.Text{Text: "No picture was taken before cleaning."})
	}
	if x.Later > 0 {
		out.Add(document.Text{Text: wording.Counted(x.Later, "more picture, taken after cleaning, is",
			"more pictures, taken after cleaning, are") + " in the findings report."})
	}
}

func (x *DisputeData) seenMarks(out *document.Document) {
	t := document.Table{Heads: []string{"mark", "origin", "found", "looks", "from"},
		Shares: []float64{36, 18, 16, 14, 16}, None: "No mark is recorded."}
	for _, m := range x.Seen {
		t.Rows = append(t.Rows, document.Cells(m.Text, m.Origin, m.How, m.Age, m.Source))
	}
	out.Add(document.Heading{Text: "What was seen"}, t)
	for _, rest := range []struct {
		lead string
		list []string
	}{{"Looked for and not found:", x.Absent}, {"Made at this bench, and left out of the reasoning:", x.ByUs},
		{"Of unknown origin, and counted for less:", x.Unknown}} {
		if len(rest.list) > 0 {
			out.Add(document.Text{Lead: rest.lead, Text: strings.Join(rest.list, "; ") + "."})
		}
	}
	if x.Unlooked > 0 {
		out.Add(document.Text{Text: fmt.Sprintf("%d further checks were not made.", x.Unlooked)})
	}
}

func (x *DisputeData) weighed(out *document.Document) {
	out.Add(document.Heading{Text: "What the evidence supports"})
	if len(x.Supports) > 0 {
		out.Add(document.Lines{Items: x.Supports})
	} else {
		out.Add(document.Text{Text: "No cause is supported on what was found."})
	}
	out.Add(x.chain()...)
	out.Add(document.Heading{Text: "What it does not support"})
	if len(x.NotSupport) > 0 {
		out.Add(document.Text{Text: strings.Join(x.NotSupport, "; ") + "."})
	} else {
		out.Add(document.Text{Text: "Nothing can be left out yet."})
	}
	if len(x.Must) > 0 {
		out.Add(document.Text{Lead: "What speaks against the leading cause:"}, document.Lines{Items: x.Must})
	}
	if x.Decider != "" {
		out.Add(document.Heading{Text: "What would decide"}, document.Text{Text: x.Decider})
	}
}

// origins tells of every figure where it is from: told, measured, of a document, by a rule or worked out.
func (x *DisputeData) origins(out *document.Document) {
	t := document.Table{Heads: []string{"figure", "is", "from"}, Shares: []float64{38, 16, 46},
		None: "No figure of this unit is known."}
	for _, f := range x.S.Figures() {
		t.Rows = append(t.Rows, document.Cells(f.Name, quantity.Show(f.SI, f.Dim, x.Units), wording.OriginOf(f)))
	}
	out.Add(document.Heading{Text: "Where its figures are from"}, t)
}
