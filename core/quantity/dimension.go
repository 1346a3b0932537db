// Package quantity reads, converts and writes the physical quantities of a
// hydraulic workshop, where inch and metric stand side by side in one job.
//
// A quantity is typed as "number unit" the way people write it: 63 mm, 1-1/8 in,
// 3 thou, 2,5 bar. Its typed form is kept exactly; arithmetic uses the base unit
// of its dimension. Base units are SI, except where the trade's own unit keeps
// results readable: rev/min for rotation, m3/rev for displacement and degC for
// temperature.
//
// Conversion factors are the exact ones of NIST SP 811, appendix B, wherever an
// exact one exists (inch, pound, standard gravity, US gallon, atmosphere).
package quantity

import "strings"

// Dimension is the kind of a physical quantity.
type Dimension uint8

// The dimensions Corvek computes with. The comment gives the base unit.
const (
	Number                Dimension = iota // no unit, or % of one
	Length                                 // m
	Area                                   // m2
	Volume                                 // m3
	Pressure                               // Pa
	Force                                  // N
	Torque                                 // N·m
	Flow                                   // m3/s
	Displacement                           // m3/rev
	Speed                                  // m/s
	Rotation                               // rev/min
	Temperature                            // degC
	TemperatureDifference                  // K
	KinematicViscosity                     // m2/s
	DynamicViscosity                       // Pa·s
	Power                                  // W
	Energy                                 // J
	Mass                                   // kg
	SpringRate                             // N/m
	Angle                                  // rad
	Time                                   // s
	Density                                // kg/m3
	SpecificHeat                           // J/(kg·K)
	Frequency                              // Hz
	Slope                                  // m/m
	Current                                // A
	Resistance                             // Ω
)

type dimensionInfo struct {
	name, base string
	example    string // units offered when an entry is refused
}

var dimensions = [...]dimensionInfo{
	Number:                {"a plain number", "", "a number such as 0.93, or 93 %"},
	Length:                {"a length", "m", "mm, in, thou, µm, cm, m"},
	Area:                  {"an area", "m2", "mm2, cm2, in2"},
	Volume:                {"a volume", "m3", "L, ml, cc, in3, gal, qt, floz"},
	Pressure:              {"a pressure", "Pa", "bar, psi, MPa, kPa"},
	Force:                 {"a force", "N", "N, kN, lbf, kgf"},
	Torque:                {"a torque", "N·m", "N·m, lbf·ft, lbf·in"},
	Flow:                  {"a flow", "m3/s", "L/min, gpm, ml/min, drops/min"},
	Displacement:          {"a displacement", "m3/rev", "cc/rev, in3/rev"},
	Speed:                 {"a speed", "m/s", "m/s, mm/s, in/s, ft/min"},
	Rotation:              {"a rotation", "rev/min", "rpm"},
	Temperature:           {"a temperature", "degC", "°C, °F, K"},
	TemperatureDifference: {"a temperature difference", "K", "K, delta °F"},
	KinematicViscosity:    {"a kinematic viscosity", "m2/s", "cSt, mm2/s"},
	DynamicViscosity:      {"a dynamic viscosity", "Pa·s", "mPa·s, cP"},
	Power:                 {"a power", "W", "kW, W, hp"},
	Energy:                {"an energy", "J", "J, kJ, ft-lbf"},
	Mass:                  {"a mass", "kg", "kg, g, lb, oz"},
	SpringRate:            {"a spring rate", "N/m", "N/mm, lbf/in"},
	Angle:                 {"an angle", "rad", "deg, rad"},
	Time:                  {"a time", "s", "s, min, h"},
	Density:               {"a density", "kg/m3", "kg/m3, g/cm3, lb/ft3"},
	SpecificHeat:          {"a specific heat", "J/(kg·K)", "J/(kg·K)"},
	Frequency:             {"a rate", "Hz", "Hz, /min"},
	Slope:                 {"a slope", "m/m", "mm/m"},
	Current:               {"a current", "A", "A, mA"},
	Resistance:            {"a resistance", "Ω", "ohm, Ω, kΩ"},
}

// String names the dimension with its article: "a length".
func (d Dimension) String() string {
	if int(d) < len(dimensions) {
		return dimensions[d].name
	}
	return "a quantity"
}

// Base is the name of the unit that results of this dimension are given in.
func (d Dimension) Base() string { return dimensions[d].base }

// Accepted lists the usual units of the dimension, for messages.
func (d Dimension) Accepted() string { return dimensions[d].example }

// Name is that of the dimension without its article: "length", and "number" of a plain one.
func (d Dimension) Name() string {
	if d == Number {
		return "number"
	}
	_, name, _ := strings.Cut(d.String(), " ")
	return name
}

// Dimensions are all of them.
func Dimensions() []Dimension {
	out := make([]Dimension, len(dimensions))
	for i := range out {
		out[i] = Dimension(i)
	}
	return out
}
