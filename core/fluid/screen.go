package fluid

import (
	"fmt"
	"math"
	"regexp"
	"strconv"
	"strings"

	"corvek/core/seal"
)

// sieves are the openings of ASTM E11 test sieves in mm by their wires per inch.
var sieves = map[float64]float64{
	4:   4.75,
	5:   4,
	6:   3.35,
	7:   2.8,
	8:   2.36,
	10:  2,
	12:  1.7,
	14:  1.4,
	16:  1.18,
	18:  1,
	20:  .85,
	25:  .71,
	30:  .6,
	35:  .5,
	40:  .425,
	45:  .355,
	50:  .3,
	60:  .25,
	70:  .212,
	80:  .18,
	100: .15,
	120: .125,
	140: .106,
	170: .09,
	200: .075,
	230: .063,
	270: .053,
	325: .045,
	400: .038,
	450: .032,
	500: .025,
	635: .02,
}

// Sieve is the opening in m of a test sieve of so many wires per inch (ASTM E11). Where there is none, the next
// coarser and finer ones are given; 0 and +Inf stand for none.
func Sieve(mesh float64) (opening, coarser, finer float64) {
	if mm, ok := sieves[mesh]; ok {
		return mm * 1e-3, mesh, mesh
	}
	coarser, finer = 0, math.Inf(1)
	for m := range sieves {
		if m < mesh {
			coarser = math.Max(coarser, m)
		} else {
			finer = math.Min(finer, m)
		}
	}
	return 0, coarser, finer
}

// Screen is a strainer as somebody wrote it down.
type Screen struct {
	Mesh    float64 // wires per inch, 0 where its opening was told
	Opening float64 // m, 0 where it is no usual sieve
	Suction bool    // it stands on the suction side, as far as the words say
}

var (
	meshWords    = regexp.MustCompile(`(?i)\b(\d{1,4})[ -]*mesh\b|\bmesh[ -]*(\d{1,4})\b`)
	openingWords = regexp.MustCompile(`(?i)\b(\d{1,4}(?:\.\d+)?) ?(?:µm|μm|um|micron)`)
	suctionWords = regexp.MustCompile(`(?i)suction|inlet|strainer|screen|mesh`)
)

// ScreenIn reads a strainer from how the filtration was written down: “100 mesh strainer”, “suction screen
// 125 µm”.
func ScreenIn(words string) (s Screen, ok bool) {
	s.Suction = suctionWords.MatchString(words)
	if m := meshWords.FindStringSubmatch(words); m != nil {
		s.Mesh, _ = strconv.ParseFloat(m[1]+m[2], 64)
		s.Opening, _, _ = Sieve(s.Mesh)
		return s, true
	}
	if m := openingWords.FindStringSubmatch(words); m != nil {
		um, _ := strconv.ParseFloat(m[1], 64)
		s.Opening = um * 1e-6
		return s, true
	}
	return s, false
}

// The finest suction screen that a pump draws through: about 120 mesh for oil of 46 mm²/s, coarser as the root of
// the viscosity, since what a cloth holds back goes with viscosity and against the square of its opening. What is
// mostly water boils sooner and is heavier: 60 mesh. Shop guidance; the pump's maker wins.
const (
	drawnOpening   = 125e-6
	drawnViscosity = 46e-6
	waterOpening   = 250e-6
)

// Draws is the finest opening in m of a suction screen for a fluid of a kinematic viscosity in m²/s, 0 where that
// is not known.
func Draws(viscosity float64, name string) float64 {
	least := drawnOpening
	if viscosity > drawnViscosity {
		least *= math.Sqrt(viscosity / drawnViscosity)
	}
	if watery(name) {
		least = math.Max(least, waterOpening)
	}
	return least
}

// watery reports a fluid that is mostly water, by the name that the seals know it by or its own.
func watery(name string) bool {
	named, _ := seal.NamedFluid(name)
	low := strings.ToLower(name)
	return strings.HasPrefix(named, "water") || strings.Contains(low, "water") || strings.Contains(low, "emulsion")
}

// Says puts a screen into words: its opening, and whether a pump draws this fluid through it. tooFine marks the
// warning.
func (s Screen) Says(viscosity float64, name string) (words string, tooFine bool) {
	um := func(m float64) string { return fmt.Sprintf("%.0f µm", 1e6*m) }
	switch {
	case s.Opening == 0:
		return fmt.Sprintf("%g mesh is no usual sieve: its opening is not known", s.Mesh), false
	case s.Suction && s.Opening < 0.999*Draws(viscosity, name):
		words = um(s.Opening) + " of opening is finer than the pump draws this fluid through: on the suction side " +
			"at least " + um(Draws(viscosity, name)) + ", guidance; it starves, first of all cold"
		return words, true
	case s.Mesh > 0:
		return fmt.Sprintf("%g mesh has %s of opening", s.Mesh, um(s.Opening)), false
	}
	return "", false
}
