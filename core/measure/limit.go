package measure

import (
	"math"
	"slices"
	"strings"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/tolerance"
	"corvek/core/unit"
)

// Size is a size of this unit that a limit or a leak goes by.
type Size struct {
	SI   float64 // m
	Half float64 // half the band that it lies in
	Read float64 // as it was measured, valid with HasRead

	HasRead bool
}

// Sizes gives a size of this unit by part.feature; ok is false while it is not known.
type Sizes func(path string) (s Size, ok bool)

// SizesOf are the sizes of a unit: as new where that is known, else the middle one of its readings.
func SizesOf(u *unit.Unit) Sizes {
	return func(path string) (s Size, ok bool) {
		code, feature := family.CutFeature(path)
		p := u.Part(code)
		if p == nil || !p.OnUnit() {
			return s, false
		}
		f := p.Feature(feature)
		if f == nil {
			return s, false
		}
		read := readings(f.Newest(unit.StageBuilt), "")
		if len(read) == 0 {
			read = readings(f.Newest(unit.StageFound), "")
		}
		if s.HasRead = len(read) > 0; s.HasRead {
			s.Read = median(read)
		}
		if s.SI = s.Read; f.New.Holds() {
			s.SI, s.Half = f.New.Middle(), f.New.Half()
		}
		return s, s.HasRead || f.New.Holds()
	}
}

// SizesAfter are the sizes of a unit once it is built: what a rework brought to another size is that size as new.
func SizesAfter(u *unit.Unit) Sizes {
	found := SizesOf(u)
	return func(path string) (s Size, ok bool) {
		code, feature := family.CutFeature(path)
		s, ok = found(path)
		if p := u.Part(code); p != nil && p.OnUnit() {
			if f := p.Feature(feature); f != nil && !f.Made.Low.IsZero() {
				s.SI, s.Half, ok = f.Made.AsNew().Middle(), f.Made.AsNew().Half(), true
			}
		}
		return s, ok
	}
}

// readings are the figures in the slots that begin so, without those that are questioned.
func readings(entries []*unit.Reading, begins string) (out []float64) {
	for _, e := range entries {
		if v, ok := e.Size.Known(); ok && !e.Questioned() && IsFigure(e.Slot) && strings.HasPrefix(e.Slot, begins) {
			out = append(out, v)
		}
	}
	return out
}

// Bound is what a figure is held against, and how that is known.
type Bound struct {
	Limits metrology.Limits // in the sense measured, m
	New    metrology.Limits // of a gap: the new fit, where the rule has one
	Slack  float64          // how far the limit itself may lie elsewhere, m
	Source family.LimitSource
	By     string  // the rule in words: "0.1 % of its size as new"; § stands for Span
	Span   float64 // m
	Basis  string  // what the rule stands on
	Lacks  string  // the size it waits for, part.feature, or AsNewLacks
	ByTest bool    // no size says that it is out; its leak test does
}

// AsNewLacks is what a limit waits for that goes by the feature's own size as new.
const AsNewLacks = "as new"

// bound is what holds on this unit: limits typed here, else what the family's rule makes of its sizes.
func (s Spec) bound(entries []*unit.Reading) Bound {
	if s.LimitSource == family.SourceEarlier {
		return s.byRule(s.Rule, entries)
	}
	b := Bound{Source: s.LimitSource}
	if known(s.Lower) {
		b.Limits.Lower, b.Limits.HasLower = s.Lower.SI, true
	}
	if known(s.Upper) {
		b.Limits.Upper, b.Limits.HasUpper = s.Upper.SI, true
	}
	if b.Limits.Empty() {
		b = s.byRule(s.Rule, entries)
	}
	if s.Method == family.MethodFeeler || s.Measured != "" {
		sense := metrology.Sense(s.LimitFor)
		b.Limits, b.New = b.Limits.In(sense, metrology.Sense(s.Measured)), b.New.In(sense, metrology.Sense(s.Measured))
	}
	return b
}

func (s Spec) byRule(r *family.Rule, entries []*unit.Reading) Bound {
	b := Bound{Source: family.SourceNone}
	if r == nil {
		return b
	}
	b.Basis, b.Source = r.Basis, family.SourceGuidance
	if r.Sized() {
		s.sized(r, &b)
	} else {
		s.gapped(r, entries, &b)
	}
	return b
}

// sized is the limit of a size that wears from what it was as new.
func (s Spec) sized(r *family.Rule, b *Bound) {
	if !s.New.Holds() {
		b.Lacks = AsNewLacks
		return
	}
	mid, half := s.New.Middle(), s.New.Half()
	least, most := 0.0, 0.0 // of what may be worn away
	switch {
	case r.OutFit != "":
		var ok bool
		if least, most, ok = fitAllowance(r, mid, half); !ok {
			b.Lacks = AsNewLacks
			return
		}
		b.By = "new " + r.Fit + ", out beyond " + r.OutFit
	case r.Off != "":
		least, most = lengthOf(r.Off)-half, lengthOf(r.Off)+half
		b.By, b.Span = "§ off its size as new", lengthOf(r.Off)
	default:
		base := mid
		b.By = r.Out + " of its size as new"
		if r.Less != "" {
			less, ok := s.Sizes.At(r.Less)
			if !ok {
				b.Lacks = r.Less
				return
			}
			base, b.By = mid-less.SI, r.Out+" of its lining as new"
		}
		share := shareOf(r.Out)
		least, most = share*base-half, share*base+half
	}
	allowance := (least + most) / 2
	b.Slack = (most - least) / 2
	if s.Wears == string(metrology.Bore) {
		b.Limits = metrology.AtMost(mid + allowance)
	} else {
		b.Limits = metrology.AtLeast(mid - allowance)
	}
}

// fitAllowance is how much may be worn off a size that was made to a fit: from the middle of its band as new
// to the end of the wider fit. A point may lie anywhere in its own fit; at the end of a range of sizes, either
// range may be meant, but for a band that is as wide as the fit in one of them alone.
func fitAllowance(r *family.Rule, mid, half float64) (least, most float64, ok bool) {
	fit, out := r.Fits()
	least, most = math.Inf(1), math.Inf(-1)
	told := false
	for _, at := range []float64{mid - 2*half - fitReach, mid + 2*half + fitReach} {
		narrow, ok := tolerance.Width(at, fit.Grade)
		wide, known := tolerance.Width(at, out.Grade)
		if !ok || !known {
			return 0, 0, false
		}
		from, to := wide-narrow, wide
		if half > 0 { // the band says where its fit begins
			from, to = wide-half, wide-half
		}
		switch same := half > 0 && math.Abs(2*half-narrow) < 0.5e-6; {
		case same && !told:
			least, most, told = from, to, true
		case same || !told:
			least, most = min(least, from), max(most, to)
		}
	}
	return least, most, true
}

// fitReach is how far a worn size may lie from the nominal one that its range of the standard goes by.
const fitReach = 50e-6

// gapped is the limit of a gap, by the size it goes by.
func (s Spec) gapped(r *family.Rule, entries []*unit.Reading, b *Bound) {
	base, ok := s.goesBy(r, entries)
	if r.Of != "" || shares(r) || r.Grade != "" {
		if !ok {
			b.Lacks = r.Of
			if b.Lacks == "" {
				b.Lacks = AsNewLacks
			}
			return
		}
	}
	of := " of its size"
	low, high := shareOf(r.Low)*base, shareOf(r.High)*base
	if r.Least != "" {
		low = lengthOf(r.Least)
	}
	switch {
	case r.Most != "":
		high = lengthOf(r.Most)
		b.By, b.Span = "up to §", high
		b.Limits = metrology.AtMost(high)
	case len(r.Steps) > 0:
		high, b.By = stepAt(r.Steps, base), "by the table of its size"
		b.Limits = metrology.AtMost(high)
	case r.Grade != "":
		grade, _ := tolerance.Parse(r.Grade)
		width, known := tolerance.Width(base, grade.Grade)
		if !known {
			b.Lacks = r.Of
			return
		}
		high, b.By = width, r.Grade+of
		b.Limits = metrology.AtMost(high)
	case r.Out != "":
		b.By = "up to " + r.Out + of
		b.Limits = metrology.AtMost(shareOf(r.Out) * base)
	case r.Times > 0:
		b.By = "new " + fitWords(r) + of
		b.Limits = metrology.AtMost(r.Times * high)
		if r.Times > 1 {
			b.By += ", out at " + timesWords(r.Times)
		}
	case high > 0:
		b.By, b.ByTest = "new "+fitWords(r)+of+"; its leak test says when it is out", true
	}
	if high > 0 && r.High != "" {
		b.New = metrology.Between(low, high)
	}
	if low > 0 && !b.ByTest {
		b.Limits.Lower, b.Limits.HasLower = low, true
	}
}

func timesWords(times float64) string {
	if times == 2 {
		return "twice"
	}
	return quantity.Figures(times, 1) + " times"
}

func fitWords(r *family.Rule) string {
	if r.Low == "" {
		return "up to " + r.High
	}
	return strings.TrimSuffix(r.Low, " %") + " to " + r.High
}

// shares reports that a rule of a gap takes shares of a size.
func shares(r *family.Rule) bool { return r.Low != "" || r.High != "" || r.Out != "" }

// goesBy is the size that the rule of a gap goes by: the one it names, else of mating parts their own.
func (s Spec) goesBy(r *family.Rule, entries []*unit.Reading) (m float64, ok bool) {
	if r.Of != "" {
		size, ok := s.Sizes.At(r.Of)
		return size.SI, ok
	}
	own := readings(entries, "h")
	if s.Method != family.MethodFit || len(own) == 0 {
		return 0, false
	}
	return median(own), true
}

// stepAt is the line of a table by size.
func stepAt(steps []family.Step, size float64) float64 {
	at := slices.IndexFunc(steps, func(l family.Step) bool { return l.To == "" || size <= lengthOf(l.To)*(1+1e-9) })
	return lengthOf(steps[at].Most)
}

// At gives a size by part.feature.
func (of Sizes) At(path string) (s Size, ok bool) {
	if of == nil {
		return s, false
	}
	return of(path)
}

func lengthOf(text string) float64 { return quantity.Loaded(text, quantity.Length).SI }
func shareOf(text string) float64  { return quantity.Loaded(text, quantity.Number).SI }
