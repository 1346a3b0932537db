package answer

import (
	"encoding/json"
	"net/url"
	"slices"
	"strconv"
	"strings"

	"corvek/core/calc"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Typed writes an example's input as it would be typed on the page.
func Typed(x any) string {
	switch v := x.(type) {
	case string:
		return v
	case float64:
		return strconv.FormatFloat(v, 'g', -1, 64)
	case map[string]any:
		var parts []string
		for k, figure := range v {
			parts = append(parts, k+" = "+Typed(figure))
		}
		slices.Sort(parts)
		return strings.Join(parts, ", ")
	case []any:
		var parts []string
		sep := ", "
		for _, item := range v {
			if row, ok := item.([]any); ok {
				sep = "; "
				parts = append(parts, Typed(row))
				continue
			}
			if o, ok := item.(map[string]any); ok {
				text := Typed(o["thickness"])
				if n := Typed(o["count"]); n != "" {
					text += " x" + n
				}
				parts = append(parts, text)
				continue
			}
			parts = append(parts, Typed(item))
		}
		return strings.Join(parts, sep)
	}
	return ""
}

// Query writes a calculator's JSON inputs as an address carries them.
func Query(in map[string]any) url.Values {
	q := url.Values{}
	for k, x := range in {
		if text := Typed(x); text != "" {
			q.Set(k, text)
		}
	}
	return q
}

// Worked is a calculation on a job as it is read.
type Worked struct {
	unit.Worked
	Summary string
	Given   []Row
	Results []Row
	Warns   []calc.Warning
	Again   string // address of the calculator with the same inputs
}

// Kept reads a job's calculations for people; one that cannot be read
// any more is left out rather than shown wrong.
func Kept(j *unit.Job, s quantity.System) []Worked {
	var out []Worked
	for _, w := range j.Worked {
		v := Worked{Worked: *w, Summary: w.Calculator}
		var o calc.Output
		var in map[string]any
		if json.Unmarshal([]byte(w.Answer), &o) != nil || json.Unmarshal([]byte(w.Inputs), &in) != nil {
			continue
		}
		if d, err := calc.Find(w.Calculator); err == nil {
			v.Summary = d.Summary
			for _, input := range d.Inputs {
				if x, ok := in[input.Name]; ok {
					v.Given = append(
						v.Given,
						Row{Label: Label(input.Name), Text: Typed(x), Other: origin(w, input.Name)},
					)
				}
			}
		}
		v.Results, v.Warns = Rows(&o, s), o.Warnings
		v.Again = "/toolbox/" + w.Calculator + "?" + Query(in).Encode()
		out = append(out, v)
	}
	return out
}

// origin says where an input of a calculation is from, where it was filled in from a unit; else it was typed.
func origin(w *unit.Worked, input string) string {
	if from := w.Whence[input]; from != "" {
		return from
	}
	return "typed"
}

// Of are the calculations that were put on a job about a part of one of its units.
func Of(j *unit.Job, number int, part string, s quantity.System) (out []Worked) {
	for _, w := range Kept(j, s) {
		if w.Unit == number && (w.About == part || strings.HasPrefix(w.About, part+".")) {
			out = append(out, w)
		}
	}
	return out
}

// GivenText and ResultText write a calculation's sides in one line each.
func (w Worked) GivenText() string { return oneLine(w.Given) }

// ResultText is the answer in one line.
func (w Worked) ResultText() string { return oneLine(w.Results) }

func oneLine(rows []Row) string {
	var parts []string
	for _, r := range rows {
		parts = append(parts, r.Label+" "+r.Text)
	}
	return strings.Join(parts, "; ")
}
