package fluidpower

import "math"

// Ripple is the flow of a piston pump over a turn.
type Ripple struct {
	Mean, Peak, Low float64 // m3/s
	Ideal           float64 // mean with all pistons delivering, m3/s
	PerTurn         int     // lowest number of pulsations a revolution
}

// PeakToPeak is the swing of the flow.
func (r Ripple) PeakToPeak() float64 { return r.Peak - r.Low }

// PistonRipple sums the sine half-waves of pistons equally spaced round the
// barrel. delivery is the share each piston gives (1 full, 0 dead); ideal marks
// those that belong to the outlet looked at; flow is the whole pump's
// theoretical flow in m3/s.
func PistonRipple(delivery []float64, ideal []bool, flow float64) Ripple {
	z := len(delivery)
	amplitude := flow * math.Pi / float64(z) // a half-wave has the mean 1/π
	r := Ripple{Peak: math.Inf(-1), Low: math.Inf(1)}
	for i, d := range delivery {
		r.Mean += d * flow / float64(z)
		if ideal[i] {
			r.Ideal += flow / float64(z)
		}
	}
	phase := func(i int) float64 { return 2 * math.Pi * float64(i) / float64(z) }
	// Between the angles at which a piston begins or ends its stroke the sum is a
	// single sine, so its extremes are found exactly.
	steps := 2 * z
	for k := range steps {
		from, to := math.Pi*float64(k)/float64(z), math.Pi*float64(k+1)/float64(z)
		mid := (from + to) / 2
		var a, b float64
		for i, d := range delivery {
			if math.Sin(mid+phase(i)) > 0 {
				a += d * math.Cos(phase(i))
				b += d * math.Sin(phase(i))
			}
		}
		at := func(t float64) float64 { return amplitude * (a*math.Sin(t) + b*math.Cos(t)) }
		for _, t := range []float64{from, to} {
			r.Peak, r.Low = math.Max(r.Peak, at(t)), math.Min(r.Low, at(t))
		}
		for _, turn := range []float64{0, math.Pi, -math.Pi, 2 * math.Pi} {
			if t := math.Atan2(a, b) + turn; t > from && t < to {
				r.Peak, r.Low = math.Max(r.Peak, at(t)), math.Min(r.Low, at(t))
			}
		}
	}
	r.Low = math.Max(0, r.Low)
	r.PerTurn = repeats(delivery)
	return r
}

// PistonFlow is what the pistons deliver together at a turn of the shaft (rad),
// m3/s; delivery and flow as in PistonRipple.
func PistonFlow(delivery []float64, flow, turn float64) float64 {
	z := float64(len(delivery))
	sum := 0.0
	for i, d := range delivery {
		sum += d * math.Max(0, math.Sin(turn+2*math.Pi*float64(i)/z))
	}
	return sum * flow * math.Pi / z
}

// repeats is how often the delivery pattern comes round in a turn. A pattern
// that repeats an odd number of times (but more than once) pulses twice as
// often, because the sines cancel and their absolute values have half the period.
func repeats(delivery []float64) int {
	z := len(delivery)
	for shift := 1; shift <= z; shift++ {
		if z%shift != 0 {
			continue
		}
		same := true
		for i := range delivery {
			same = same && delivery[i] == delivery[(i+shift)%z]
		}
		if same {
			n := z / shift
			if n > 1 && n%2 == 1 {
				return 2 * n
			}
			return n
		}
	}
	return 1
}
