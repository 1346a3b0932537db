package explain

import "math"

// rates are how often one mark is there under each cause, looked up once for all the
// hypotheses that are weighed with it. Most causes say nothing of a mark, so that only
// those that do are gone through.
type rates struct {
	speak      []int     // the causes that speak of the mark
	p          []float64 // how often it is there under each of them
	at         []int     // by cause: its place in speak, −1 where it says nothing
	background float64
}

func (k *Knowledge) rates(e *Evidence) rates {
	r := rates{at: make([]int, len(k.Causes)), background: e.Background.P()}
	for i := range k.Causes {
		r.at[i] = -1
		if w, speaks := k.Causes[i].Points[e.Code]; speaks {
			r.at[i] = len(r.speak)
			r.speak, r.p = append(r.speak, i), append(r.p, w.P())
		}
	}
	return r
}

// of is how often the mark is there under a hypothesis. Of two causes the one that
// speaks of it decides; where both do, either can bring it (noisy or).
func (r *rates) of(h hypothesis) float64 {
	a, b := r.at[h.a], -1
	if h.b >= 0 {
		b = r.at[h.b]
	}
	switch {
	case a >= 0 && b >= 0:
		return noisyOr(r.p[a], r.p[b])
	case a >= 0:
		return r.p[a]
	case b >= 0:
		return r.p[b]
	}
	return r.background
}

func noisyOr(p, q float64) float64 { return 1 - (1-p)*(1-q) }

// rate is how often a mark is there under one hypothesis.
func (k *Knowledge) rate(h hypothesis, e *Evidence) float64 {
	r := k.rates(e)
	return r.of(h)
}

// values are what a function of the rate comes to under each hypothesis, worked out
// once for each rate there is.
type values struct {
	r     *rates
	none  float64
	alone []float64   // by place in speak
	both  [][]float64 // by two places
}

func (r *rates) values(f func(rate float64) float64) values {
	v := values{r: r, none: f(r.background), alone: make([]float64, len(r.speak)),
		both: make([][]float64, len(r.speak))}
	for i, p := range r.p {
		v.alone[i] = f(p)
		v.both[i] = make([]float64, len(r.speak))
		for j, q := range r.p[:i] {
			v.both[i][j] = f(noisyOr(p, q))
			v.both[j][i] = v.both[i][j]
		}
	}
	return v
}

func (v *values) of(h hypothesis) float64 {
	a, b := v.r.at[h.a], -1
	if h.b >= 0 {
		b = v.r.at[h.b]
	}
	switch {
	case a >= 0 && b >= 0:
		return v.both[a][b]
	case a >= 0:
		return v.alone[a]
	case b >= 0:
		return v.alone[b]
	}
	return v.none
}

// spread is a posterior by cause and by pair of causes.
type spread struct {
	n   int
	one []float64 // alone
	two []float64 // n × n, both ways alike
	sum []float64 // alone or in a pair
}

func spreadOf(hs []hypothesis, p []float64, n int) spread {
	s := spread{n: n, one: make([]float64, n), two: make([]float64, n*n), sum: make([]float64, n)}
	for i, h := range hs {
		s.sum[h.a] += p[i]
		if h.b < 0 {
			s.one[h.a] += p[i]
			continue
		}
		s.sum[h.b] += p[i]
		s.two[h.a*n+h.b], s.two[h.b*n+h.a] = p[i], p[i]
	}
	return s
}

// mean is the mean of a value over the hypotheses. It goes through those only whose
// causes speak of the mark.
func (s *spread) mean(v *values) float64 {
	left, mean := 1.0, 0.0
	for i, a := range v.r.speak {
		only := s.sum[a]
		for j, b := range v.r.speak {
			if i == j {
				continue
			}
			pair := s.two[a*s.n+b]
			only -= pair
			if i < j {
				left -= pair
				mean += pair * v.both[i][j]
			}
		}
		left -= only
		mean += only * v.alone[i]
	}
	return mean + math.Max(0, left)*v.none
}

// times is each cause's share when every hypothesis counts by a value of its own, not
// yet divided by their sum, which is given too.
func (s *spread) times(v *values) (by []float64, sum float64) {
	by = make([]float64, s.n)
	for c := range by {
		place := v.r.at[c]
		if place < 0 {
			by[c] = s.sum[c] * v.none
			for j, b := range v.r.speak {
				by[c] += s.two[c*s.n+b] * (v.alone[j] - v.none)
			}
			continue
		}
		// All of its hypotheses speak of the mark: they are added one by one.
		by[c] = s.one[c] * v.alone[place]
		for b := range s.n {
			if other := v.r.at[b]; b != c && other >= 0 {
				by[c] += s.two[c*s.n+b] * v.both[place][other]
			} else if b != c {
				by[c] += s.two[c*s.n+b] * v.alone[place]
			}
		}
	}
	return by, s.mean(v)
}
