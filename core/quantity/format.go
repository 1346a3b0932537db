package quantity

import (
	"math"
	"strconv"
	"strings"
)

// one is the unit of a plain number.
var one = Unit{Dim: Number, Factor: 1}

// In is the value of a base-unit figure in another unit of the same dimension.
func (u Unit) In(si float64) float64 { return (si - u.Offset) / u.Factor }

// Format writes a base-unit figure in the unit with the given decimals.
func (u Unit) Format(si float64, decimals int) string {
	return join(fixed(u.In(si), decimals), u.Name)
}

func join(number, unit string) string {
	switch unit {
	case "":
		return number
	case "%":
		return number + " %"
	}
	return number + " " + unit
}

func fixed(v float64, decimals int) string {
	s := strconv.FormatFloat(v, 'f', decimals, 64)
	if strings.HasPrefix(s, "-") && strings.Trim(s, "-0.") == "" {
		s = s[1:] // never "-0.00"
	}
	return s
}

func trimNumber(v float64) string { return strconv.FormatFloat(v, 'g', 6, 64) }

// Figures writes v with the given number of significant figures, never in
// exponent form for figures a workshop meets.
func Figures(v float64, significant int) string {
	if v == 0 || math.IsNaN(v) || math.IsInf(v, 0) {
		return fixed(v, 0)
	}
	magnitude := int(math.Floor(math.Log10(math.Abs(v))))
	decimals := significant - 1 - magnitude
	if decimals < 0 {
		decimals = 0
	}
	if decimals > 9 {
		return strconv.FormatFloat(v, 'g', significant, 64)
	}
	return fixed(v, decimals)
}

// Round writes v rounded to significant figures also before the point: 47 613 to two
// figures is 48000.
func Round(v float64, significant int) string {
	if v == 0 || math.IsNaN(v) || math.IsInf(v, 0) {
		return Figures(v, significant)
	}
	step := math.Pow(10, math.Floor(math.Log10(math.Abs(v)))-float64(significant-1))
	return Figures(math.Round(v/step)*step, significant)
}

// shop gives the unit a reader of each system expects for a dimension, and
// the decimals it is usually written with.
type shop struct {
	unit     string
	decimals int
}

var shopUnits = map[Dimension][2]shop{ // metric, inch
	Length:                {{"mm", 3}, {"in", 4}},
	Area:                  {{"cm2", 2}, {"in2", 3}},
	Volume:                {{"L", 2}, {"gal", 2}},
	Pressure:              {{"bar", 1}, {"psi", 0}},
	Force:                 {{"N", 0}, {"lbf", 1}},
	Torque:                {{"N·m", 1}, {"lbf·ft", 1}},
	Flow:                  {{"L/min", 2}, {"gpm", 2}},
	Displacement:          {{"cc/rev", 2}, {"in3/rev", 3}},
	Speed:                 {{"mm/s", 1}, {"in/s", 2}},
	Rotation:              {{"rpm", 0}, {"rpm", 0}},
	Temperature:           {{"°C", 0}, {"°F", 0}},
	TemperatureDifference: {{"K", 1}, {"delta °F", 1}},
	KinematicViscosity:    {{"cSt", 1}, {"cSt", 1}},
	DynamicViscosity:      {{"mPa·s", 1}, {"cP", 1}},
	Power:                 {{"kW", 2}, {"hp", 2}},
	Energy:                {{"J", 0}, {"ft-lbf", 0}},
	Mass:                  {{"kg", 2}, {"lb", 2}},
	SpringRate:            {{"N/mm", 2}, {"lbf/in", 1}},
	Angle:                 {{"deg", 1}, {"deg", 1}},
	Time:                  {{"s", 0}, {"s", 0}},
	Density:               {{"kg/m3", 0}, {"lb/ft3", 1}},
	Current:               {{"A", 2}, {"A", 2}},
	Resistance:            {{"ohm", 1}, {"ohm", 1}},
}

// thouBelow is the length under which an inch shop speaks of thou.
const thouBelow = 0.1 * inch

// ShopUnit is the unit in which a shop of the given system writes this figure,
// with its usual decimals. Small lengths come in thou for an inch reader.
func ShopUnit(si float64, d Dimension, s System) (Unit, int) {
	s = s.For(d)
	pair, ok := shopUnits[d]
	if !ok {
		return Unit{Name: d.Base(), Dim: d, Factor: 1}, 3
	}
	if d == Length && s == Inch && math.Abs(si) < thouBelow {
		u, _ := UnitByName("thou", d)
		if math.Abs(si) < inch/1000 { // figures enough to tell it from nothing
			return u, 2
		}
		return u, 1
	}
	if d == Flow && math.Abs(si) < 0.1e-3/minute && s != Inch {
		u, _ := UnitByName("ml/min", d)
		return u, 1
	}
	if d == Volume && s == Inch && math.Abs(si) < 0.1*gallon {
		u, _ := UnitByName("floz", d)
		return u, 2
	}
	if d == Volume && s != Inch && math.Abs(si) < 0.1e-3 {
		u, _ := UnitByName("ml", d)
		return u, 1
	}
	pick := pair[0]
	if s == Inch {
		pick = pair[1]
	}
	u, _ := UnitByName(pick.unit, d)
	return u, pick.decimals
}

// Show writes a base-unit figure as a shop of the system would.
func Show(si float64, d Dimension, s System) string {
	if d == Number {
		return Figures(si, 3)
	}
	u, n := ShopUnit(si, d, s)
	return u.Format(si, n)
}

// In writes q as a reader of a system has it: as typed where it was typed in his units.
func (q Quantity) In(s System) string {
	if q.IsZero() || q.Unit.System == Neutral || q.Unit.System == s.For(q.Dim) || math.IsNaN(q.SI) {
		return q.Typed
	}
	return Show(q.SI, q.Dim, s)
}

// Other writes q in the system it was not typed in, or "" when both systems
// write it alike.
func (q Quantity) Other() string {
	s := Inch
	switch q.Unit.System {
	case Inch:
		s = Metric
	case Neutral:
		return ""
	}
	text := Show(q.SI, q.Dim, s)
	if u, _ := ShopUnit(q.SI, q.Dim, s); u.Name == q.Unit.Name {
		return ""
	}
	return text
}

// String is what was typed, or the base-unit figure where nothing was.
func (q Quantity) String() string {
	if q.Typed != "" {
		return q.Typed
	}
	return join(trimNumber(q.SI), q.Dim.Base())
}

// MarshalText gives a quantity as it was typed, the way documents and fingerprints have it; one
// that was worked out, in words.
func (q Quantity) MarshalText() ([]byte, error) { return []byte(q.String()), nil }
