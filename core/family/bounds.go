package family

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"go.yaml.in/yaml/v3"
)

// What one family file may hold. The largest shipped one has 15 kB and some 1,500
// values; a file beyond these bounds is a slip or an attack.
const (
	MostText = 256 << 10 // bytes

	mostValues = 20_000
	mostDeep   = 16
	mostScalar = 2_000 // bytes of one text
	mostKeys   = 60    // of one mapping

	mostParts    = 400
	mostFeatures = 40 // of a part
	mostRows     = 24 // of readings, and columns
	mostListed   = 200
)

// bounded looks through a file before anything is made of it. Anchors are refused:
// a short text can stand for a very long one through them. Its errors begin with
// the line, as ":7: ...".
func bounded(text []byte) (*yaml.Node, error) {
	doc := &yaml.Node{}
	if len(text) > MostText {
		return doc, fmt.Errorf(": is longer than %d kB", MostText>>10)
	}
	if err := yaml.Unmarshal(text, doc); err != nil {
		return &yaml.Node{}, nil // told by the decoder, with its line
	}
	left := mostValues
	return doc, within(doc, 0, &left)
}

func within(n *yaml.Node, deep int, left *int) error {
	*left--
	switch {
	case n.Kind == yaml.AliasNode || n.Anchor != "":
		return fmt.Errorf(":%d: anchors and aliases are not used in family files", n.Line)
	case *left < 0:
		return fmt.Errorf(":%d: the file holds more than %d values", n.Line, mostValues)
	case deep > mostDeep:
		return fmt.Errorf(":%d: nested more than %d deep", n.Line, mostDeep)
	case len(n.Value) > mostScalar:
		return fmt.Errorf(":%d: a text is longer than %d letters", n.Line, mostScalar)
	case n.Kind == yaml.ScalarNode && n.ShortTag() == "!!float" && !ordinary(n.Value):
		return fmt.Errorf(":%d: %s is no ordinary number", n.Line, n.Value)
	case n.Kind == yaml.MappingNode && len(n.Content) > 2*mostKeys:
		return fmt.Errorf(":%d: more than %d keys at one place", n.Line, mostKeys)
	}
	for _, child := range n.Content {
		if err := within(child, deep+1, left); err != nil {
			return err
		}
	}
	return nil
}

// ordinary reports that a number can stand on a drawing: neither infinite nor beyond all measure.
func ordinary(text string) bool {
	v, err := strconv.ParseFloat(strings.ReplaceAll(text, "_", ""), 64)
	return err == nil && math.Abs(v) <= 1e15 // an infinite one is beyond it, and .inf cannot be read
}

// counts holds the lists of a family to what a unit can have.
func (c *checker) counts() {
	f := c.f
	for _, list := range []struct {
		key  string
		n    int
		most int
	}{
		{"parts", len(f.Parts), mostParts}, {"axes", len(f.Axes), mostListed}, {"leaks", len(f.Leaks), mostListed},
		{"symptoms", len(f.Symptoms), mostListed}, {"cautions", len(f.Cautions), mostListed},
		{"tests", len(f.Tests), mostListed}, {"variant_rules", len(f.VariantRules), mostListed},
		{"gauge", len(f.Gauge), mostListed}, {"marks", len(f.Marks), mostListed},
		{"start_up", len(f.StartUp), mostListed},
	} {
		if list.n > list.most {
			c.fail(c.at[list.key], "%s: %d are more than %d", list.key, list.n, list.most)
		}
	}
	for i := range f.Parts {
		p := &f.Parts[i]
		if len(p.Features) > mostFeatures || len(p.Facings) > mostFeatures || len(p.Checks) > mostListed {
			c.fail(p.line, "part %s: more features, facings or checks than a part has", p.Code)
		}
		for k := range p.Features {
			if len(p.Features[k].Leaves) > mostListed {
				c.fail(p.Features[k].line, "%s.%s: more than %d leaves", p.Code, p.Features[k].Code, mostListed)
			}
		}
	}
}
