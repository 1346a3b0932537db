package metrology

import "math"

// Kind tells which way wear takes a diameter.
type Kind string

// A bore wears larger, a shaft smaller.
const (
	Bore  Kind = "bore"
	Shaft Kind = "shaft"
)

// Summary is what a set of readings of one feature says, in the readings' unit.
type Summary struct {
	N                 int
	Mean, Minimum     float64
	Maximum, Range    float64
	StandardDeviation float64 // n−1; valid for N > 1
	OutOfRound        float64 // of a grid of two axes or more
	Taper             float64 // of a grid of two depths or more
	HasOutOfRound     bool
	HasTaper          bool
}

// Summarise gives the plain figures of readings; at least one is needed.
func Summarise(values []float64) Summary {
	s := Summary{N: len(values), Minimum: math.Inf(1), Maximum: math.Inf(-1)}
	for _, v := range values {
		s.Mean += v
		s.Minimum = math.Min(s.Minimum, v)
		s.Maximum = math.Max(s.Maximum, v)
	}
	s.Mean /= float64(len(values))
	s.Range = s.Maximum - s.Minimum
	if len(values) > 1 {
		sum := 0.0
		for _, v := range values {
			sum += (v - s.Mean) * (v - s.Mean)
		}
		s.StandardDeviation = math.Sqrt(sum / float64(len(values)-1))
	}
	return s
}

// SummariseGrid takes rows of depths by columns of axes. Out-of-round is the
// worst spread at one depth (needs two axes), taper the largest difference
// between the first and the last depth along one axis (needs two depths).
func SummariseGrid(grid [][]float64) Summary {
	var all []float64
	worst := 0.0
	for _, row := range grid {
		all = append(all, row...)
		worst = math.Max(worst, Summarise(row).Range)
	}
	s := Summarise(all)
	s.OutOfRound, s.HasOutOfRound = worst, len(grid[0]) > 1
	if last := len(grid) - 1; last > 0 {
		s.HasTaper = true
		for c := range grid[0] {
			s.Taper = math.Max(s.Taper, math.Abs(grid[0][c]-grid[last][c]))
		}
	}
	return s
}

// Wear is the loss against nominal at the worst reading: a bore's largest, a
// shaft's smallest. Negative where the part is still on the tight side.
func (s Summary) Wear(nominal float64, k Kind) float64 {
	if k == Bore {
		return s.Maximum - nominal
	}
	return nominal - s.Minimum
}

// Worst is the reading that wear shows in.
func (s Summary) Worst(k Kind) float64 {
	if k == Shaft {
		return s.Minimum
	}
	return s.Maximum
}

// Life is how fast a dimension goes to its limit, taken as a straight line.
type Life struct {
	Rate      float64 // per hour
	Used      float64 // share of the allowance
	HoursLeft float64
	Worn      bool // false: no wear yet, HoursLeft means nothing
}

// WearLife extrapolates from nominal to limit by the wear after hours of use.
// Nominal and limit must differ; hours must be positive.
func WearLife(nominal, limit, measured, hours float64) Life {
	allowance := math.Abs(limit - nominal)
	wear := measured - nominal
	if limit < nominal {
		wear = -wear
	}
	l := Life{Rate: wear / hours, Used: wear / allowance, Worn: wear > 0}
	if l.Worn {
		l.HoursLeft = math.Max(0, (allowance-wear)/l.Rate)
	}
	return l
}
