package quantity

import (
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Quantity is a value with its dimension, and what was typed for it.
// The zero Quantity is the number 0.
type Quantity struct {
	SI    float64   // in Dim.Base()
	Dim   Dimension // what kind of quantity
	Unit  Unit      // the unit it was typed in; zero for a bare number
	Typed string    // exactly what was typed
}

// IsZero reports whether nothing was ever parsed into q.
func (q Quantity) IsZero() bool { return q.Typed == "" }

// Parse reads "number unit" as a quantity of dimension d. The error says in
// the reader's words what is wrong and what is accepted; the caller adds the
// name of the field. A bare number is accepted only where d has no unit.
func Parse(s string, d Dimension) (Quantity, error) {
	return parse(s, d, "")
}

// ParseDefault is Parse with a unit to take a bare number in.
func ParseDefault(s string, d Dimension, bare string) (Quantity, error) {
	return parse(s, d, bare)
}

func parse(s string, d Dimension, bare string) (Quantity, error) {
	text := strings.TrimSpace(s)
	if text == "" {
		return Quantity{}, fmt.Errorf("is empty; give %s in %s", d, d.Accepted())
	}
	v, rest, err := splitNumber(text)
	if err != nil {
		if errors.Is(err, errNoNumber) && looksInfinite(text) {
			err = errTooBig
		}
		return Quantity{}, err
	}
	rest = strings.TrimSpace(rest)
	if rest == "" {
		if bare == "" && d != Number {
			return Quantity{}, fmt.Errorf("needs a unit after %s: %s", text, d.Accepted())
		}
		if bare == "" {
			return Quantity{SI: v, Dim: d, Unit: one, Typed: s}, nil
		}
		rest = bare
	}
	u := lookup(rest, d)
	if u == nil {
		return Quantity{}, unitError(v, text, rest, d)
	}
	si := v*u.Factor + u.Offset
	if math.IsInf(si, 0) || math.IsNaN(si) {
		return Quantity{}, errTooBig
	}
	if math.Abs(si) > beyond {
		return Quantity{}, errBeyond
	}
	if d == Temperature && si < -273.15-1e-9 {
		return Quantity{}, errors.New("lies below absolute zero")
	}
	return Quantity{SI: si, Dim: d, Unit: *u, Typed: s}, nil
}

func looksInfinite(s string) bool {
	low := strings.ToLower(strings.TrimLeft(s, "+-"))
	return strings.HasPrefix(low, "inf") || strings.HasPrefix(low, "nan") || strings.HasPrefix(s, "∞")
}

// slip maps a unit that is often written by mistake in a dimension to what
// was probably meant.
var slips = map[Dimension]map[string]string{
	Pressure: {"lb": "psi", "lbs": "psi", "pounds": "psi", "pound": "psi", "lbf": "psi", "#": "psi",
		"kg": "kgf/cm2", "kgf": "kgf/cm2", "mpa": "MPa or mbar", "tonne": "bar"},
	Torque: {"lb": "lbf·ft", "lbs": "lbf·ft", "lbf": "lbf·ft", "ft/lb": "lbf·ft", "ft/lbs": "lbf·ft",
		"kg": "kgf·m", "n": "N·m"},
	Force: {"kg": "kgf", "lb": "lbf", "lbs": "lbf", "pounds": "lbf", "tonne": "tonne-force",
		"t": "tonne-force"},
	Flow:               {"l": "L/min", "gal": "gpm", "ml": "ml/min", "cc": "cc/min", "drops": "drops/min"},
	Displacement:       {"cc": "cc/rev", "cm3": "cc/rev", "ml": "cc/rev", "in3": "in3/rev", "cuin": "in3/rev"},
	Temperature:        {"deg": "°C or °F", "°": "°C or °F", "degrees": "°C or °F"},
	Volume:             {"oz": "floz"},
	KinematicViscosity: {"cp": "cSt (cP is dynamic viscosity)", "vg": "cSt"},
	DynamicViscosity:   {"cst": "cP (cSt is kinematic viscosity)", "mpa": "mPa·s", "mpas": "mPa·s"},
	SpringRate:         {"n": "N/mm", "lbf": "lbf/in", "kg/mm": "N/mm"},
	Rotation:           {"hz": "rpm", "rev": "rpm"},
}

func unitError(v float64, text, unit string, d Dimension) error {
	low := strings.ToLower(normalise(unit))
	if _, _, err := splitNumber(strings.TrimLeft(unit, "-–/ ")); err == nil {
		return fmt.Errorf("%q is more than one number; give a single value in %s", text, d.Accepted())
	}
	if d == Volume && (low == "thou" || low == "mil" || low == "mils") {
		return fmt.Errorf("%q is a length, not a volume; did you mean %s in3?", unit,
			strconv.FormatFloat(v/1000, 'f', 3, 64))
	}
	if d == Area && (low == "thou" || low == "mil") {
		return fmt.Errorf("%q is a length, not an area; did you mean %s in2?", unit,
			strconv.FormatFloat(v/1000, 'f', 3, 64))
	}
	if d == TemperatureDifference && (low == "°c" || low == "c" || low == "degc") {
		return fmt.Errorf("a difference is written %s K (or delta °F), so that it is not taken for a temperature",
			trimNumber(v))
	}
	if d == TemperatureDifference && (low == "°f" || low == "f" || low == "degf") {
		return fmt.Errorf("a difference is written %s delta °F (or K), so that it is not taken for a temperature",
			trimNumber(v))
	}
	if low == "ton" || low == "tons" || low == "tonf" || low == "tonforce" {
		return errors.New(`a ton is not one thing; write "short ton-force", "long ton-force" or "tonne-force"`)
	}
	if meant, ok := slips[d][low]; ok {
		return fmt.Errorf("%q is not %s; did you mean %s?", unit, d, meant)
	}
	if other, ok := dimensionOf(unit, d); ok {
		if d == Number {
			return fmt.Errorf("%q is %s; a plain number is wanted here, such as 0.93 or 93 %%", unit, other)
		}
		return fmt.Errorf("%q is %s; %s is wanted here, in %s", unit, other, d, d.Accepted())
	}
	return fmt.Errorf("the unit %q is not known; use %s", unit, d.Accepted())
}

// Loaded reads a figure of a file that was checked when it was loaded, without a quantity where none is written.
func Loaded(text string, d Dimension) Quantity {
	q, err := Parse(text, d)
	if err != nil {
		return Quantity{}
	}
	return q
}

// Kept is a quantity as it was kept, which was checked when it was first typed; "" is none. One
// that cannot be read any more stays as typed and is not a number, so that nothing is worked out
// from it.
func Kept(text string, d Dimension, bare string) Quantity {
	if text == "" {
		return Quantity{}
	}
	q, err := ParseDefault(text, d, bare)
	if err != nil {
		return Quantity{Typed: text, Dim: d, SI: math.NaN()}
	}
	return q
}
