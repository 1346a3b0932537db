package family

import (
	"slices"

	"corvek/core/quantity"
	"corvek/core/tolerance"

	"go.yaml.in/yaml/v3"
)

// Rule is a limit of a feature that follows from a size as new, so that no shipped figure stands
// in for this unit's own. Its figures are guidance unless Basis names a standard.
type Rule struct {
	Of     string  `yaml:"of"`      // the size it goes by, part.feature; "" the feature's own as new
	Low    string  `yaml:"low"`     // share of that size from which a new fit begins: "0.08 %"
	High   string  `yaml:"high"`    // and at which it ends
	Out    string  `yaml:"out"`     // share from which it is out
	Times  float64 `yaml:"times"`   // or so many times the new fit
	Fit    string  `yaml:"fit"`     // tolerance of the size as new after ISO 286: H8, f7
	OutFit string  `yaml:"out_fit"` // tolerance beyond which it is out: H10
	Spread string  `yaml:"spread"`  // most by which sisters may differ
	Basis  string  `yaml:"basis"`   // the standard or the practice that it stands on
}

// UnmarshalYAML refuses keys that mean nothing.
func (r *Rule) UnmarshalYAML(n *yaml.Node) error {
	type plain Rule
	if err := n.Decode((*plain)(r)); err != nil {
		return err
	}
	return unknownKeys(n, "of low high out times fit out_fit spread basis")
}

// rule looks a feature's rule through.
func (c *checker) rule(where string, ft *Feature) {
	r := ft.Rule
	if r == nil {
		return
	}
	for name, text := range map[string]string{"low": r.Low, "high": r.High, "out": r.Out} {
		c.quantity(ft.line, where+" rule "+name, text, quantity.Number)
	}
	c.quantity(ft.line, where+" rule spread", r.Spread, quantity.Length)
	for _, fit := range []string{r.Fit, r.OutFit} {
		if _, known := tolerance.Parse(fit); fit != "" && !known {
			c.fail(ft.line, "%s: %q is no tolerance of ISO 286 for a part that moves", where, fit)
		}
	}
	switch part, feature := CutFeature(r.Of); {
	case r.Of == "":
	default:
		if p, known := c.f.PartByCode(part); !known {
			c.fail(ft.line, "%s: its rule goes by %s, which there is not", where, r.Of)
		} else if _, known := p.FeatureByCode(feature); !known {
			c.fail(ft.line, "%s: its rule goes by %s, which there is not", where, r.Of)
		}
	}
	if r.Times != 0 && (r.Times < 1 || r.Times > 10) || r.Basis == "" {
		c.fail(ft.line, "%s: a rule says on what it stands, and at how many times a new fit it is out, 1 to 10", where)
	}
}

// Relations say what stands in a part's way, by the codes of other parts: it can come off only when
// what it is behind, under or inside of is off, and what it closes can be taken out only after it.
type Relations struct {
	Inside []string `yaml:"inside"`
	Behind []string `yaml:"behind"`
	Under  []string `yaml:"under"`
	Closes []string `yaml:"closes"`
}

func (r *Relations) each(f func(*[]string)) {
	for _, list := range []*[]string{&r.Inside, &r.Behind, &r.Under, &r.Closes} {
		f(list)
	}
}

// copied shares nothing with r, and begins the codes with a prefix.
func (r Relations) copied(prefix string) Relations {
	r.each(func(list *[]string) {
		*list = slices.Clone(*list)
		for i := range *list {
			(*list)[i] = prefix + (*list)[i]
		}
	})
	return r
}

// relations looks through what stands in whose way: parts that there are, and no ring of them.
func (c *checker) relations() {
	way := map[string][]string{} // what must be off before a part
	for i := range c.f.Parts {
		p := &c.f.Parts[i]
		p.Relations.each(func(list *[]string) {
			for _, code := range *list {
				if _, known := c.f.PartByCode(code); !known || code == p.Code {
					c.fail(p.line, "part %s: %q does not stand in its way", p.Code, code)
				}
			}
		})
		way[p.Code] = append(way[p.Code], slices.Concat(p.Inside, p.Behind, p.Under)...)
		for _, code := range p.Closes {
			way[code] = append(way[code], p.Code)
		}
	}
	const open, done = 1, 2
	at := map[string]int{}
	var walk func(code string) bool
	walk = func(code string) bool {
		if at[code] != 0 {
			return at[code] == done
		}
		at[code] = open
		for _, before := range way[code] {
			if !walk(before) {
				return false
			}
		}
		at[code] = done
		return true
	}
	for i := range c.f.Parts {
		if p := &c.f.Parts[i]; !walk(p.Code) {
			c.fail(p.line, "part %s: it stands in its own way through others", p.Code)
		}
	}
}
