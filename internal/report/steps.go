package report

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"time"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/core/wording"
)

// sized writes a figure in the dimension in which it is judged: a share in percent, a ratio
// to one, all else as the shop writes it.
func sized(f *proof.Figured, v float64, units quantity.System) string {
	switch {
	case f.Base > 0:
		g, _ := family.FigureByCode(f.Figure)
		return quantity.Show(v*f.Base, g.Dim, units)
	case f.By == family.ByRatio && f.Dim == quantity.Number:
		return fmt.Sprintf("%.1f to 1", v)
	case f.Dim == quantity.Number && f.Relative():
		return fmt.Sprintf("%.1f %%", math.Round(1000*v)/10+0) // a share a little below none is none
	}
	return quantity.Show(v, f.Dim, units)
}

// of says what a share is a share of.
func of(f *proof.Figured) string {
	if !f.Relative() || f.Dim != quantity.Number {
		return ""
	}
	switch f.By {
	case family.ByEfficiency:
		return " volumetric"
	case family.ByDisplacement:
		return " of the displacement"
	case family.BySlip:
		return " slip"
	case family.ByTwin:
		return " apart"
	case family.ByDecay:
		return " lost, temperature told apart"
	case family.ByReseat:
		return " of the cracking pressure"
	case family.ByOverall:
		return " overall"
	}
	return map[string]string{"duty": " of duty pressure", "start": " of the start", "theory": " of theoretical flow",
		"torque": " of theoretical torque"}[f.Of]
}

// Worked is what was worked out of a figure, "" where it is judged as it was read.
func Worked(f *proof.Figured, units quantity.System) string {
	var out []string
	if f.Relative() && f.Base == 0 && f.Dim == quantity.Number && f.Needs == "" && !f.Q.IsZero() {
		out = append(out, sized(f, f.Value, units)+of(f))
	}
	if f.Note != "" {
		out = append(out, f.Note)
	}
	return strings.Join(out, "; ")
}

// LimitOf says what a figure must be and who says so, "" where nobody does.
func LimitOf(f *proof.Figured, units quantity.System) string {
	show := func(v float64) string { return sized(f, v, units) }
	switch l := f.Limits; {
	case l.Empty(), f.Of != "" && family.OfNeed(f.Of) && f.Base == 0: // nobody told of what it is a share
		return ""
	case l.HasLower && l.HasUpper:
		return show(l.Lower) + " to " + show(l.Upper) + of(f) + ", " + f.From
	case l.HasUpper:
		return "at most " + show(l.Upper) + of(f) + ", " + f.From
	default:
		return "at least " + show(l.Lower) + of(f) + ", " + f.From
	}
}

// LimitWords are all limits of the figures of a step.
func LimitWords(figures []proof.Figured, units quantity.System) (out []string) {
	for i := range figures {
		f := &figures[i]
		if words := LimitOf(f, units); words != "" {
			out = append(out, limited(f.Name, words))
		}
	}
	return out
}

// limited puts a figure before its limit: "cracks at most 5 bar" for one that cracks at something.
func limited(name, limit string) string {
	name = lowered(name)
	if strings.HasPrefix(limit, "at ") {
		name = strings.TrimSuffix(name, " at")
	}
	return name + " " + limit
}

// ReadWords are the word that was seen at a step and all its figures as they were read, with what was
// worked out of them.
func ReadWords(word string, figures []proof.Figured, units quantity.System) (out []string) {
	if word != "" {
		out = append(out, word)
	}
	for i := range figures {
		f := &figures[i]
		if f.Q.IsZero() {
			continue
		}
		text := lowered(f.Name) + " " + quantity.Show(f.Q.SI, f.Q.Dim, units)
		if worked := Worked(f, units); worked != "" {
			text += " (" + worked + ")"
		}
		out = append(out, text)
	}
	return out
}

// SourceWords say where the figures of an attempt are from and what they were read with.
func SourceWords(a *bench.Attempt) string {
	var from []string
	for _, p := range a.Attempt.Points {
		for _, t := range p.Taken {
			if !slices.Contains(from, t.From) {
				from = append(from, t.From)
			}
		}
	}
	if len(from) == 0 { // of before each figure kept where it is from
		from = []string{a.Source}
	}
	slices.Sort(from)
	words := "figures " + originWords(from)
	if a.Source == unit.SourceSimulated {
		words = "an exercise on the simulated stand"
	}
	return words + wording.Behind(
		", read with ",
		strings.Join(nonEmpty(a.PressureGauge, a.FlowMeter, a.Thermometer), ", "),
	)
}

// HeldWords say how long a step was held.
func HeldWords(held time.Duration) string {
	return fmt.Sprintf("%d min %02d s", int(held.Minutes()), int(held.Seconds())%60)
}
