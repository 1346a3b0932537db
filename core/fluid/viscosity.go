// Package fluid knows oils: viscosity over temperature, cleanliness codes and
// what happens when one is drained and filled.
package fluid

import (
	"math"
	"slices"
	"strconv"
	"strings"
)

// UsualDensity is that of mineral hydraulic oil, kg/m3, where none was given.
const UsualDensity = 870.0

// Walther is a viscosity line, log10 log10(ν+0.7) = A − B·log10 T, with ν in
// mm2/s and T in K (ASTM D341).
type Walther struct{ A, B float64 }

// Line puts the line through the viscosities at 40 and 100 °C, in mm2/s.
func Line(v40, v100 float64) Walther {
	w40, w100 := math.Log10(math.Log10(v40+0.7)), math.Log10(math.Log10(v100+0.7))
	b := (w40 - w100) / (math.Log10(373.15) - math.Log10(313.15))
	return Walther{w40 + b*math.Log10(313.15), b}
}

// At is the viscosity in mm2/s at a temperature in °C.
func (w Walther) At(celsius float64) float64 {
	return math.Pow(10, math.Pow(10, w.A-w.B*math.Log10(celsius+273.15))) - 0.7
}

// lh are the quadratics of ASTM D2270 for L and H by ranges of v100.
var lh = []struct{ upTo, a, b, c, d, e, f float64 }{
	{3.8, 1.14673, 1.7576, -0.109, 0.84155, 1.5521, -0.077},
	{4.4, 3.38095, -15.4952, 33.196, 0.78571, 1.7929, -0.183},
	{5.0, 2.5000, -7.2143, 13.812, 0.82143, 1.5679, 0.119},
	{6.4, 0.10100, 16.6350, -45.469, 0.04985, 9.1613, -18.557},
	{7.0, 3.35714, -23.5643, 78.466, 0.22619, 7.7369, -16.656},
	{7.7, 0.01191, 21.4750, -72.870, 0.79762, -0.7321, 14.610},
	{9.0, 0.41858, 16.1558, -56.040, 0.05794, 10.5156, -28.240},
	{12, 0.88779, 7.5527, -16.600, 0.26665, 6.7015, -10.810},
	{15, 0.76720, 10.7972, -38.180, 0.20073, 8.4658, -22.490},
	{18, 0.97305, 5.3135, -2.200, 0.28889, 5.9741, -4.930},
	{22, 0.97256, 5.2500, -0.980, 0.24504, 7.4160, -16.730},
	{28, 0.91413, 7.4759, -21.820, 0.20323, 9.1267, -34.230},
	{40, 0.87031, 9.7157, -50.770, 0.18411, 10.1015, -46.750},
	{55, 0.84703, 12.6752, -133.310, 0.17029, 11.4866, -80.620},
	{70, 0.85921, 11.1009, -83.190, 0.17130, 11.3680, -76.940},
	{math.Inf(1), 0.83531, 14.6731, -216.246, 0.16841, 11.8493, -96.947},
}

// VI is the viscosity index by ASTM D2270; ok is false for v100 below 2 mm2/s.
func VI(v40, v100 float64) (vi float64, ok bool) {
	if v100 < 2 {
		return 0, false
	}
	for _, r := range lh {
		if v100 > r.upTo {
			continue
		}
		l := r.a*v100*v100 + r.b*v100 + r.c
		h := r.d*v100*v100 + r.e*v100 + r.f
		if v40 >= h {
			return 100 * (l - v40) / (l - h), true
		}
		n := (math.Log10(h) - math.Log10(v40)) / math.Log10(v100)
		return (math.Pow(10, n)-1)/0.00715 + 100, true
	}
	return 0, false
}

// scale are the upper limits of ISO 4406 in particles per mL, code 0 first.
var scale = []float64{.01, .02, .04, .08, .16, .32, .64, 1.3, 2.5, 5, 10, 20, 40, 80, 160, 320, 640, 1300, 2500,
	5000, 1e4, 2e4, 4e4, 8e4, 1.6e5, 3.2e5, 6.4e5, 1.3e6, 2.5e6}

// MostCode is the last code of the scale; above it a count is ">28".
const MostCode = 28

// Code is the ISO 4406 code of a count per mL; MostCode+1 when off the scale.
func Code(count float64) int {
	for i, top := range scale {
		if count <= top*(1+1e-12) {
			return i
		}
	}
	return MostCode + 1
}

// Window is the viscosity in m2/s that most pumps are content with: thinnest
// that still carries, the range of good running, thickest for a cold start.
// Common guidance for gear and piston pumps; the maker's figures win.
var Window = struct{ Thinnest, Low, High, Thickest float64 }{10e-6, 16e-6, 36e-6, 1000e-6}

// usualVI is the viscosity index taken for a mineral hydraulic oil of which only the grade
// is known.
const usualVI = 100

// GradeAt is the kinematic viscosity in m2/s at a temperature in °C of an oil whose name
// gives its ISO 3448 grade, as in "ISO VG 46"; ok is false where the name gives none.
func GradeAt(name string, celsius float64) (nu float64, ok bool) {
	grade, ok := gradeOf(name)
	if !ok {
		return 0, false
	}
	low, high := 2.0, grade
	for range 60 { // the viscosity at 100 °C that goes with the usual index
		mid := (low + high) / 2
		if vi, _ := VI(grade, mid); vi < usualVI {
			low = mid
		} else {
			high = mid
		}
	}
	return Line(grade, low).At(celsius) * 1e-6, true
}

// gradeOf reads the grade out of an oil's name.
func gradeOf(name string) (grade float64, ok bool) {
	words := strings.Fields(strings.ReplaceAll(strings.ToUpper(name), "VG", "VG "))
	for i := 1; i < len(words); i++ {
		if words[i-1] != "VG" {
			continue
		}
		g, err := strconv.ParseFloat(strings.Trim(words[i], ",;."), 64)
		if err == nil && slices.Contains(grades, g) {
			return g, true
		}
	}
	return 0, false
}

// grades are those of ISO 3448 that hydraulic oils come in, mm2/s at 40 °C.
var grades = []float64{10, 15, 22, 32, 46, 68, 100, 150, 220, 320, 460}
