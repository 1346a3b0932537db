package report

import (
	"cmp"
	"fmt"

	"corvek/core/bench"
	"corvek/internal/document"
)

// Order is the list as it goes to one supplier: what is still to come, and nothing that is here.
func (l PartsList) Order(supplier string) document.Document {
	out := l.Data.paper("Order")
	out.Add(document.Text{Lead: "To", Text: cmp.Or(supplier, "no supplier named yet")})
	t := document.Table{Heads: []string{"count", "part number", "what", "size and material", "for"},
		Shares: []float64{8, 20, 26, 28, 18}, None: "Nothing is to come of this supplier."}
	for _, s := range l.Suppliers {
		if s.Name != supplier {
			continue
		}
		for _, r := range s.Rows {
			if r.Lacking() == 0 {
				continue
			}
			row := document.Cells(
				"",
				cmp.Or(r.MakerNo, "not known"),
				r.Part,
				joined(" ", r.Standard, r.Size, r.Material,
					between("", r.Hardness, " Shore A")),
				r.Unit,
			)
			row[0].Lines = []document.Line{{Text: fmt.Sprint(r.Lacking()), Bold: true}}
			t.Rows = append(t.Rows, row)
		}
	}
	out.Add(t, document.Text{Text: "Rubber with its cure date on each bag, please: what is older than half its " +
		"shelf life goes back. Name the day on which it comes; the unit waits for it."},
		document.Signs{Names: []string{"Ordered by", "Day"}})
	return out
}

// OutsideOrder is what goes out to be worked on, with what is awaited back.
func OutsideOrder(states []*bench.State, d Data) document.Document {
	out := d.paper("Outside work")
	for k, st := range states {
		of := d
		if k > 0 {
			of = New(st, d.Units, d.Printed)
		}
		t := document.Table{Heads: []string{"piece", "what is to be done", "as it goes out", "awaited back"},
			Shares: []float64{22, 26, 32, 20}}
		for _, p := range st.Parts {
			for _, w := range p.Going() {
				if w.Days == 0 {
					continue
				}
				back := fmt.Sprintf("after %.0f days as a rule", w.Days)
				switch {
				case w.Row.Back != "":
					back = "came back " + string(w.Row.Back)
				case w.Row.Sent != "":
					back = fmt.Sprintf("out since %s, %s", w.Row.Sent, back)
				}
				row := document.Cells(p.Name, w.Name, "", back)
				row[2].Lines = asMeasured(of, p)
				t.Rows = append(t.Rows, row)
			}
		}
		if len(t.Rows) > 0 {
			out.Add(document.Heading{Text: st.Unit.Name}, t)
		}
	}
	if len(out.Blocks) == 0 {
		out.Add(document.Text{Text: "No part of this job goes out to be worked on."})
		return out
	}
	out.Add(
		document.Text{Text: "Size, finish and plating as the drawing of the unit's maker has them; where none " +
			"is here, ask before anything is taken off. Washed of oil, edges and threads covered, every piece " +
			"tagged with the number of this job."},
		document.Signs{Names: []string{"Given out by", "Taken by", "Day"}},
	)
	return out
}

// asMeasured are the figures of a part as it was found, with its limits.
func asMeasured(d Data, p *bench.Part) (out []document.Line) {
	for _, r := range d.Rows {
		if r.Part == p.Name && r.Found != "" {
			limit := ""
			if r.Limit != "none" {
				limit = between("limit ", r.Limit, "")
			}
			out = append(out, document.Line{Text: joined(", ", r.Feature+": "+r.Found, limit), Small: true})
		}
	}
	if len(out) == 0 {
		out = []document.Line{{Text: "not measured", Small: true}}
	}
	return out
}

// DeliveryNote goes with what the customer gets back.
func DeliveryNote(states []*bench.State, d Data) document.Document {
	j := d.S.Job
	out := d.paper("Delivery note")
	out.Add(document.Text{Lead: "To", Text: joined(", ", j.Customer.Name, j.Customer.Place)})
	t := document.Table{Heads: []string{"count", "what", "maker and model", "serial", "how it goes out"},
		Shares: []float64{8, 26, 26, 18, 22}}
	for _, st := range states {
		u := st.Unit
		t.Rows = append(t.Rows, document.Cells("1", cmp.Or(u.Name, st.Family.Name), joined(" ", u.Maker, u.Model),
			read(u.Serial), Stands(st, d.Units).Line()))
	}
	out.Add(t)
	var with []string
	for _, g := range []struct {
		gave bool
		what string
	}{{j.GaveOldParts, "the old parts"}, {j.GaveSprings, "the old springs"}, {j.GaveCard, "the start-up card"}} {
		if g.gave {
			with = append(with, g.what)
		}
	}
	list(&out, "Beside it", with)
	out.Add(
		document.Text{Text: "Ports stay plugged until the unit is fitted. What is shown and what is not stands on " +
			"its certificate; read the start-up card before it is run."},
		document.Signs{Names: []string{"Given by", "Taken by", "Day"}},
	)
	return out
}
