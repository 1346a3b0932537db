// Package tolerance gives the limits of sizes after ISO 286-1 and 286-2, up to 500 mm: the grades IT1 to
// IT18 and the zones that hydraulic parts are made to (d to h and js of shafts, D to H and JS of holes).
// All lengths in m.
package tolerance

import (
	"regexp"
	"strconv"
	"strings"
)

// Class is a tolerance class such as H8 or f7, or a bare grade such as IT6.
type Class struct {
	Zone  string // f, H; "IT" of a bare grade, which has a width and no place
	Grade int
}

var written = regexp.MustCompile(`^(IT|JS|js|[D-H]|[d-h])([1-9]|1[0-8])$`)

// Parse reads a class as drawings write it. Zones that interfere (k and on) are none of a part that is
// measured for wear, and are not known here.
func Parse(text string) (c Class, ok bool) {
	m := written.FindStringSubmatch(strings.TrimSpace(text))
	if m == nil {
		return Class{}, false
	}
	grade, _ := strconv.Atoi(m[2])
	return Class{m[1], grade}, true
}

// Band is where a size of the class lies: deviations from the nominal size.
type Band struct{ Lower, Upper float64 }

// micron is the unit of the standard's tables.
const micron = 1e-6

// steps are the upper ends of the ranges of nominal size, m; each includes its end.
var steps = [...]float64{3e-3, 6e-3, 10e-3, 18e-3, 30e-3, 50e-3, 80e-3, 120e-3, 180e-3, 250e-3, 315e-3, 400e-3,
	500e-3}

// Most is the largest size of the tables.
const Most = 0.5

// widths are the grades IT1 to IT18 by range, in µm (ISO 286-1, table 1).
var widths = [...][len(steps)]float64{
	{0.8, 1, 1, 1.2, 1.5, 1.5, 2, 2.5, 3.5, 4.5, 6, 7, 8},
	{1.2, 1.5, 1.5, 2, 2.5, 2.5, 3, 4, 5, 7, 8, 9, 10},
	{2, 2.5, 2.5, 3, 4, 4, 5, 6, 8, 10, 12, 13, 15},
	{3, 4, 4, 5, 6, 7, 8, 10, 12, 14, 16, 18, 20},
	{4, 5, 6, 8, 9, 11, 13, 15, 18, 20, 23, 25, 27},
	{6, 8, 9, 11, 13, 16, 19, 22, 25, 29, 32, 36, 40},
	{10, 12, 15, 18, 21, 25, 30, 35, 40, 46, 52, 57, 63},
	{14, 18, 22, 27, 33, 39, 46, 54, 63, 72, 81, 89, 97},
	{25, 30, 36, 43, 52, 62, 74, 87, 100, 115, 130, 140, 155},
	{40, 48, 58, 70, 84, 100, 120, 140, 160, 185, 210, 230, 250},
	{60, 75, 90, 110, 130, 160, 190, 220, 250, 290, 320, 360, 400},
	{100, 120, 150, 180, 210, 250, 300, 350, 400, 460, 520, 570, 630},
	{140, 180, 220, 270, 330, 390, 460, 540, 630, 720, 810, 890, 970},
	{250, 300, 360, 430, 520, 620, 740, 870, 1000, 1150, 1300, 1400, 1550},
	{400, 480, 580, 700, 840, 1000, 1200, 1400, 1600, 1850, 2100, 2300, 2500},
	{600, 750, 900, 1100, 1300, 1600, 1900, 2200, 2500, 2900, 3200, 3600, 4000},
	{1000, 1200, 1500, 1800, 2100, 2500, 3000, 3500, 4000, 4600, 5200, 5700, 6300},
	{1400, 1800, 2200, 2700, 3300, 3900, 4600, 5400, 6300, 7200, 8100, 8900, 9700},
}

// gaps are how far a shaft of a zone stays below the nominal size, by range, in µm (ISO 286-1, table 4);
// a hole of the same letter stays as far above it.
var gaps = map[string][len(steps)]float64{
	"d": {20, 30, 40, 50, 65, 80, 100, 120, 145, 170, 190, 210, 230},
	"e": {14, 20, 25, 32, 40, 50, 60, 72, 85, 100, 110, 125, 135},
	"f": {6, 10, 13, 16, 20, 25, 30, 36, 43, 50, 56, 62, 68},
	"g": {2, 4, 5, 6, 7, 9, 10, 12, 14, 15, 17, 18, 20},
	"h": {},
}

// rangeOf is the range of a nominal size; ok is false of one that the tables do not hold.
func rangeOf(size float64) (at int, ok bool) {
	if !(size > 0) || size > Most*(1+1e-12) {
		return 0, false
	}
	for i, end := range steps {
		if size <= end*(1+1e-12) {
			return i, true
		}
	}
	return 0, false
}

// Width is the width of a grade at a nominal size; ok is false beyond the tables.
func Width(size float64, grade int) (width float64, ok bool) {
	at, ok := rangeOf(size)
	if !ok || grade < 1 || grade > len(widths) {
		return 0, false
	}
	return widths[grade-1][at] * micron, true
}

// At is the band of the class at a nominal size; ok is false beyond the tables, and of a bare grade,
// which has no place.
func (c Class) At(size float64) (b Band, ok bool) {
	width, ok := Width(size, c.Grade)
	if !ok || c.Zone == "IT" {
		return Band{}, false
	}
	if strings.EqualFold(c.Zone, "js") {
		return Band{-width / 2, width / 2}, true
	}
	at, _ := rangeOf(size)
	gap := gaps[strings.ToLower(c.Zone)][at] * micron
	if c.Zone == strings.ToUpper(c.Zone) {
		return Band{gap, gap + width}, true
	}
	return Band{-gap - width, -gap}, true
}

// Near gives the bands of the class at a size that is known to u: one, or two where the size lies so near
// to the end of a range that it can be of either. What is judged by it is judged where both agree.
func (c Class) Near(size, u float64) (out []Band) {
	for _, at := range []float64{size - u, size + u} {
		b, ok := c.At(at)
		if ok && (len(out) == 0 || b != out[0]) {
			out = append(out, b)
		}
	}
	return out
}
