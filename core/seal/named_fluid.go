package seal

import "strings"

// named are the fluids of the table by what a fluid's name on a job holds. The first that
// fits counts, so that what is special stands before what is usual.
var named = []struct {
	fluid string
	words []string
}{
	{"silicone brake fluid", []string{"silicone brake", "dot 5 ", "dot5 "}},
	{"glycol brake fluid", []string{"brake fluid", "dot 3", "dot 4", "dot 5.1"}},
	{"water-glycol", []string{"water-glycol", "water glycol", "hfc"}},
	{"phosphate ester", []string{"phosphate", "hfd-r", "hfdr"}},
	{"vegetable ester", []string{"vegetable", "rape", "hetg"}},
	{"synthetic ester", []string{"ester", "hees", "hfd-u", "hfdu"}},
	{"water-based coolant", []string{"coolant", "hfa", "95/5", "high water"}},
	{"zinc-free oil", []string{"zinc-free", "zinc free", "ashless"}},
	{"gear oil", []string{"gear oil"}},
	{"rubber grease", []string{"rubber grease"}},
	{"lubricating grease", []string{"grease"}},
	{"kerosene wash", []string{"kerosene", "paraffin wash"}},
	{"dry nitrogen", []string{"nitrogen"}},
	{"mineral oil", []string{"mineral", "hydraulic oil", "engine oil", "hlp", "hvlp", " vg ", "atf", "oil"}},
	{"air", []string{"air"}},
}

// NamedFluid finds the fluid of the table that a fluid's name on a job means; ok is false
// where it means none of them.
func NamedFluid(name string) (fluid string, ok bool) {
	low := " " + strings.ToLower(strings.Join(strings.Fields(name), " ")) + " "
	if strings.TrimSpace(low) == "" {
		return "", false
	}
	for _, n := range named {
		for _, w := range n.words {
			if strings.Contains(low, w) {
				return n.fluid, true
			}
		}
	}
	return "", false
}
