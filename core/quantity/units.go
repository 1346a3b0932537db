package quantity

import (
	"math"
	"strings"
)

// System tells which family of units a unit belongs to.
type System uint8

// Neutral units (rpm, s, %) look the same to every reader.
const (
	Neutral System = iota
	Metric
	Inch
	MetricPsi // sizes in mm, pressures in psi
	InchBar   // sizes in inches, pressures in bar
)

// For is the system in which a dimension is written: a shop may have its gauges in another
// one than its calipers.
func (s System) For(d Dimension) System {
	pressure := d == Pressure
	switch s {
	case MetricPsi:
		s = Metric
	case InchBar:
		s = Inch
	default:
		return s
	}
	if pressure {
		return s.other()
	}
	return s
}

// Other is the system that a dimension is not written in.
func (s System) Other(d Dimension) System { return s.For(d).other() }

func (s System) other() System {
	if s == Inch {
		return Metric
	}
	return Inch
}

// Unit is one way to write a quantity: base value = number·Factor + Offset.
type Unit struct {
	Name   string // as shown
	Dim    Dimension
	Factor float64
	Offset float64
	System System
	alias  string // further spellings, separated by blanks
}

// Exact constants, NIST SP 811.
const (
	inch      = 0.0254
	foot      = 12 * inch
	pound     = 0.45359237
	gravity   = 9.80665
	poundF    = pound * gravity
	psi       = poundF / (inch * inch)
	cubicInch = inch * inch * inch
	gallon    = 231 * cubicInch
	minute    = 60.0
)

var unitTable = []Unit{
	{Name: "%", Dim: Number, Factor: 0.01, alias: "percent pct"},

	{Name: "m", Dim: Length, Factor: 1, System: Metric, alias: "metre meter"},
	{Name: "cm", Dim: Length, Factor: 1e-2, System: Metric},
	{Name: "mm", Dim: Length, Factor: 1e-3, System: Metric},
	{Name: "µm", Dim: Length, Factor: 1e-6, System: Metric, alias: "um micron microns"},
	{Name: "in", Dim: Length, Factor: inch, System: Inch, alias: `" inch inches ''`},
	{Name: "ft", Dim: Length, Factor: foot, System: Inch, alias: "foot feet '"},
	{Name: "thou", Dim: Length, Factor: inch / 1000, System: Inch, alias: "mil mils th"},

	{Name: "m2", Dim: Area, Factor: 1, System: Metric},
	{Name: "cm2", Dim: Area, Factor: 1e-4, System: Metric, alias: "sqcm"},
	{Name: "mm2", Dim: Area, Factor: 1e-6, System: Metric, alias: "sqmm"},
	{Name: "in2", Dim: Area, Factor: inch * inch, System: Inch, alias: "sqin"},

	{Name: "m3", Dim: Volume, Factor: 1, System: Metric},
	{Name: "L", Dim: Volume, Factor: 1e-3, System: Metric, alias: "l litre liter litres liters"},
	{Name: "ml", Dim: Volume, Factor: 1e-6, System: Metric, alias: "mL"},
	{Name: "cc", Dim: Volume, Factor: 1e-6, System: Metric, alias: "cm3 ccm"},
	{Name: "mm3", Dim: Volume, Factor: 1e-9, System: Metric},
	{Name: "in3", Dim: Volume, Factor: cubicInch, System: Inch, alias: "cuin cubicinch cubicinches"},
	{Name: "ft3", Dim: Volume, Factor: foot * foot * foot, System: Inch, alias: "cuft"},
	{Name: "gal", Dim: Volume, Factor: gallon, System: Inch, alias: "gallon gallons USgal"},
	{Name: "qt", Dim: Volume, Factor: gallon / 4, System: Inch, alias: "quart quarts"},
	{Name: "floz", Dim: Volume, Factor: gallon / 128, System: Inch, alias: "fl.oz"},

	{Name: "Pa", Dim: Pressure, Factor: 1, System: Metric},
	{Name: "kPa", Dim: Pressure, Factor: 1e3, System: Metric},
	{Name: "MPa", Dim: Pressure, Factor: 1e6, System: Metric},
	{Name: "GPa", Dim: Pressure, Factor: 1e9, System: Metric},
	{Name: "bar", Dim: Pressure, Factor: 1e5, System: Metric},
	{Name: "mbar", Dim: Pressure, Factor: 1e2, System: Metric},
	{Name: "psi", Dim: Pressure, Factor: psi, System: Inch, alias: "psig lbf/in2 lb/in2"},
	{Name: "ksi", Dim: Pressure, Factor: 1000 * psi, System: Inch},
	{Name: "kgf/cm2", Dim: Pressure, Factor: gravity * 1e4, System: Metric, alias: "kg/cm2 at"},
	{Name: "atm", Dim: Pressure, Factor: 101325, System: Metric},
	{Name: "inHg", Dim: Pressure, Factor: 3386.389, System: Inch},

	{Name: "N", Dim: Force, Factor: 1, System: Metric},
	{Name: "kN", Dim: Force, Factor: 1e3, System: Metric},
	{Name: "lbf", Dim: Force, Factor: poundF, System: Inch},
	{Name: "kgf", Dim: Force, Factor: gravity, System: Metric},
	{Name: "short ton-force", Dim: Force, Factor: 2000 * poundF, System: Inch, alias: "shorttonforce shorttonf"},
	{Name: "long ton-force", Dim: Force, Factor: 2240 * poundF, System: Inch, alias: "longtonforce longtonf"},
	{Name: "tonne-force", Dim: Force, Factor: 1000 * gravity, System: Metric, alias: "tonneforce tf metrictonforce"},

	{Name: "N·m", Dim: Torque, Factor: 1, System: Metric, alias: "Nm N.m"},
	{Name: "kN·m", Dim: Torque, Factor: 1e3, System: Metric, alias: "kNm"},
	{Name: "kgf·m", Dim: Torque, Factor: gravity, System: Metric, alias: "kgfm kgm"},
	{Name: "lbf·ft", Dim: Torque, Factor: poundF * foot, System: Inch, alias: "lbfft lbft ftlb ftlbf ftlbs lbsft"},
	{Name: "lbf·in", Dim: Torque, Factor: poundF * inch, System: Inch, alias: "lbfin lbin inlb inlbf inlbs lbsin"},

	{Name: "m3/s", Dim: Flow, Factor: 1, System: Metric},
	{Name: "m3/h", Dim: Flow, Factor: 1.0 / 3600, System: Metric},
	{Name: "L/min", Dim: Flow, Factor: 1e-3 / minute, System: Metric, alias: "l/min lpm LPM"},
	{Name: "ml/min", Dim: Flow, Factor: 1e-6 / minute, System: Metric, alias: "mL/min cc/min cm3/min"},
	{Name: "drops/min", Dim: Flow, Factor: 1e-6 / 20 / minute, alias: "drop/min dpm"},
	{Name: "gpm", Dim: Flow, Factor: gallon / minute, System: Inch, alias: "gal/min GPM USgpm"},
	{Name: "cfm", Dim: Flow, Factor: foot * foot * foot / minute, System: Inch, alias: "ft3/min"},
	{Name: "in3/min", Dim: Flow, Factor: cubicInch / minute, System: Inch},

	{Name: "cc/rev", Dim: Displacement, Factor: 1e-6, System: Metric, alias: "ml/rev mL/rev cm3/rev ccm/rev"},
	{Name: "L/rev", Dim: Displacement, Factor: 1e-3, System: Metric, alias: "l/rev"},
	{Name: "m3/rev", Dim: Displacement, Factor: 1, System: Metric},
	{Name: "in3/rev", Dim: Displacement, Factor: cubicInch, System: Inch, alias: "cuin/rev"},

	{Name: "m/s", Dim: Speed, Factor: 1, System: Metric},
	{Name: "mm/s", Dim: Speed, Factor: 1e-3, System: Metric},
	{Name: "m/min", Dim: Speed, Factor: 1 / minute, System: Metric},
	{Name: "mm/min", Dim: Speed, Factor: 1e-3 / minute, System: Metric},
	{Name: "in/s", Dim: Speed, Factor: inch, System: Inch, alias: "ips"},
	{Name: "in/min", Dim: Speed, Factor: inch / minute, System: Inch, alias: "ipm"},
	{Name: "ft/min", Dim: Speed, Factor: foot / minute, System: Inch, alias: "fpm"},
	{Name: "ft/s", Dim: Speed, Factor: foot, System: Inch},

	{Name: "rpm", Dim: Rotation, Factor: 1, alias: "rev/min r/min 1/min RPM"},
	{Name: "rev/s", Dim: Rotation, Factor: 60, alias: "rps"},

	{Name: "°C", Dim: Temperature, Factor: 1, System: Metric, alias: "C degC"},
	{Name: "°F", Dim: Temperature, Factor: 5.0 / 9, Offset: -160.0 / 9, System: Inch, alias: "F degF"},
	{Name: "K", Dim: Temperature, Factor: 1, Offset: -273.15, System: Metric},
	{Name: "K", Dim: TemperatureDifference, Factor: 1, System: Metric,
		alias: "deltaC delta°C deltaK deltadegC Δ°C ΔK"},
	{Name: "delta °F", Dim: TemperatureDifference, Factor: 5.0 / 9, System: Inch,
		alias: "deltaF delta°F deltadegF Δ°F"},

	{Name: "m2/s", Dim: KinematicViscosity, Factor: 1, System: Metric},
	{Name: "cSt", Dim: KinematicViscosity, Factor: 1e-6, alias: "mm2/s cst"},
	{Name: "Pa·s", Dim: DynamicViscosity, Factor: 1, System: Metric, alias: "Pas"},
	{Name: "mPa·s", Dim: DynamicViscosity, Factor: 1e-3, System: Metric, alias: "mPas"},
	{Name: "cP", Dim: DynamicViscosity, Factor: 1e-3, alias: "cp"},

	{Name: "W", Dim: Power, Factor: 1, System: Metric},
	{Name: "kW", Dim: Power, Factor: 1e3, System: Metric},
	{Name: "hp", Dim: Power, Factor: 550 * foot * poundF, System: Inch, alias: "bhp HP"},

	{Name: "J", Dim: Energy, Factor: 1, System: Metric},
	{Name: "kJ", Dim: Energy, Factor: 1e3, System: Metric},
	{Name: "ft-lbf", Dim: Energy, Factor: foot * poundF, System: Inch, alias: "ftlbf ftlb lbfft"},

	{Name: "kg", Dim: Mass, Factor: 1, System: Metric},
	{Name: "g", Dim: Mass, Factor: 1e-3, System: Metric},
	{Name: "t", Dim: Mass, Factor: 1e3, System: Metric, alias: "tonne tonnes"},
	{Name: "lb", Dim: Mass, Factor: pound, System: Inch, alias: "lbs lbm"},
	{Name: "oz", Dim: Mass, Factor: pound / 16, System: Inch},

	{Name: "N/m", Dim: SpringRate, Factor: 1, System: Metric},
	{Name: "N/mm", Dim: SpringRate, Factor: 1e3, System: Metric},
	{Name: "kN/m", Dim: SpringRate, Factor: 1e3, System: Metric},
	{Name: "lbf/in", Dim: SpringRate, Factor: poundF / inch, System: Inch, alias: "lb/in"},

	{Name: "deg", Dim: Angle, Factor: math.Pi / 180, alias: "° degree degrees"},
	{Name: "rad", Dim: Angle, Factor: 1},

	{Name: "s", Dim: Time, Factor: 1, alias: "sec secs second seconds"},
	{Name: "min", Dim: Time, Factor: 60, alias: "mins minute minutes"},
	{Name: "h", Dim: Time, Factor: 3600, alias: "hr hrs hour hours"},
	{Name: "days", Dim: Time, Factor: 86400, alias: "day d"},
	{Name: "weeks", Dim: Time, Factor: 7 * 86400, alias: "week wk"},
	{Name: "months", Dim: Time, Factor: 30.4375 * 86400, alias: "month"},
	{Name: "years", Dim: Time, Factor: 365.25 * 86400, alias: "year yr yrs"},

	{Name: "kg/m3", Dim: Density, Factor: 1, System: Metric},
	{Name: "g/cm3", Dim: Density, Factor: 1e3, System: Metric, alias: "g/cc g/ml kg/L"},
	{Name: "lb/ft3", Dim: Density, Factor: pound / (foot * foot * foot), System: Inch},

	{Name: "J/(kg·K)", Dim: SpecificHeat, Factor: 1, System: Metric, alias: "J/(kgK) J/kgK J/kg/K"},
	{Name: "kJ/(kg·K)", Dim: SpecificHeat, Factor: 1e3, System: Metric, alias: "kJ/(kgK) kJ/kgK"},

	{Name: "Hz", Dim: Frequency, Factor: 1, alias: "1/s /s"},
	{Name: "/min", Dim: Frequency, Factor: 1 / minute, alias: "1/min cycles/min strokes/min cpm spm permin"},

	{Name: "mm/m", Dim: Slope, Factor: 1e-3, System: Metric},
	{Name: "m/m", Dim: Slope, Factor: 1, System: Metric},
	{Name: "A", Dim: Current, Factor: 1, alias: "amp amps"},
	{Name: "mA", Dim: Current, Factor: 1e-3},

	{Name: "ohm", Dim: Resistance, Factor: 1, alias: "Ω Ohm ohms"},
	{Name: "kohm", Dim: Resistance, Factor: 1e3, alias: "kΩ kOhm"},

	{Name: "in/ft", Dim: Slope, Factor: 1.0 / 12, System: Inch},
}

var (
	exact  [len(dimensions)]map[string]*Unit // spelling as written or normalised
	folded [len(dimensions)]map[string]*Unit // lower case
)

func init() {
	for i := range exact {
		exact[i], folded[i] = map[string]*Unit{}, map[string]*Unit{}
	}
	for i := range unitTable {
		u := &unitTable[i]
		for _, s := range append(strings.Fields(u.alias), u.Name) {
			for _, spelling := range []string{s, normalise(s)} {
				exact[u.Dim][spelling] = u
				if low := strings.ToLower(spelling); folded[u.Dim][low] == nil {
					folded[u.Dim][low] = u
				}
			}
		}
	}
}

var spellings = strings.NewReplacer(
	"·", "", "⋅", "", "*", "", "-", "", " ", "", "\t", "", "\u00a0", "", "^", "", "_", "",
	"μ", "µ", "²", "2", "³", "3", "″", `"`, "”", `"`, "“", `"`, "′", "'", "º", "°", "∆", "Δ")

// normalise brings the spellings of one unit (N·m, N m, N-m) to one form.
func normalise(s string) string { return spellings.Replace(s) }

// prefixTrap holds spellings in which a slip of the shift key changes the
// value a milliard times, so that case is never guessed.
var prefixTrap = map[string]bool{"mpa": true, "mpas": true, "gpa": false}

// lookup finds the unit with this spelling in a dimension.
func lookup(s string, d Dimension) *Unit {
	if u := exact[d][s]; u != nil {
		return u
	}
	n := normalise(s)
	if u := exact[d][n]; u != nil {
		return u
	}
	low := strings.ToLower(n)
	if prefixTrap[low] {
		return nil
	}
	return folded[d][low]
}

// UnitByName finds a unit of the dimension by any of its spellings.
func UnitByName(name string, d Dimension) (Unit, bool) {
	if u := lookup(name, d); u != nil {
		return *u, true
	}
	return Unit{}, false
}

// dimensionOf finds some dimension, other than d, that knows the spelling.
func dimensionOf(s string, d Dimension) (Dimension, bool) {
	for i := range exact {
		if Dimension(i) != d && lookup(s, Dimension(i)) != nil {
			return Dimension(i), true
		}
	}
	return 0, false
}
