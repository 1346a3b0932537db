package family

import (
	"fmt"
	"strings"

	"corvek/core/quantity"
)

// Variant tells how one variant is known and what it decides.
type Variant struct {
	Code       string   `yaml:"code"`
	Name       string   `yaml:"name"`
	Suffix     []string `yaml:"suffix"`      // the model number ends so
	SerialFrom int      `yaml:"serial_from"` // first serial of the break
	SerialTo   int      `yaml:"serial_to"`
	Mark       string   `yaml:"mark"` // code of an identity mark that only this variant bears
	Measured   *Span    `yaml:"measured"`
	Kit        string   `yaml:"kit"`
	Stack      string   `yaml:"stack"`
	Spring     string   `yaml:"spring"`
	Note       string   `yaml:"note"`
	Change     *Change  `yaml:"change"` // what is another way on a unit of it
	Own        bool     `yaml:"-"`      // the shop's own
	line       int
}

// Span is a measured figure that fits a variant.
type Span struct {
	Feature string `yaml:"feature"` // part.feature
	Low     string `yaml:"low"`
	High    string `yaml:"high"`
}

// IdentityMark is something on the outside that tells what a unit is.
type IdentityMark struct {
	Code   string `yaml:"code"`
	What   string `yaml:"what"`
	Strong bool   `yaml:"strong"` // cast or stamped; a colour or a label is weak
}

// Identity is what is known of one unit.
type Identity struct {
	Model, Serial string
	Marks         map[string]bool    // by code; absent means nobody looked
	Measured      map[string]float64 // part.feature, m
}

// Match is a variant with what speaks for and against it.
type Match struct {
	Variant *Variant
	For     []string
	Weak    []string // for it, but weak evidence
	Against []string
}

// Resolution is what the identity says of the variant.
type Resolution struct {
	Matches []Match
	Chosen  *Match // nil while it is open
	Why     string // the rule that chose, or what keeps it open
	Doubts  []string
}

// digits are the figures of a serial number, in order.
func digits(s string) (text string, value int) {
	for _, r := range s {
		if r >= '0' && r <= '9' {
			text += string(r)
			if value < 1<<40 {
				value = value*10 + int(r-'0')
			}
		}
	}
	return text, value
}

// Resolve finds the variant. One that something strong speaks for and nothing
// against is chosen; two such, or none, leave it open.
func (f *Family) Resolve(id Identity) Resolution {
	var r Resolution
	if len(f.VariantRules) == 0 {
		return r
	}
	text, serial := digits(id.Serial)
	known := text != ""
	if known && f.SerialDigits > 0 && len(text) != f.SerialDigits {
		r.Doubts = append(r.Doubts, fmt.Sprintf("the serial has %d figures where this family's have %d: it is no "+
			"number to decide by", len(text), f.SerialDigits))
		known = false
	}
	strong := []*Match{}
	for i := range f.VariantRules {
		m := f.match(&f.VariantRules[i], id, known, serial)
		r.Matches = append(r.Matches, m)
	}
	for i := range r.Matches {
		if m := &r.Matches[i]; len(m.For) > 0 && len(m.Against) == 0 {
			strong = append(strong, m)
		}
	}
	switch len(strong) {
	case 1:
		r.Chosen, r.Why = strong[0], strings.Join(strong[0].For, "; ")
	case 0:
		r.Why = "nothing strong tells the variant yet"
		for _, m := range r.Matches {
			if len(m.For) > 0 && len(m.Against) > 0 {
				r.Why = fmt.Sprintf("%s: %s, but %s; perhaps a part of another variant was fitted", m.Variant.Name,
					strings.Join(m.For, "; "), strings.Join(m.Against, "; "))
			}
		}
	default:
		r.Why = fmt.Sprintf("%s and %s both fit; find a mark that tells them apart", strong[0].Variant.Name,
			strong[1].Variant.Name)
	}
	return r
}

func (f *Family) match(v *Variant, id Identity, serialKnown bool, serial int) Match {
	m := Match{Variant: v}
	model := strings.ToUpper(strings.TrimSpace(id.Model))
	if len(v.Suffix) > 0 && model != "" {
		hit := ""
		for _, s := range v.Suffix {
			if strings.HasSuffix(model, strings.ToUpper(s)) {
				hit = s
			}
		}
		if hit != "" {
			m.For = append(m.For, "model number ends "+hit)
		} else {
			m.Against = append(m.Against, "model number does not end "+strings.Join(v.Suffix, " or "))
		}
	}
	if (v.SerialFrom > 0 || v.SerialTo > 0) && serialKnown {
		if serial >= v.SerialFrom && (v.SerialTo == 0 || serial <= v.SerialTo) {
			m.For = append(m.For, "serial "+v.serials())
		} else {
			m.Against = append(m.Against, "serial is not "+v.serials())
		}
	}
	if v.Mark != "" {
		seen, looked := id.Marks[v.Mark]
		mark, _ := f.markByCode(v.Mark)
		switch {
		case looked && seen && mark.Strong:
			m.For = append(m.For, mark.What)
		case looked && seen:
			m.Weak = append(m.Weak, mark.What)
		case looked && mark.Strong:
			m.Against = append(m.Against, "no "+mark.What)
		}
	}
	if v.Measured != nil {
		if got, ok := id.Measured[v.Measured.Feature]; ok {
			low, high := lengthOf(v.Measured.Low), lengthOf(v.Measured.High)
			words := fmt.Sprintf("%s measured %.4g mm", strings.ReplaceAll(v.Measured.Feature, "_", " "), got*1e3)
			if got >= low && got <= high {
				// A length fits a variant; it never proves a setting.
				m.Weak = append(m.Weak, words+", as in this variant")
			} else {
				m.Weak = append(m.Weak, words+", unlike this variant: worn, or another variant's part")
			}
		}
	}
	return m
}

func (v *Variant) serials() string {
	switch {
	case v.SerialTo == 0:
		return fmt.Sprintf("from %d on", v.SerialFrom)
	case v.SerialFrom == 0:
		return fmt.Sprintf("up to %d", v.SerialTo)
	}
	return fmt.Sprintf("%d to %d", v.SerialFrom, v.SerialTo)
}

func lengthOf(text string) float64 { return quantity.Loaded(text, quantity.Length).SI }

func (f *Family) markByCode(code string) (IdentityMark, bool) {
	for _, m := range f.Marks {
		if m.Code == code {
			return m, true
		}
	}
	return IdentityMark{}, false
}
