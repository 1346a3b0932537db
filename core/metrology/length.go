package metrology

import (
	"math"
	"strings"
)

// Tool is a kind of length instrument, by what its permissible error is known from.
type Tool string

// The kinds of length instruments.
const (
	Micrometer  Tool = "micrometer"
	Calipers    Tool = "calipers"
	BoreGauge   Tool = "bore_gauge"
	DepthMic    Tool = "depth_micrometer"
	DepthGauge  Tool = "depth_gauge"
	Dial        Tool = "dial"
	AirGauge    Tool = "air_gauge"
	OpticalFlat Tool = "optical_flat"
	FeelerLeaf  Tool = "leaves"
)

// Tools are the kinds in the order they are offered.
func Tools() (out []string) {
	for _, t := range []Tool{Micrometer, Calipers, BoreGauge, DepthMic, DepthGauge, Dial, AirGauge, OpticalFlat,
		FeelerLeaf} {
		out = append(out, string(t))
	}
	return out
}

// toolWords tell a kind by the words of a name, the closer ones first.
var toolWords = []struct {
	word string
	tool Tool
}{
	{"depth micrometer", DepthMic}, {"depth mic", DepthMic}, {"depth", DepthGauge}, {"straight", FeelerLeaf},
	{"leaf", FeelerLeaf}, {"leaves", FeelerLeaf}, {"feeler", FeelerLeaf}, {"air gauge", AirGauge},
	{"optical", OpticalFlat}, {"bore", BoreGauge}, {"inside", BoreGauge}, {"caliper", Calipers}, {"vernier", Calipers},
	{"dial", Dial}, {"indicator", Dial}, {"micrometer", Micrometer}, {"mic", Micrometer},
}

// ToolNamed tells the kind of an instrument by its name; ok is false where the name does not say it.
func ToolNamed(name string) (t Tool, ok bool) {
	name = strings.ToLower(name)
	for _, w := range toolWords {
		if strings.Contains(name, w.word) {
			return w.tool, true
		}
	}
	return "", false
}

// Permitted is the largest error, in m, that a sound instrument of the kind may have at a size. An outside
// micrometer may be off by 4 µm and 1 µm more for every 50 mm at which its range of 25 mm begins (after
// DIN 863-1); the others are guidance for shop instruments in calibration, a bore gauge set by a ring.
func (t Tool) Permitted(size float64) float64 {
	const um = 1e-6
	begins := math.Floor(size/25e-3) * 25
	switch t {
	case Micrometer:
		return (4 + math.Floor(begins/50)) * um
	case DepthMic:
		return (5 + math.Floor(begins/50)) * um
	case BoreGauge:
		return (6 + math.Floor(begins/50)) * um
	case Calipers, DepthGauge:
		return (30 + 10*math.Floor(size/300e-3)) * um
	case Dial:
		return 8 * um
	case FeelerLeaf:
		return 5 * um
	case AirGauge:
		return um
	case OpticalFlat:
		return 0.1 * um
	}
	return 0
}

// Growth of a part with its temperature, per K.
const (
	Steel     = 11.5e-6
	Aluminium = 23e-6
)

// Length is what the uncertainty of one reading of a length follows from. Lengths in m, temperatures in K.
type Length struct {
	Size       float64
	Resolution float64
	Permitted  float64 // largest error of the instrument, 0 where it is not known
	Setting    float64 // largest error of the ring or block that it is set by, 0 where it is read by itself
	Growth     float64 // of the part, per K
	Apart      float64 // how far the part's temperature lies from 20 °C
}

// Expanded is the expanded uncertainty (k = 2): each of permissible error, setting, last digit and temperature is
// taken as the half-width of a rectangular distribution, and they add as squares (ISO 14253-2).
func (l Length) Expanded() float64 {
	warm := l.Growth * l.Size * l.Apart
	return 2 * math.Sqrt((l.Permitted*l.Permitted+l.Setting*l.Setting+l.Resolution*l.Resolution/4+warm*warm)/3)
}

// Finer is how many times the uncertainty of its instrument an allowance must be to be judged.
const Finer = 4.0

// TooFine reports that an allowance is less than four times the uncertainty of the instrument.
func TooFine(allowance, u float64) bool { return allowance > 0 && allowance < Finer*u*(1-1e-9) }
