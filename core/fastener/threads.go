// Package fastener holds threads, bolt classes, tightening torques and the
// order in which a circle of bolts is tightened. SI units.
//
// Sources: stress areas by the formulas of ISO 898-1 (metric) and ASME B1.1
// (inch); proof stresses from ISO 898-1 and SAE J429. The torque is the short
// form T = K·d·F, whose scatter is ±25 % or worse; the maker's figure wins.
package fastener

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Thread is a standard thread: nominal diameter and pitch in m.
type Thread struct {
	Name     string
	Diameter float64 // of a pipe thread over its crests, which its name does not say
	Pitch    float64
	Inch     bool
	Pipe     bool // of ports, caps and glands: no bolt is made with it, and no table tells its torque
}

// StressArea is the tensile stress area in m2: π/4·(d − k·P)², with k 0.9382
// for ISO metric and 0.9743 for unified threads.
func (t Thread) StressArea() float64 {
	k := 0.9382
	if t.Inch {
		k = 0.9743
	}
	d := t.Diameter - k*t.Pitch
	return math.Pi / 4 * d * d
}

// metricPitches gives coarse pitch first, then the fine ones of ISO 261, in mm.
var metricPitches = map[float64][]float64{
	3: {0.5}, 4: {0.7}, 5: {0.8}, 6: {1}, 7: {1}, 8: {1.25, 1}, 10: {1.5, 1.25, 1},
	12: {1.75, 1.5, 1.25, 1}, 14: {2, 1.5}, 16: {2, 1.5}, 18: {2.5, 2, 1.5}, 20: {2.5, 2, 1.5},
	22: {2.5, 2, 1.5}, 24: {3, 2}, 27: {3, 2}, 30: {3.5, 2}, 33: {3.5, 2}, 36: {4, 3},
}

type inchThread struct {
	size     string
	diameter float64 // in
	unc, unf int     // threads per inch; 0 where there is none
}

var inchThreads = []inchThread{
	{"#4", 0.112, 40, 48}, {"#5", 0.125, 40, 44}, {"#6", 0.138, 32, 40}, {"#8", 0.164, 32, 36},
	{"#10", 0.190, 24, 32}, {"#12", 0.216, 24, 28},
	{"1/4", 0.25, 20, 28}, {"5/16", 0.3125, 18, 24}, {"3/8", 0.375, 16, 24}, {"7/16", 0.4375, 14, 20},
	{"1/2", 0.5, 13, 20}, {"9/16", 0.5625, 12, 18}, {"5/8", 0.625, 11, 18}, {"3/4", 0.75, 10, 16},
	{"7/8", 0.875, 9, 14}, {"1", 1, 8, 12}, {"1-1/8", 1.125, 7, 12}, {"1-1/4", 1.25, 7, 12},
	{"1-3/8", 1.375, 6, 12}, {"1-1/2", 1.5, 6, 12},
}

const inch = 0.0254

// ParseThread reads "M12", "M12x1.25", "1/2-13 UNC", "1/2-20", "1/2 UNF", and pipe threads as "G 1/2" or "1/2 BSP".
func ParseThread(s string) (Thread, error) {
	text := strings.ToUpper(strings.TrimSpace(s))
	text = strings.NewReplacer("×", "X", "*", "X", ",", ".", "–", "-").Replace(text)
	if size, pipe := cutPipe(text); pipe {
		return parsePipe(s, size)
	}
	if strings.HasPrefix(text, "M") {
		return parseMetric(s, strings.TrimSpace(text[1:]))
	}
	return parseInch(s, text)
}

func parseMetric(typed, text string) (Thread, error) {
	size, pitchText, hasPitch := strings.Cut(strings.ReplaceAll(text, " ", ""), "X")
	d, err := strconv.ParseFloat(size, 64)
	pitches, ok := metricPitches[d]
	if err != nil || !ok {
		return Thread{}, fmt.Errorf("%q is not a thread in the table; M3 to M36, like M12 or M12x1.25", typed)
	}
	pitch := pitches[0]
	if hasPitch {
		if pitch, err = strconv.ParseFloat(pitchText, 64); err != nil || !contains(pitches, pitch) {
			return Thread{}, fmt.Errorf("thread M%s comes with pitch %s mm", size, listPitches(pitches))
		}
	}
	name := "M" + size
	if pitch != pitches[0] {
		name += "x" + strconv.FormatFloat(pitch, 'g', -1, 64)
	}
	return Thread{Name: name, Diameter: d * 1e-3, Pitch: pitch * 1e-3}, nil
}

func parseInch(typed, text string) (Thread, error) {
	body, series := text, ""
	for _, s := range []string{"UNC", "UNF"} {
		if strings.HasSuffix(body, s) {
			body, series = strings.TrimSpace(strings.TrimSuffix(body, s)), s
		}
	}
	body = strings.NewReplacer(`"`, "", "IN", "", " ", "").Replace(body)
	for _, t := range inchThreads {
		rest, ok := strings.CutPrefix(body, t.size)
		if !ok || rest != "" && rest[0] != '-' {
			continue
		}
		tpi := 0
		if rest == "" {
			switch series {
			case "UNC":
				tpi = t.unc
			case "UNF":
				tpi = t.unf
			default:
				return Thread{}, fmt.Errorf("%q needs its threads per inch: %s-%d UNC or %s-%d UNF", typed, t.size,
					t.unc, t.size, t.unf)
			}
		} else {
			n, err := strconv.Atoi(rest[1:])
			if err != nil {
				continue // "1" tried on "1-1/8-7"
			}
			tpi = n
		}
		kind := map[int]string{t.unc: "UNC", t.unf: "UNF"}[tpi]
		if kind == "" || series != "" && series != kind {
			return Thread{}, fmt.Errorf("%s in comes as %s-%d UNC or %s-%d UNF", t.size, t.size, t.unc, t.size, t.unf)
		}
		return Thread{
			fmt.Sprintf("%s-%d %s", t.size, tpi, kind),
			t.diameter * inch,
			inch / float64(tpi),
			true,
			false,
		}, nil
	}
	return Thread{}, fmt.Errorf(
		"%q is not a thread in the table; write M12, M12x1.25, 1/2-13 UNC, 1/2-20 UNF or G 1/2",
		typed,
	)
}

func contains(list []float64, v float64) bool {
	for _, x := range list {
		if x == v {
			return true
		}
	}
	return false
}

func listPitches(p []float64) string {
	parts := make([]string, len(p))
	for i, v := range p {
		parts[i] = strconv.FormatFloat(v, 'g', -1, 64)
	}
	return strings.Join(parts, ", ")
}
