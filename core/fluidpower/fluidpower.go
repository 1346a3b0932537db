// Package fluidpower holds the steady-state arithmetic of pumps, motors and
// cylinders: areas, forces, speeds, powers, efficiencies and heat.
//
// All arguments and results are in SI units, pressures as gauge, rotation in
// rev/min, displacement in m3/rev. Sources: ISO 4391 for the names of the
// quantities, ISO 4409 for the efficiencies of pumps and motors; the forces and
// speeds are the ordinary area relations of any fluid-power textbook.
package fluidpower

import "math"

// CircleArea is π/4·d² in m2 for a diameter in m.
func CircleArea(d float64) float64 { return math.Pi / 4 * d * d }

// TheoreticalFlow is displacement (m3/rev) times rotation (rev/min), in m3/s.
func TheoreticalFlow(displacement, rotation float64) float64 {
	return displacement * rotation / 60
}

// TheoreticalTorque is Δp·D/2π in N·m for a drop in Pa and m3/rev.
func TheoreticalTorque(drop, displacement float64) float64 {
	return drop * displacement / (2 * math.Pi)
}

// ShaftPower is torque (N·m) times angular speed for a rotation in rev/min, in W.
func ShaftPower(torque, rotation float64) float64 {
	return torque * 2 * math.Pi * rotation / 60
}

// TemperatureRate is the rise in K/s of a volume (m3) of oil of the given
// density (kg/m3) and specific heat (J/(kg·K)) that takes up a net power (W).
func TemperatureRate(power, volume, density, specificHeat float64) float64 {
	return power / (density * specificHeat * volume)
}
