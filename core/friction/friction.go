// Package friction works out what faces pressed together carry: clutch and brake
// packs. Lengths in m, forces in N, torques in N·m.
//
// Source: uniform pressure over the lining, any textbook on machine elements.
package friction

// MeanRadius is the radius at which the friction of a ring of lining acts.
// outer and inner are radii; inner must be the smaller.
func MeanRadius(outer, inner float64) float64 {
	return 2.0 / 3 * (outer*outer*outer - inner*inner*inner) / (outer*outer - inner*inner)
}

// Torque is what so many faces carry under a force.
func Torque(faces int, coefficient, force, meanRadius float64) float64 {
	return float64(faces) * coefficient * force * meanRadius
}
