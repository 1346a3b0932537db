package report

import "corvek/internal/document"

// Card is the paper that goes with the unit: the start-up card, or what its ending says in
// its place.
func Card(d Data) document.Document {
	out := d.paper(d.Note.Title)
	out.Layout = "cardpage"
	u := d.S.Unit
	out.Add(document.Text{Text: joined(", ", d.S.Family.Name, between("serial ", u.Serial, ""),
		between("", u.Rotation, "-hand rotation seen from the shaft end"))})
	out.Add(document.Text{Lead: d.Note.Lead})
	out.Add(document.Lines{Items: d.Note.Lines, Ordered: d.Note.Ordered, Large: true})
	out.Add(document.Banner{Text: d.Note.Warning, Tone: document.Look})
	return out
}
