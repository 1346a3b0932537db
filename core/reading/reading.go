// Package reading is practice in reading instruments: an instrument at a setting drawn by chance, what is asked of
// it, and what is said of an answer. An answer is held against what the instrument can tell; where it is off, the
// usual slips of the eye are tried, so that it can be said where it went wrong. Scales count in their own unit (mm,
// in, bar, psi, L/min, gpm), since that is what is printed on them.
package reading

import (
	"fmt"
	"hash/fnv"
	"math"
	"math/rand/v2"
	"strconv"

	"corvek/core/field"
	"corvek/core/quantity"
)

// Kind is a kind of instrument.
type Kind struct {
	Code, Name string
	What       string // what is measured with it, and where its mark is
	Inch       bool   // it comes in inch too, else its pressures and flows come in psi and gpm
	set        func(e *Exercise, r *rand.Rand)
}

// The kinds, in the order in which they are learned.
var kinds = []Kind{
	{
		Code: "vernier_caliper", Name: "Vernier caliper", Inch: true, set: setCaliper,
		What: "The main scale is read at the vernier's zero line; the vernier line that meets a line of the " +
			"main scale " +
			"adds the rest.",
	},
	{
		Code: "micrometer", Name: "Outside micrometer with vernier", Inch: true, set: setMicrometer,
		What: "Sleeve, then thimble, then the vernier line that meets a line of the thimble; the frame says " +
			"where it begins.",
	},
	{
		Code: "depth_micrometer", Name: "Depth micrometer", Inch: true, set: setDepth,
		What: "It runs the other way: what counts on the sleeve is the last line that is covered. The rod is added.",
	},
	{
		Code: "bore_gauge", Name: "Bore gauge with its setting ring", Inch: true, set: setBore,
		What: "It compares: what the pointer moves between ring and bore is the difference. Clockwise is smaller.",
	},
	{
		Code: "dial_indicator", Name: "Dial indicator on a turned shaft", Inch: true, set: setDial,
		What: "The whole swing is from the lowest to the highest. A shaft's bow is half of it.",
	},
	{
		Code: "feeler_leaves", Name: "Feeler leaves in a gap", Inch: true, set: setFeeler,
		What: "Leaves give no figure, but two ends: the gap is at least what goes, and less than what stops.",
	},
	{
		Code: "pressure_gauge", Name: "Pressure gauge with a mirror", set: setGauge,
		What: "The eye stands right where the pointer covers its image in the mirror. Its class counts of the " +
			"full scale.",
	},
	{
		Code: "flow_tube", Name: "Flow meter with a float", set: setTube,
		What: "It is read at the float's widest edge, its upper one.",
	},
}

// Kinds are they.
func Kinds() []Kind { return kinds }

// KindByCode finds one.
func KindByCode(code string) (k Kind, known bool) {
	for _, k := range kinds {
		if k.Code == code {
			return k, true
		}
	}
	return k, false
}

// Exercise is one instrument at one setting.
type Exercise struct {
	Kind Kind
	Inch bool // of a length in inch, else of a pressure or a flow in psi and gpm
	Seed uint64
	Unit string // of what is asked
	Asks []Ask

	Caliper *Caliper
	Barrel  *Barrel // of a micrometer, outside or for depths
	Bore    *Bore
	Dial    *Dial
	Leaves  *Leaves
	Gauge   *Gauge
	Tube    *Tube
}

// Ask is one figure that is asked for.
type Ask struct {
	Name   string
	Want   float64
	Step   float64 // the finest that the scale tells
	Within float64 // how far an answer may be off and is as good as the eye can tell
	slips  []slip
}

// slip is what an answer would be with one slip of the eye.
type slip struct {
	value float64
	says  string
}

// New sets an instrument of a kind. The same seed gives the same setting.
func New(kind Kind, inch bool, seed uint64) *Exercise {
	sum := fnv.New64a()
	fmt.Fprint(sum, kind.Code, inch)
	e := &Exercise{Kind: kind, Inch: inch, Seed: seed, Unit: "mm"}
	if inch {
		e.Unit = "in"
	}
	kind.set(e, rand.New(rand.NewPCG(seed, sum.Sum64())))
	return e
}

// Verdict is what is said of one figure of an answer.
type Verdict struct {
	Right bool
	Exact bool // on the very line
	Says  string
	Want  string
}

// Judge holds answers against what the instrument shows, one for each that is asked. Text that is no figure gives a
// *field.Error at the number of the ask.
func (e *Exercise) Judge(answers []string) (out []Verdict, err error) {
	for i, ask := range e.Asks {
		text := ""
		if i < len(answers) {
			text = answers[i]
		}
		value, err := e.parse(text)
		if err != nil {
			return nil, field.Errorf("answer"+strconv.Itoa(i), "%s", err)
		}
		out = append(out, e.verdict(&ask, value))
	}
	return out, nil
}

// parse reads a figure in the unit of the scale, or in another of its kind.
func (e *Exercise) parse(text string) (float64, error) {
	dim := quantity.Length
	switch e.Unit {
	case "bar", "psi":
		dim = quantity.Pressure
	case "L/min", "gpm":
		dim = quantity.Flow
	}
	q, err := quantity.ParseDefault(text, dim, e.Unit)
	if err != nil {
		return 0, err
	}
	one, err := quantity.ParseDefault("1", dim, e.Unit)
	if err != nil {
		return 0, err
	}
	return q.SI / one.SI, nil
}

func (e *Exercise) verdict(ask *Ask, value float64) Verdict {
	v := Verdict{Want: e.Shown(ask.Want, ask.Step)}
	off := math.Abs(value - ask.Want)
	if off <= ask.Within*(1+1e-6) {
		v.Right, v.Exact = true, off < ask.Step/4
		if !v.Exact {
			v.Says = "As near as the eye tells on this scale."
		}
		return v
	}
	for _, s := range ask.slips {
		if math.Abs(value-s.value) <= ask.Within*(1+1e-6) && math.Abs(s.value-ask.Want) > ask.Within {
			v.Says = s.says
			return v
		}
	}
	for _, shift := range []float64{10, 0.1, 100, 0.01} {
		if math.Abs(value/shift-ask.Want) <= ask.Within*(1+1e-6) {
			v.Says = "The figures are right, the decimal point is not."
			return v
		}
	}
	v.Says = "Read it again from the coarse to the fine: the whole divisions first, then the parts."
	return v
}

// Shown writes a figure of the scale as finely as it is read.
func (e *Exercise) Shown(value, step float64) string {
	places := 0
	for s := step; places < 5 && math.Abs(s-math.Round(s)) > 1e-6; s *= 10 {
		places++
	}
	return strconv.FormatFloat(value, 'f', places, 64) + " " + e.Unit
}

// pick chooses one of a list.
func pick[T any](r *rand.Rand, of ...T) T { return of[r.IntN(len(of))] }

// between is a whole number of steps from one to another, both within.
func between(r *rand.Rand, from, to int) int { return from + r.IntN(to-from+1) }
