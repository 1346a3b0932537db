// Package bearing answers how many rollers belong on a journal. SI units.
package bearing

import "math"

// NeedleComplement is the largest number of needles of diameter d that fit
// round a shaft of diameter s, ⌊π / asin(d/(s+d))⌋, and the gap left on the
// pitch circle when they all lie together. Plain geometry of circles on a circle.
func NeedleComplement(s, d float64) (most int, gap float64) {
	half := math.Asin(d / (s + d))
	most = int(math.Floor(math.Pi/half + 1e-9))
	gap = math.Max(0, (2*math.Pi-float64(most)*2*half)*(s+d)/2)
	return most, gap
}
