package report

import (
	"encoding/csv"
	"encoding/json"
	"fmt"
	"io"
	"strconv"

	"corvek/core/bench"
	lists "corvek/core/list"
	"corvek/internal/document"
)

// Invoice is what goes on the invoice of a job, for the shop's accounts: it is no invoice itself.
type Invoice struct {
	Data
	*bench.Bill
}

// toCents writes a sum to the cent.
func toCents(v float64) string { return strconv.FormatFloat(v, 'f', 2, 64) }

// Paper lays it out.
func (i Invoice) Paper() document.Document {
	j := i.S.Job
	out := i.Data.paper("What goes on the invoice")
	out.Add(document.Text{Text: joined(", ", j.Customer.Name, j.Customer.Place)})
	t := document.Table{
		Heads:  []string{"what", "count", "each", "sum", "whence"},
		Shares: []float64{42, 10, 14, 16, 18},
		None:   "Nothing was put in, worked or sent out yet.",
	}
	for _, l := range i.Lines {
		each, sum := toCents(l.Each), toCents(l.Sum())
		if !l.Known {
			each, sum = "no price", ""
		}
		count := strconv.FormatFloat(l.Count, 'f', -1, 64)
		if l.Kind == bench.BillHours {
			count += " h"
		}
		t.Rows = append(t.Rows, document.Cells(l.What, count, each, sum, l.From))
	}
	out.Add(document.Heading{Text: "What was done"}, t)
	sum := "comes to " + toCents(i.Sum())
	if len(i.Missing) > 0 {
		sum = "comes to at least " + toCents(i.Sum())
	}
	banner := document.Banner{Text: sum, Tone: document.Look}
	switch {
	case !i.HasAgreed:
		banner.Items = append(banner.Items, "the customer was given no sum that he agreed to")
	case i.Over() > 0:
		banner.Items = append(
			banner.Items,
			fmt.Sprintf("%s more than the %s that he agreed to: he is told before it is sent",
				toCents(i.Over()), toCents(i.Agreed)),
		)
	default:
		banner.Items = append(banner.Items, fmt.Sprintf("%s less than the %s that he agreed to", toCents(-i.Over()),
			toCents(i.Agreed)))
	}
	if len(i.Missing) == 0 && i.HasAgreed && i.Over() <= 0 {
		banner.Tone = document.Good
	}
	out.Add(banner)
	list(&out, "Not entered", i.Missing)
	out.Add(document.Small{Text: "Sums in the shop's own money, without taxes and carriage."})
	return out
}

// CSV writes the lines as a table, with a line of heads.
func (i Invoice) CSV(w io.Writer) error {
	c := csv.NewWriter(w)
	rows := [][]string{{"job", "customer", "kind", "what", "count", "each", "sum", "from"}}
	for _, l := range i.Lines {
		each, sum := toCents(l.Each), toCents(l.Sum())
		if !l.Known {
			each, sum = "", ""
		}
		rows = append(rows, []string{i.S.Job.Tag, lists.Plain(i.S.Job.Customer.Name), l.Kind, lists.Plain(l.What),
			strconv.FormatFloat(l.Count, 'f', -1, 64), each, sum, l.From})
	}
	return c.WriteAll(rows)
}

// JSON writes it for a program.
func (i Invoice) JSON(w io.Writer) error {
	type line struct {
		Kind  string   `json:"kind"`
		What  string   `json:"what"`
		Count float64  `json:"count"`
		Each  *float64 `json:"each,omitempty"`
		Sum   *float64 `json:"sum,omitempty"`
		From  string   `json:"from,omitempty"`
	}
	out := struct {
		Job      string   `json:"job"`
		Customer string   `json:"customer"`
		Lines    []line   `json:"lines"`
		Sum      float64  `json:"sum"`
		Agreed   *float64 `json:"agreed,omitempty"`
		Missing  []string `json:"missing,omitempty"`
	}{Job: i.S.Job.Tag, Customer: i.S.Job.Customer.Name, Lines: []line{}, Sum: i.Sum(), Missing: i.Missing}
	if i.HasAgreed {
		out.Agreed = &i.Agreed
	}
	for _, l := range i.Lines {
		x := line{Kind: l.Kind, What: l.What, Count: l.Count, From: l.From}
		if each, sum := l.Each, l.Sum(); l.Known {
			x.Each, x.Sum = &each, &sum
		}
		out.Lines = append(out.Lines, x)
	}
	e := json.NewEncoder(w)
	e.SetIndent("", "  ")
	return e.Encode(out)
}
