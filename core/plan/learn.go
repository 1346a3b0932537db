package plan

import "math"

// Weight is how many cases of a shop's own weigh as much as guidance: with fewer, guidance has the greater say.
const Weight = 12

// Learn draws guidance towards what a shop has seen: ratios of hours taken to hours planned, and of so many first
// tests those that failed. Of each figure the shop's own has the weight of its cases and guidance that of Weight
// cases (shrinkage to a prior mean; Gelman and others, Bayesian Data Analysis, 2.6 and 3.3).
func Learn(guide Spread, ratios []float64, tests, failed int) Spread {
	out := guide
	n, sum := 0.0, 0.0
	for _, r := range ratios {
		if r > 0 {
			n, sum = n+1, sum+math.Log(r)
		}
	}
	if n > 0 {
		own := sum / n
		out.Bias = (Weight*guide.Bias + n*own) / (Weight + n)
		square := 0.0
		for _, r := range ratios {
			if r > 0 {
				square += (math.Log(r) - own) * (math.Log(r) - own)
			}
		}
		apart := Weight * n / (Weight + n) * (own - guide.Bias) * (own - guide.Bias)
		out.Sigma = math.Sqrt((Weight*guide.Sigma*guide.Sigma + square + apart) / (Weight + n))
	}
	out.Again = (Weight*guide.Again + float64(failed)) / float64(Weight+tests)
	return out
}
