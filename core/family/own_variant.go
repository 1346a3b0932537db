package family

import (
	"bytes"
	"fmt"
	"slices"
	"strings"

	"go.yaml.in/yaml/v3"
)

// WithVariant gives the family with a variant of the shop's own beside its others, or
// in place of the one of the same code, and the variant's code. The text is one entry of
// variant_rules; errors begin with the file.
func (f *Family) WithVariant(file string, text []byte) (with *Family, code string, err error) {
	if _, err := bounded(text); err != nil {
		return nil, "", fmt.Errorf("%s%w", file, err)
	}
	v := Variant{}
	dec := yaml.NewDecoder(bytes.NewReader(text))
	if err := dec.Decode(&v); err != nil {
		return nil, "", fmt.Errorf("%s: %s", file, strings.TrimPrefix(err.Error(), "yaml: "))
	}
	v.Own = true
	if f.written == nil {
		return nil, "", fmt.Errorf("%s: the family %s cannot have variants of its own", file, f.Code)
	}
	raw := *f.written
	raw.VariantRules = slices.DeleteFunc(slices.Clone(raw.VariantRules), func(x Variant) bool {
		return x.Code == v.Code
	})
	raw.VariantRules = append(raw.VariantRules, v)
	whole, err := raw.whole(&yaml.Node{})
	if err != nil {
		return nil, "", fmt.Errorf("%s: %w", file, err)
	}
	return whole, v.Code, nil
}
