package trace

import "math"

// Ripple is how a channel swings about its own trend over a stretch.
type Ripple struct {
	Mean  float64
	Swing float64 // from the least to the most about the trend
	Rate  float64 // readings a second
}

// Share is the swing as a share of the mean, 0 where the mean is nought.
func (r Ripple) Share() float64 {
	if r.Mean == 0 {
		return 0
	}
	return r.Swing / math.Abs(r.Mean)
}

// perSwing is how many readings a swing needs to be seen for what it is. Two are the least
// (the sampling theorem); a little over keeps a swing from hiding between readings.
const perSwing = 2.5

// Shows reports that the readings come often enough to show swings of a frequency in Hz.
func (r Ripple) Shows(frequency float64) bool { return r.Rate >= perSwing*frequency }

// Ripple works it out for a channel; ok is false where fewer than ten readings are there. The
// trend is the straight line through the stretch, so that a slow fall is no ripple.
func (t *Trace) Ripple(code string) (r Ripple, ok bool) {
	about := t.About(code)
	if len(about) < 10 {
		return r, false
	}
	first, last := about[0], about[len(about)-1]
	low, high := math.Inf(1), math.Inf(-1)
	for _, p := range about {
		low, high = min(low, p.Off), max(high, p.Off)
	}
	r.Mean, _, _ = t.Mean(code)
	r.Swing = high - low
	if span := last.Second - first.Second; span > 0 {
		r.Rate = float64(len(about)-1) / span
	}
	return r, true
}

// Off is how far a reading lies off the trend, and when, in seconds from the first sample.
type Off struct{ Second, Off float64 }

// About gives the readings of a channel about its trend.
func (t *Trace) About(code string) (out []Off) {
	i := t.Channel(code)
	if i < 0 || len(t.Samples) == 0 {
		return nil
	}
	slope, _ := t.line(code)
	mean, _, _ := t.Mean(code)
	middle, n := 0.0, 0.0
	for _, s := range t.Samples {
		if !math.IsNaN(s.Values[i]) {
			n++
			middle += (s.At.Sub(t.Samples[0].At).Seconds() - middle) / n
		}
	}
	for _, s := range t.Samples {
		if y := s.Values[i]; !math.IsNaN(y) {
			x := s.At.Sub(t.Samples[0].At).Seconds()
			out = append(out, Off{x, y - mean - slope*(x-middle)})
		}
	}
	return out
}
