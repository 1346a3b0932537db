package report

import (
	"fmt"

	"corvek/internal/document"
)

// ToteTag hangs on the tote: the job from afar, whose it is, and what must not be done.
func ToteTag(d Data) document.Document {
	j := d.S.Job
	out := d.paper("Tote tag")
	out.Title, out.Layout = "", "totepage"
	out.Add(document.Big{Text: j.Tag}, document.Heading{Text: j.Title})
	if j.WarrantyHold {
		out.Add(document.Banner{Text: "WARRANTY HOLD: DO NOT OPEN", Tone: document.Danger})
	}
	facts := []document.Fact{{Name: "Customer", Value: joined(", ", j.Customer.Name, j.Customer.Place)},
		{Name: "In", Value: d.Date(j.ReceivedOn.Time())}}
	if j.PromisedOn != "" {
		facts = append(facts, document.Fact{Name: "Promised", Value: d.Date(j.PromisedOn.Time())})
	}
	for _, u := range j.Units {
		facts = append(facts, document.Fact{Name: fmt.Sprintf("Unit %d", u.Number),
			Value: joined(" · ", u.Name, joined(" ", u.Maker, u.Model), u.Serial)})
	}
	if d.S.Unit.Fluid != "" {
		facts = append(facts, document.Fact{Name: "Fluid", Value: d.S.Unit.Fluid})
	}
	out.Add(document.Facts{Rows: facts}, document.Code{}, document.Small{Text: d.Opens})
	return out
}
