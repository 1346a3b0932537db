package spring

import (
	"errors"
	"fmt"
	"math"
)

// Spring steel, as DIN 2092 takes it where nothing else is known.
const (
	SteelYoungs  = 206e9 // Pa
	SteelPoisson = 0.3
)

// Disc is a dished spring without flats on its edges, lengths in m.
//
// Source: Almen and Laszlo as given in DIN 2092; no friction between discs.
type Disc struct {
	Outside, Inside, Thickness, Cone float64
	Youngs                           float64 // Pa
	Poisson                          float64
}

// constant is 4E/(1−μ²)·t⁴/(K1·De²).
func (d Disc) constant() float64 {
	delta := d.Outside / d.Inside
	k1 := 1 / math.Pi * math.Pow((delta-1)/delta, 2) / ((delta+1)/(delta-1) - 2/math.Log(delta))
	return 4 * d.Youngs / (1 - d.Poisson*d.Poisson) * math.Pow(d.Thickness, 4) / (k1 * d.Outside * d.Outside)
}

// Force is the load in N of one disc pressed by s (m).
func (d Disc) Force(s float64) float64 {
	x, h := s/d.Thickness, d.Cone/d.Thickness
	return d.constant() * x * ((h-x)*(h-x/2) + 1)
}

// Energy is the work in J to press one disc by s.
func (d Disc) Energy(s float64) float64 {
	x, h := s/d.Thickness, d.Cone/d.Thickness
	return d.constant() * d.Thickness * ((h*h+1)*x*x/2 - h/2*x*x*x + x*x*x*x/8)
}

// Flat is the load of one disc pressed flat.
func (d Disc) Flat() float64 { return d.Force(d.Cone) }

// Dips reports that the load falls again before the disc is flat (h0/t > √2).
func (d Disc) Dips() bool { return d.Cone > math.Sqrt2*d.Thickness }

// peak is the end of the first rising branch of the curve.
func (d Disc) peak() float64 {
	h := d.Cone / d.Thickness
	if !d.Dips() {
		return d.Cone
	}
	// F' = 0: 1.5x² − 3hx + h² + 1 = 0, the smaller root.
	return d.Thickness * math.Min(h, h-math.Sqrt(h*h-2*(h*h+1)/3))
}

// Deflection is the smallest s with this load, at most flat.
func (d Disc) Deflection(force float64) float64 {
	top := d.peak()
	if force >= d.Force(top) {
		return d.Cone
	}
	lo, hi := 0.0, top
	for range 80 {
		if mid := (lo + hi) / 2; d.Force(mid) < force {
			lo = mid
		} else {
			hi = mid
		}
	}
	return (lo + hi) / 2
}

// Nests reads a stack such as ">><<": neighbours facing the same way nest.
func Nests(stack string) ([]int, error) {
	var out []int
	last := rune(0)
	for i, r := range stack {
		if r != '<' && r != '>' {
			return nil, fmt.Errorf("has %q at place %d; a disc is < or >", r, i+1)
		}
		if r == last {
			out[len(out)-1]++
		} else {
			out = append(out, 1)
		}
		last = r
	}
	if len(out) == 0 {
		return nil, errors.New("has no disc; write < or > for each")
	}
	return out, nil
}

// Stack is nests of one disc put on top of each other.
type Stack struct {
	Disc  Disc
	Nests []int
}

// FreeLength is the unloaded height.
func (s Stack) FreeLength() float64 {
	sum := 0.0
	for _, n := range s.Nests {
		sum += s.Disc.Cone + float64(n)*s.Disc.Thickness
	}
	return sum
}

// Solid is the travel until every disc is flat.
func (s Stack) Solid() float64 { return float64(len(s.Nests)) * s.Disc.Cone }

// MostForce is the load that flattens the largest nest.
func (s Stack) MostForce() float64 {
	most := 0
	for _, n := range s.Nests {
		most = max(most, n)
	}
	return float64(most) * s.Disc.Flat()
}

// Travel is the stack's deflection under a force, and the largest of a disc.
func (s Stack) Travel(force float64) (total, most, energy float64) {
	for _, n := range s.Nests {
		d := s.Disc.Deflection(force / float64(n))
		total += d
		most = math.Max(most, d)
		energy += float64(n) * s.Disc.Energy(d)
	}
	return total, most, energy
}

// ForceAt is the load at a deflection of the whole stack.
func (s Stack) ForceAt(deflection float64) (force, most, energy float64) {
	alike := true
	for _, n := range s.Nests {
		alike = alike && n == s.Nests[0]
	}
	if alike { // every disc takes an equal part, also beyond the peak of its curve
		each := deflection / float64(len(s.Nests))
		n := float64(s.Nests[0])
		return n * s.Disc.Force(each), each, float64(len(s.Nests)) * n * s.Disc.Energy(each)
	}
	lo, hi := 0.0, s.MostForce()
	for range 90 {
		mid := (lo + hi) / 2
		if total, _, _ := s.Travel(mid); total < deflection {
			lo = mid
		} else {
			hi = mid
		}
	}
	_, most, energy = s.Travel((lo + hi) / 2)
	return (lo + hi) / 2, most, energy
}
