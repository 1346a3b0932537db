// Package leakage gives the laminar flow through the narrow gaps of a
// hydraulic unit and what a set of gaps costs a pump.
//
// The gap formulas are the exact solutions of Poiseuille flow between parallel
// walls and in a thin annulus, in any text on viscous flow (for instance
// F. M. White, Viscous Fluid Flow, chapter 3). SI units throughout. They hold while the flow is
// laminar and the gap small against its length; wall movement is left out.
package leakage

import "math"

// Annular is the flow in m3/s through a thin annulus: diameter d, radial
// clearance h and length l in m, drop dp in Pa, dynamic viscosity mu in Pa·s,
// relative eccentricity e from 0 (centred) to 1 (touching).
func Annular(d, h, l, dp, mu, e float64) float64 {
	return math.Pi * d * h * h * h * dp * (1 + 1.5*e*e) / (12 * mu * l)
}

// Plane is the flow in m3/s between parallel walls of width w and flow path l,
// gap h, all in m, drop dp in Pa, dynamic viscosity mu in Pa·s.
func Plane(w, h, l, dp, mu float64) float64 {
	return w * h * h * h * dp / (12 * mu * l)
}

// Reynolds is 2·h·v/ν, the Reynolds number of a thin gap: gap h in m, mean
// velocity v in m/s, kinematic viscosity nu in m2/s.
func Reynolds(h, v, nu float64) float64 { return 2 * h * v / nu }

// LaminarLimit is the Reynolds number of a gap above which the laminar
// formulas are no longer trusted.
const LaminarLimit = 1000
