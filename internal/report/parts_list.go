package report

import (
	"cmp"
	"encoding/csv"
	"fmt"
	"io"
	"slices"
	"strings"

	"corvek/core/bench"
	lists "corvek/core/list"
	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/document"
)

// PartsList is what is to be got for the units of a job, by supplier.
type PartsList struct {
	Data
	Suppliers []SupplierList
}

// SupplierList is what one supplier is to send.
type SupplierList struct {
	Name string // "" where none was named yet
	Rows []WantedRow
}

// WantedRow is one place with what its new pieces are.
type WantedRow struct {
	Unit, Part, MakerNo, Standard, Size, Material string
	Hardness                                      string
	Need, Here                                    int
	State, Number, Due                            string
}

// Lacking is how many pieces are still to come.
func (r WantedRow) Lacking() int { return max(0, r.Need-r.Here) }

// NewPartsList gathers the places of all units of a job.
func NewPartsList(states []*bench.State, d Data) PartsList {
	by := map[string][]WantedRow{}
	for _, st := range states {
		for _, p := range st.Parts {
			if p.Place == nil {
				continue
			}
			r := WantedRow{Unit: st.Unit.Name, Part: p.Name, MakerNo: p.Seal.MakerNo, Standard: p.Seal.Standard,
				Size: p.Seal.Size, Material: p.Seal.Material, Hardness: p.Seal.Hardness.Typed, Need: p.Place.Need,
				Here: p.Filled, Number: p.Order.Number, Due: string(p.Order.Due),
				State: wording.Choice(unit.ScopePart, "order_state", p.Order.State)}
			if over := st.Oversize(p); over > 0 {
				r.Size = strings.TrimSpace(fmt.Sprintf("%s, %.3g mm oversize", r.Size, over*1000))
			}
			by[p.Order.Supplier] = append(by[p.Order.Supplier], r)
		}
	}
	l := PartsList{Data: d}
	for name, rows := range by {
		l.Suppliers = append(l.Suppliers, SupplierList{name, rows})
	}
	slices.SortFunc(l.Suppliers, func(a, b SupplierList) int { return cmp.Compare(a.Name, b.Name) })
	return l
}

// Paper lays the list out.
func (l PartsList) Paper() document.Document {
	out := l.Data.paper("Parts list")
	for _, s := range l.Suppliers {
		t := document.Table{Heads: []string{"part", "part number", "size and material", "need", "here", "to come",
			"order"}, Shares: []float64{24, 16, 24, 6, 6, 8, 16}}
		for _, r := range s.Rows {
			cells := document.Cells(r.Part, r.MakerNo, joined(" ", r.Standard, r.Size, r.Material,
				between("", r.Hardness, " Shore A")), fmt.Sprint(r.Need), fmt.Sprint(r.Here), "",
				joined(", ", r.State, r.Number, between("due ", r.Due, "")))
			cells[0].Lines = append(cells[0].Lines, document.Line{Text: r.Unit, Small: true})
			cells[5].Lines = []document.Line{{Text: fmt.Sprint(r.Lacking()), Bold: true}}
			t.Rows = append(t.Rows, cells)
		}
		out.Add(document.Heading{Text: cmp.Or(s.Name, "No supplier named")}, t)
	}
	if len(l.Suppliers) == 0 {
		out.Add(document.Text{Text: "No part is renewed."})
	}
	return out
}

// CSV writes the list as a table, with a line of heads.
func (l PartsList) CSV(w io.Writer) error {
	c := csv.NewWriter(w)
	rows := [][]string{{"supplier", "unit", "part", "part number", "standard", "size", "material", "hardness Shore A",
		"need", "here", "to come", "state", "order number", "due"}}
	for _, s := range l.Suppliers {
		for _, r := range s.Rows {
			rows = append(
				rows,
				[]string{s.Name, r.Unit, r.Part, r.MakerNo, r.Standard, r.Size, r.Material, r.Hardness,
					fmt.Sprint(r.Need), fmt.Sprint(r.Here), fmt.Sprint(r.Lacking()), r.State, r.Number, r.Due},
			)
		}
	}
	for i := range rows[1:] {
		for j, cell := range rows[i+1] {
			rows[i+1][j] = lists.Plain(cell)
		}
	}
	return c.WriteAll(rows)
}
