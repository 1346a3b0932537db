package family

import (
	"slices"

	"corvek/core/quantity"
	"corvek/core/tolerance"

	"go.yaml.in/yaml/v3"
)

// Rule is a limit of a feature that follows from this unit's own sizes, so that no shipped figure stands in
// for them. Its figures are guidance unless Basis names a standard. Shares are of the feature's own size as
// new, or of the size named by Of; the lengths in it are differences, never sizes.
type Rule struct {
	Of     string  `yaml:"of"`      // the size it goes by, part.feature; "" the feature's own as new
	Less   string  `yaml:"less"`    // taken off that size before shares are taken: the core of a lined plate
	Low    string  `yaml:"low"`     // share of that size from which a new fit begins: "0.08 %"
	High   string  `yaml:"high"`    // and at which it ends
	Out    string  `yaml:"out"`     // share from which it is out; of a size, how much of it may be worn away
	Times  float64 `yaml:"times"`   // or so many times the new fit; 0 where size does not say it is out
	Off    string  `yaml:"off"`     // length that may be worn away
	Least  string  `yaml:"least"`   // length from which a gap is right: a film
	Most   string  `yaml:"most"`    // and up to which
	Steps  []Step  `yaml:"steps"`   // lengths up to which it is right, by the size named by Of
	Grade  string  `yaml:"grade"`   // or the width of a grade at that size: IT8
	Round  string  `yaml:"round"`   // grade within which it must be round: IT6
	Fit    string  `yaml:"fit"`     // tolerance of the size as new after ISO 286: H8, f7
	OutFit string  `yaml:"out_fit"` // tolerance beyond which it is out: H10
	Spread string  `yaml:"spread"`  // most by which sisters may differ
	Basis  string  `yaml:"basis"`   // the standard or the practice that it stands on
}

// Step is a line of a table by size: up to that size the gap may be so large. The last has no To.
type Step struct {
	To   string `yaml:"to"`
	Most string `yaml:"most"`
}

// UnmarshalYAML refuses keys that mean nothing.
func (r *Rule) UnmarshalYAML(n *yaml.Node) error {
	type plain Rule
	if err := n.Decode((*plain)(r)); err != nil {
		return err
	}
	return unknownKeys(n, "of less low high out times off least most steps grade round fit out_fit spread basis")
}

// Sized reports that the rule speaks of a size and its wear, and not of a gap.
func (r *Rule) Sized() bool {
	return r != nil && r.Of == "" && (r.Out != "" || r.Off != "" || r.OutFit != "")
}

// rule looks a feature's rules through.
func (c *checker) rule(where string, ft *Feature) {
	c.oneRule(where, ft, ft.Rule)
	c.oneRule(where+" mate", ft, ft.Mate)
	if ft.Mate != nil && ft.Mate.Of == "" {
		c.fail(ft.line, "%s: what it is held against is named by of", where)
	}
	if ft.Rule.Sized() && ft.Wears == "" {
		c.fail(ft.line, "%s: a size that wears wears as a bore or as a shaft", where)
	}
}

func (c *checker) oneRule(where string, ft *Feature, r *Rule) {
	if r == nil {
		return
	}
	for name, text := range map[string]string{"low": r.Low, "high": r.High, "out": r.Out} {
		c.quantity(ft.line, where+" rule "+name, text, quantity.Number)
	}
	for name, text := range map[string]string{"spread": r.Spread, "off": r.Off, "least": r.Least, "most": r.Most} {
		c.quantity(ft.line, where+" rule "+name, text, quantity.Length)
	}
	for i, s := range r.Steps {
		c.quantity(ft.line, where+" step", s.To, quantity.Length)
		c.quantity(ft.line, where+" step", s.Most, quantity.Length)
		if last := i == len(r.Steps)-1; s.Most == "" || last != (s.To == "") || r.Of == "" {
			c.fail(ft.line, "%s: steps go by a size, each up to one and the last without", where)
		}
	}
	for _, fit := range []string{r.Fit, r.OutFit, r.Round, r.Grade} {
		if _, known := tolerance.Parse(fit); fit != "" && !known {
			c.fail(ft.line, "%s: %q is no tolerance of ISO 286 for a part that moves", where, fit)
		}
	}
	if fit, out := r.Fits(); r.OutFit != "" && (fit.Zone != out.Zone || fit.Grade >= out.Grade) {
		c.fail(ft.line, "%s: %s does not lie within %s", where, r.Fit, r.OutFit)
	}
	c.goesBy(ft.line, where, r.Of, r.Less)
	if r.Times != 0 && (r.Times < 1 || r.Times > 10) || r.Basis == "" {
		c.fail(ft.line, "%s: a rule says on what it stands, and at how many times a new fit it is out, 1 to 10", where)
	}
}

// copied shares nothing with r.
func (r *Rule) copied() *Rule {
	if r == nil {
		return nil
	}
	own := *r
	own.Steps = slices.Clone(r.Steps)
	return &own
}

// within begins the codes of the parts of an assembly with its prefix.
func (r *Rule) within(prefix string, has func(part string) bool) {
	if r == nil {
		return
	}
	for _, path := range []*string{&r.Of, &r.Less} {
		if part, _ := CutFeature(*path); has(part) {
			*path = prefix + *path
		}
	}
}

// Fits are the tolerances of the size as new, and beyond which it is out.
func (r *Rule) Fits() (fit, out tolerance.Class) {
	fit, _ = tolerance.Parse(r.Fit)
	out, _ = tolerance.Parse(r.OutFit)
	return fit, out
}

// goesBy looks through the features that a rule or a leak goes by.
func (c *checker) goesBy(line int, where string, paths ...string) {
	for _, path := range paths {
		if path == "" {
			continue
		}
		part, feature := CutFeature(path)
		p, known := c.f.PartByCode(part)
		if known {
			_, known = p.FeatureByCode(feature)
		}
		if !known {
			c.fail(line, "%s: it goes by %s, which there is not", where, path)
		}
	}
}
