// Package answer writes what a calculator was given and what it answered in a
// workshop's words and units, for pages and papers alike.
package answer

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"corvek/core/calc"
	"corvek/core/quantity"
)

// Row is a result in the shop's units, in the other system and in SI.
type Row struct{ Label, Text, Other, SI string }

// labels are names of the contract that a reader would stumble over.
var labels = map[string]string{
	"youngs": "Young's modulus", "poisson": "Poisson's ratio", "k": "Nut factor", "v40": "Viscosity at 40 °C",
	"v100": "Viscosity at 100 °C", "tir": "Swing on the dial",
	"gamma": "Adiabatic index", "parts": "Cost of parts", "cap": "Most over the mark", "dead": "Dead pistons",
	"on": "On the day", "before": "Gap before", "after": "Gap after",
	"most": "Most needles", "old_fraction": "Old oil left", "time_per_10K": "Time for 10 K",
	"error_a": "Error of outlet A", "share_a": "Share of outlet A", "share_b": "Share of outlet B",
	"flow_a": "Flow of outlet A", "flow_b": "Flow of outlet B", "tnt_equivalent": "As much as TNT",
	"proud": "Stands proud by", "margin_upper": "Room to the upper limit",
	"margin_lower": "Room to the lower limit", "limit_for": "Limit is for",
}

// Label turns a name of the contract into words.
func Label(name string) string {
	if l, ok := labels[name]; ok {
		return l
	}
	return Capital(strings.ReplaceAll(name, "_", " "))
}

// Rows writes the results of an answer, one line each.
func Rows(out *calc.Output, s quantity.System) []Row {
	var rows []Row
	for _, e := range out.Results {
		r := Row{Label: Label(e.Name)}
		switch v := e.Value.(type) {
		case calc.Figure:
			r.Text, r.Other, r.SI = Text(v, s), otherText(v, s), joinUnit(fmt.Sprintf("%.6g", v.Value), v.Unit)
			if share, ok := percent(e.Name, v); ok {
				r.Text, r.Other = share, ""
			}
			if r.Other == r.Text {
				r.Other = ""
			}
		case []calc.Figure:
			var parts []string
			for _, f := range v {
				parts = append(parts, Text(f, s))
			}
			r.Text = strings.Join(parts, ", ")
			if r.Text == "" {
				r.Text = "none"
			}
		case []map[string]any:
			var parts []string
			for _, row := range v {
				parts = append(parts, rowText(row, s))
			}
			r.Text = strings.Join(parts, "; ")
			if r.Text == "" {
				r.Text = "none"
			}
		case map[string]any:
			r.Text = rowText(v, s)
		case bool:
			r.Text = map[bool]string{true: "yes", false: "no"}[v]
		default:
			r.Text = fmt.Sprint(v)
		}
		rows = append(rows, r)
	}
	return rows
}

// rowText writes a result that is an object: its words, then its figures by name.
func rowText(row map[string]any, s quantity.System) string {
	keys := make([]string, 0, len(row))
	for k := range row {
		keys = append(keys, k)
	}
	slices.Sort(keys)
	var words, figures []string
	for _, k := range keys {
		switch v := row[k].(type) {
		case string:
			words = append(words, v)
		case calc.Figure:
			text := Text(v, s)
			if k == "percent" {
				text = fmt.Sprintf("%.0f %%", 100*v.Value)
			}
			figures = append(figures, strings.ReplaceAll(k, "_", " ")+" "+text)
		case map[string]any:
			figures = append(figures, strings.ReplaceAll(k, "_", " ")+": "+rowText(v, s))
		}
	}
	return strings.Join(append(words, figures...), ", ")
}

// otherText writes a calculator's figure in the units that the reader does not use.
func otherText(f calc.Figure, s quantity.System) string {
	d, _ := f.Dim()
	return Text(f, s.Other(d))
}

// Text writes a calculator's figure in shop units, when there are any.
func Text(f calc.Figure, s quantity.System) string {
	if d, ok := f.Dim(); ok {
		return quantity.Show(f.Value, d, s)
	}
	if r, ok := rateUnits[f.Unit]; ok {
		return joinUnit(quantity.Figures(f.Value*r.times, 3), r.name)
	}
	if f.Value == math.Trunc(f.Value) && math.Abs(f.Value) < 1e6 {
		return joinUnit(strconv.Itoa(int(f.Value)), f.Unit)
	}
	return joinUnit(quantity.Figures(f.Value, 4), f.Unit)
}

// rateUnits are results whose SI unit no workshop speaks.
var rateUnits = map[string]struct {
	name  string
	times float64
}{"m/h": {"µm in 1000 h", 1e9}, "Pa/mm": {"bar/mm", 1e-5}, "K/s": {"K/min", 60}}

func joinUnit(number, unit string) string {
	if unit == "" {
		return number
	}
	return number + " " + unit
}

// Capital gives a text with its first letter large.
func Capital(s string) string {
	if s == "" {
		return s
	}
	return strings.ToUpper(s[:1]) + s[1:]
}
