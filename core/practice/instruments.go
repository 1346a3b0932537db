// Package practice is practice in reading instruments: an instrument at a setting drawn by chance, what is asked of
// it, and what is said of an answer. An answer is held against what the instrument can tell; where it is off, the
// usual slips of the eye are tried, so that it can be said where it went wrong. Scales count in their own unit (mm,
// in, bar, psi, L/min, gpm), since that is what is printed on them.
package practice

import (
	"fmt"
	"hash/fnv"
	"math/rand/v2"
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

// New sets an instrument of a kind. The same seed gives the same setting.
func New(kind Kind, inch bool, seed uint64) *Exercise {
	e := &Exercise{Kind: kind, Inch: inch, Seed: seed, Unit: "mm"}
	if inch {
		e.Unit = "in"
	}
	kind.set(e, chance(kind.Code, inch, seed))
	for i := range e.Asks {
		e.Asks[i].Unit = e.Unit
	}
	return e
}

// Judge holds answers against what the instrument shows, one for each that is asked. Text that is no figure gives a
// *field.Error at the number of the ask.
func (e *Exercise) Judge(answers []string) ([]Verdict, error) { return judge(e.Asks, answers) }

// Shown writes a figure of the scale as finely as it is read.
func (e *Exercise) Shown(value, step float64) string { return shown(value, step, e.Unit) }

// chance is the same for the same seed, and another for each thing that is drawn.
func chance(code string, inch bool, seed uint64) *rand.Rand {
	sum := fnv.New64a()
	fmt.Fprint(sum, code, inch)
	return rand.New(rand.NewPCG(seed, sum.Sum64()))
}

// pick chooses one of a list.
func pick[T any](r *rand.Rand, of ...T) T { return of[r.IntN(len(of))] }

// between is a whole number of steps from one to another, both within.
func between(r *rand.Rand, from, to int) int { return from + r.IntN(to-from+1) }
