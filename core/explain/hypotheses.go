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

// rates are how often one mark is there under each cause, looked up once for all
// the hypotheses that are weighed with it.
type rates struct {
	speaks     []bool // whether the cause speaks of the mark
	p          []float64
	background float64
}

func (k *Knowledge) rates(e *Evidence) rates {
	r := rates{make([]bool, len(k.Causes)), make([]float64, len(k.Causes)), e.Background.P()}
	for i := range k.Causes {
		if w, speaks := k.Causes[i].Points[e.Code]; speaks {
			r.speaks[i], r.p[i] = true, w.P()
		}
	}
	return r
}

// of is how often the mark is there under a hypothesis. Of two causes the one that
// speaks of it decides; where both do, either can bring it (noisy or).
func (r *rates) of(h hypothesis) float64 {
	a := r.speaks[h.a]
	b := h.b >= 0 && r.speaks[h.b]
	switch {
	case a && b:
		return 1 - (1-r.p[h.a])*(1-r.p[h.b])
	case a:
		return r.p[h.a]
	case b:
		return r.p[h.b]
	}
	return r.background
}

// rate is how often a mark is there under one hypothesis.
func (k *Knowledge) rate(h hypothesis, e *Evidence) float64 {
	r := k.rates(e)
	return r.of(h)
}

// soft is the likelihood of a finding of some strength where the mark is there
// with probability p.
func soft(p, strength float64) float64 { return strength*p + (1-strength)*(1-p) }

// marginals adds up each cause over the hypotheses it is part of.
func marginals(hs []hypothesis, p []float64, n int) []float64 {
	out := make([]float64, n)
	for i, h := range hs {
		out[h.a] += p[i]
		if h.b >= 0 {
			out[h.b] += p[i]
		}
	}
	return out
}
