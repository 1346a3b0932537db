package trace

import (
	"math"
	"time"
)

// SteadyOver is how long the channels must stand still before a point is taken.
const SteadyOver = 3 * time.Second

// What counts as standing still: the trend over the window, and the scatter about it, as
// shares of the mean. ISO 4409 asks for figures whose mean does not move by more than its
// class allows, 2.5 % of a pressure and of a flow in class C.
const (
	steadyTrend   = 0.01
	steadyScatter = 0.025
)

// Steady reports that the channels stood still over the last SteadyOver; why is what still
// moves. A channel that reads nothing, or nought, does not move.
func (t *Trace) Steady(codes ...string) (ok bool, why string) {
	n := len(t.Samples)
	if n < 2 || t.Samples[n-1].At.Sub(t.Samples[0].At) < SteadyOver {
		return false, "time"
	}
	w := t.Last(SteadyOver)
	for _, code := range codes {
		mean, _, read := w.Mean(code)
		if !read || math.Abs(mean) == 0 {
			continue
		}
		slope, scatter := w.line(code)
		if math.Abs(slope*SteadyOver.Seconds()) > steadyTrend*math.Abs(mean) || scatter > steadyScatter*math.Abs(mean) {
			return false, code
		}
	}
	return true, ""
}

// line is the straight line through a channel by least squares: its slope in units a second
// and the standard deviation about it.
func (t *Trace) line(code string) (slope, scatter float64) {
	i := t.Channel(code)
	var n, sx, sy, sxx, sxy float64
	for _, s := range t.Samples {
		if y := s.Values[i]; !math.IsNaN(y) {
			x := s.At.Sub(t.Samples[0].At).Seconds()
			n, sx, sy, sxx, sxy = n+1, sx+x, sy+y, sxx+x*x, sxy+x*y
		}
	}
	d := n*sxx - sx*sx
	if n < 2 || d == 0 {
		return 0, 0
	}
	slope = (n*sxy - sx*sy) / d
	first := (sy - slope*sx) / n
	for _, s := range t.Samples {
		if y := s.Values[i]; !math.IsNaN(y) {
			off := y - first - slope*s.At.Sub(t.Samples[0].At).Seconds()
			scatter += off * off
		}
	}
	return slope, math.Sqrt(scatter / n)
}
