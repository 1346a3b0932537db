package explain

import "math"

// hypothesis is one root cause, or two that met. b is −1 for one.
type hypothesis struct{ a, b int }

// counted is the weight of the prior against the shop's own closed jobs: as
// many jobs as it takes for the two to count alike.
const counted = 20.0

// weights are the prior probabilities of the causes, the shop's own closed jobs
// counted in.
func (k *Knowledge) weights() []float64 {
	w := make([]float64, len(k.Causes))
	sum, jobs := 0.0, 0.0
	for i := range k.Causes {
		w[i] = k.Causes[i].Prior.P()
		sum += w[i]
		jobs += float64(k.counts[k.Causes[i].Code])
	}
	for i := range w {
		w[i] = (counted*w[i]/sum + float64(k.counts[k.Causes[i].Code])) / (counted + jobs)
	}
	return w
}

// hypotheses enumerates every single cause and every pair with the logarithm of
// its prior.
func (k *Knowledge) hypotheses() (hs []hypothesis, logs []float64) {
	w := k.weights()
	n := len(w)
	share := k.Together
	if n < 2 {
		share = 0
	}
	for i := range w {
		hs = append(hs, hypothesis{i, -1})
		logs = append(logs, math.Log((1-share)*w[i]))
	}
	if share == 0 {
		return hs, logs
	}
	pairs := 0.0
	for i := range w {
		for j := i + 1; j < n; j++ {
			pairs += w[i] * w[j]
		}
	}
	for i := range w {
		for j := i + 1; j < n; j++ {
			hs = append(hs, hypothesis{i, j})
			logs = append(logs, math.Log(share*w[i]*w[j]/pairs))
		}
	}
	return hs, logs
}

// soft is the likelihood of a finding of some strength where the mark is there
// with probability p.
func soft(p, strength float64) float64 { return strength*p + (1-strength)*(1-p) }
