package family

import (
	"slices"

	"corvek/core/fluid"
)

// Run is what a test of the family is run on.
type Run struct {
	Medium string `yaml:"medium"` // one of Mediums, "" for oil
	Clean  string `yaml:"clean"`  // ISO 4406: how clean it has to be known to be, "" where the unit minds no dirt
}

// What units are run on.
const (
	MediumOil    = "oil"
	MediumGas    = "gas"
	MediumGrease = "grease"
	MediumBrake  = "brake fluid"
)

// Mediums are all of them.
var Mediums = []string{MediumOil, MediumGas, MediumGrease, MediumBrake}

// Of is the medium, oil where nothing else is said.
func (r Run) Of() string {
	if r.Medium == "" {
		return MediumOil
	}
	return r.Medium
}

func (c *checker) run() {
	r := c.f.Run
	if r.Medium != "" && !slices.Contains(Mediums, r.Medium) {
		c.fail(c.at["run_on"], "medium is oil, gas, grease or brake fluid, not %q", r.Medium)
	}
	if _, ok := fluid.ParseCleanliness(r.Clean); !ok && r.Clean != "" {
		c.fail(c.at["run_on"], "clean is a code of ISO 4406 such as 18/16/13, not %q", r.Clean)
	}
}
