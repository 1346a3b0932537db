// Package trace is what a stand showed over time: samples of several channels, ten times a
// second or as a log of another stand brings them. All figures are in base units; a channel
// that was not read at a moment is NaN.
package trace

import (
	"math"
	"time"
)

// Sample is one moment of all channels.
type Sample struct {
	At     time.Time
	Values []float64
}

// Trace is a run of samples in the order of time.
type Trace struct {
	Channels []string // codes of figures of the stand
	Samples  []Sample
	// A file says of itself that it is of an exercise
	Simulated bool
}

// Channel gives the place of a channel, -1 where it is not there.
func (t *Trace) Channel(code string) int {
	for i, c := range t.Channels {
		if c == code {
			return i
		}
	}
	return -1
}

// Last is the part of a trace not older than a time before its end.
func (t *Trace) Last(d time.Duration) *Trace {
	n := len(t.Samples)
	if n == 0 {
		return t
	}
	from := t.Samples[n-1].At.Add(-d)
	at := n
	for at > 0 && !t.Samples[at-1].At.Before(from) {
		at--
	}
	return &Trace{Channels: t.Channels, Samples: t.Samples[at:]}
}

// Between is the part of a trace from one moment to another, both included.
func (t *Trace) Between(from, to time.Time) *Trace {
	out := &Trace{Channels: t.Channels}
	for _, s := range t.Samples {
		if !s.At.Before(from) && !s.At.After(to) {
			out.Samples = append(out.Samples, s)
		}
	}
	return out
}

// Mean is the mean and the standard deviation of a channel; ok is false where it was never
// read.
func (t *Trace) Mean(code string) (mean, deviation float64, ok bool) {
	i := t.Channel(code)
	if i < 0 {
		return 0, 0, false
	}
	n, sum, squares := 0.0, 0.0, 0.0
	for _, s := range t.Samples {
		if v := s.Values[i]; !math.IsNaN(v) {
			n++
			delta := v - sum
			sum += delta / n // Welford: no figure is lost where the mean is large
			squares += delta * (v - sum)
		}
	}
	if n == 0 {
		return 0, 0, false
	}
	if n > 1 {
		deviation = math.Sqrt(squares / (n - 1))
	}
	return sum, deviation, true
}

// mostBreak is the longest time between two samples over which the signal counts as unbroken.
const mostBreak = 2 * time.Second

// Unbroken gives the times of the first and the last sample of the last stretch in which none is
// missing; zero times where there are not two.
func (t *Trace) Unbroken() (from, to time.Time) {
	n := len(t.Samples)
	if n < 2 {
		return from, to
	}
	first := n - 1
	for first > 0 && t.Samples[first].At.Sub(t.Samples[first-1].At) <= mostBreak {
		first--
	}
	if first == n-1 {
		return from, to
	}
	return t.Samples[first].At, t.Samples[n-1].At
}
