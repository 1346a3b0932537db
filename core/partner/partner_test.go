package partner_test

import (
	"math"
	"testing"

	"corvek/core/partner"

	"github.com/stretchr/testify/assert"
)

// Half hold the usual days and nine of ten the most: the logarithm of the ratio is 1.2816 standard deviations, which
// is the 90th percentile of the normal distribution in any table of it.
func TestSpreadOfDays(t *testing.T) {
	p := partner.Partner{Days: 5, Most: 10}
	assert.InDelta(t, 0.5409, p.Sigma(), 1e-4, "ln 2 / 1.2816")
	assert.InDelta(t, 0.90, 0.5*math.Erfc(-(math.Log(10)-math.Log(5))/p.Sigma()/math.Sqrt2), 1e-4)
	assert.Zero(t, (&partner.Partner{Days: 5}).Sigma(), "nobody said")
}

func TestWhoIsMeant(t *testing.T) {
	all := partner.Partners{
		{Name: "Brenn & Holt", Days: 6}, {Name: "Harl Plating", Works: "hard chrome, nickel", Days: 12},
		{Name: "Quick Chrome", Works: "hard chrome", Days: 5},
	}
	assert.Equal(t, "Brenn & Holt", all.Supplier(" brenn & holt ").Name)
	assert.Nil(t, all.Supplier("Harl Plating"), "he supplies nothing")
	assert.Nil(t, all.Supplier(""))
	assert.Equal(t, "Quick Chrome", all.Does("Strip, hard chrome and grind").Name, "the quickest of two")
	assert.Equal(t, "Harl Plating", all.Does("Nickel").Name)
	assert.Nil(t, all.Does("Lap flat"))
}

func TestWhatIsWrongWithAPartner(t *testing.T) {
	for want, p := range map[string]partner.Partner{
		"name": {Days: 3}, "days": {Name: "A"}, "most": {Name: "A", Days: 5, Most: 4},
		"": {Name: "A", Days: 5, Most: 9},
	} {
		fault := p.Check()
		if want == "" {
			assert.Nil(t, fault)
			continue
		}
		assert.Equal(t, want, fault.Field)
	}
	p := partner.Partner{Name: "A", Days: math.NaN()}
	assert.Equal(t, "days", p.Check().Field)
}
