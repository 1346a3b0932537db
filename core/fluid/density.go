package fluid

import "strings"

// densities are usual ones at 15 °C in kg/m3, by what a fluid's name holds; the
// middle of the ranges that textbooks and ISO 12922 and ISO 15380 give for its kind.
// The first that fits counts.
var densities = []struct {
	words []string
	value float64
}{
	{[]string{"glycol", "hfc"}, 1080},
	{[]string{"phosphate", "hfd-r", "hfdr"}, 1140},
	{[]string{"brake fluid", "dot 3", "dot 4", "dot 5.1"}, 1060},
	{[]string{"hfa", "95/5", "high water"}, 1000},
	{[]string{"invert", "hfb"}, 930},
	{[]string{"ester", "hees", "hfd-u", "vegetable", "rape", "hetg"}, 920},
	{[]string{"pao", "hepr", "polyalpha"}, 835},
	{[]string{"water"}, 998},
}

// DensityOf is the usual density in kg/m3 of a fluid by its name, that of mineral
// oil where the name says nothing else.
func DensityOf(name string) float64 {
	low := strings.ToLower(name)
	for _, d := range densities {
		for _, w := range d.words {
			if strings.Contains(low, w) {
				return d.value
			}
		}
	}
	return UsualDensity
}
