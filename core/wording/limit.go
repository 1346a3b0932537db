package wording

import (
	"strings"

	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"
)

// Limit writes what a figure is held against; "" where there is no limit.
func Limit(l metrology.Limits, show func(m float64) string) string {
	switch {
	case l.HasLower && l.HasUpper:
		return between(show(l.Lower), show(l.Upper))
	case l.HasUpper:
		return "up to " + show(l.Upper)
	case l.HasLower:
		return "at least " + show(l.Lower)
	}
	return ""
}

// LimitOf writes what a feature of a unit is held against: as it was typed, or as a rule makes it.
func LimitOf(f *unit.Feature, b measure.Bound, units quantity.System, show func(m float64) string) string {
	switch low, high := f.Lower.In(units), f.Upper.In(units); {
	case b.Basis != "" || b.Limits.Empty():
		return Limit(b.Limits, show)
	case b.Limits.HasLower && b.Limits.HasUpper:
		return between(low, high)
	case b.Limits.HasUpper:
		return "up to " + high
	default:
		return "at least " + low
	}
}

// between writes a band, its unit once where both ends have the same.
func between(low, high string) string {
	if number, in, _ := strings.Cut(low, " "); strings.HasSuffix(high, " "+in) {
		low = number
	}
	return low + " to " + high
}

// LimitFrom says by which limit a feature is judged, and whence.
func LimitFrom(f *unit.Feature, b measure.Bound, show func(m float64) string) string {
	if b.Basis == "" {
		return Choice(unit.ScopeFeature, "standing", string(f.LimitFrom())) + Behind(": ", f.Source)
	}
	words := Rule(b.By, b.Span, show)
	if b.By == "" {
		return "guidance: " + b.Basis
	}
	return words + ", guidance: " + b.Basis
}

// Rule writes a rule in words with the length in it.
func Rule(by string, span float64, show func(m float64) string) string {
	return strings.ReplaceAll(by, "§", show(span))
}

// AsNewFrom says where a size as new is known from.
func AsNewFrom(n unit.AsNew) string {
	if n.Low.IsZero() {
		return "not known"
	}
	if n.From == "" {
		return "nobody said where it is from"
	}
	return Choice(unit.ScopeFeature, "new_from", n.From) + Behind(": ", n.Source)
}

// RuleOf says a rule of a family in words; name gives the words for a size, part.feature.
func RuleOf(r *family.Rule, show func(m float64) string, name func(path string) string) string {
	if r == nil {
		return ""
	}
	length := func(text string) string {
		q, err := quantity.Parse(text, quantity.Length)
		if err != nil {
			return text
		}
		return show(q.SI)
	}
	of := "its own size"
	if r.Of != "" {
		of = name(r.Of)
	}
	var words []string
	say := func(given, text string) {
		if given != "" {
			words = append(words, text)
		}
	}
	switch {
	case r.Sized():
		say(r.Out, "may wear "+r.Out+" of its size as new")
		say(r.Off, "may wear "+length(r.Off))
		say(r.OutFit, "new "+r.Fit+", out beyond "+r.OutFit)
	case r.Most != "":
		words = append(words, strings.TrimPrefix(length(r.Least)+" to ", " to ")+length(r.Most))
	case len(r.Steps) > 0:
		words = append(words, "by a table of "+of)
	default:
		say(r.Grade, "within "+r.Grade+" of "+of)
		say(r.Out, "up to "+r.Out+" of "+of)
		say(r.High, "new "+r.Low+" to "+r.High+" of "+of)
	}
	say(r.Round, "round within "+r.Round)
	say(r.Spread, "sisters within "+length(r.Spread))
	return strings.Join(words, "; ") + ", guidance: " + r.Basis
}
