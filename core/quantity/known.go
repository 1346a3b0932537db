package quantity

import "math"

// Known gives a size in base units; ok is false for one that was not given, or that cannot be
// read any more.
func (q Quantity) Known() (si float64, ok bool) {
	if q.IsZero() || math.IsNaN(q.SI) {
		return 0, false
	}
	return q.SI, true
}
