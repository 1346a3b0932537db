package trace

import "math"

// How a log is told to be a copy of a run: so many samples in a row are alike, to what a CSV file
// rounds them by.
const (
	leastAlike = 20
	mostAlike  = 200
	rounding   = 2e-3 // of the largest figure of the channel
)

// PartOf reports that the samples are a stretch of another run: figure for figure the same in every
// channel that both have, over at least twenty samples. What really ran twice is never that alike.
func (t *Trace) PartOf(of *Trace) bool {
	n := min(len(t.Samples), mostAlike)
	if n < leastAlike {
		return false
	}
	var pairs [][2]int
	moves := false
	for i, code := range t.Channels {
		if j := of.Channel(code); j >= 0 {
			pairs = append(pairs, [2]int{i, j})
			moves = moves || t.moves(i, n)
		}
	}
	if !moves { // a gauge that stands still is like any other that does
		return false
	}
	slack := make([]float64, len(pairs))
	for k, p := range pairs {
		for _, s := range of.Samples {
			if v := math.Abs(s.Values[p[1]]); !math.IsNaN(v) {
				slack[k] = math.Max(slack[k], rounding*v)
			}
		}
	}
	for at := 0; at+n <= len(of.Samples); at++ {
		if t.alike(of, at, n, pairs, slack) {
			return true
		}
	}
	return false
}

func (t *Trace) alike(of *Trace, at, n int, pairs [][2]int, slack []float64) bool {
	for i := range n {
		for k, p := range pairs {
			a, b := t.Samples[i].Values[p[0]], of.Samples[at+i].Values[p[1]]
			if math.IsNaN(a) != math.IsNaN(b) || math.Abs(a-b) > slack[k] {
				return false
			}
		}
	}
	return true
}

// moves reports that a channel is not the same all the time.
func (t *Trace) moves(channel, n int) bool {
	first := t.Samples[0].Values[channel]
	for _, s := range t.Samples[1:n] {
		if s.Values[channel] != first {
			return true
		}
	}
	return false
}
