// Package spring computes helical compression springs and the relief
// pressures they set. SI units.
//
// Source: the rate of a close-coiled round-wire spring, G·d⁴/(8·D³·n), as in
// EN 13906-1. End coils, buckling and friction are left out; a maker's figure wins.
package spring

import "math"

// SteelShear is the shear modulus taken for spring steel, in Pa.
const SteelShear = 79.3e9

// Rate is the spring rate in N/m from wire and mean coil diameter in m.
func Rate(wire, meanDiameter, activeCoils, shearModulus float64) float64 {
	return shearModulus * math.Pow(wire, 4) / (8 * math.Pow(meanDiameter, 3) * activeCoils)
}

// Force is the load in N at an installed length, both lengths in m.
func Force(rate, free, installed float64) float64 { return rate * (free - installed) }

// Cracking is the pressure in Pa at which a seat of the given diameter (m) lifts.
func Cracking(force, seat float64) float64 { return force / (math.Pi / 4 * seat * seat) }

// ShimFor is the shim thickness in m under the spring that brings cracking to
// target; negative means take away.
func ShimFor(target, seat, rate, free, installed float64) float64 {
	return target*math.Pi/4*seat*seat/rate - (free - installed)
}

// VariantShare is the share of the nominal length beyond which a spring may be
// another variant's and not a worn one.
const VariantShare = 0.10
