package seal

import (
	"fmt"
	"math"
	"sort"
	"strings"
	"time"
)

// FindRings ranks the standard rings by how little they differ from a measured
// one, relative to its size. With tolerance only those within it on both
// figures are given; without it the nearest few.
func FindRings(inside, section, tolerance float64, most int) []Ring {
	miss := func(r Ring) float64 {
		return math.Abs(r.Section-section)/section + math.Abs(r.Inside-inside)/(inside+section)
	}
	out := make([]Ring, 0, most+1)
	for _, r := range Rings {
		if tolerance > 0 && (math.Abs(r.Inside-inside) > tolerance*(1+1e-9) ||
			math.Abs(r.Section-section) > tolerance*(1+1e-9)) {
			continue
		}
		m := miss(r)
		if len(out) == most && m >= miss(out[most-1]) {
			continue
		}
		at := sort.Search(len(out), func(i int) bool { return miss(out[i]) > m })
		out = append(out, Ring{})
		copy(out[at+1:], out[at:])
		out[at] = r
		if len(out) > most {
			out = out[:most]
		}
	}
	return out
}

// Near reports whether a used ring of these measures could be r: within 10 % of
// its section and 5 % of its middle diameter, as far as set and swelling usually
// go. Shop guidance.
func (r Ring) Near(inside, section float64) bool {
	middle := r.Inside + r.Section
	return math.Abs(r.Section-section) <= 0.10*r.Section && math.Abs(r.Inside+r.Section-inside-section) <= 0.05*middle
}

// Press fits by which a lip seal's outside is larger than its bore, in m: a new one's, and
// that of an old one, which has relaxed. Shop guidance.
const (
	NewPressFit = 0.25e-3
	OldPressFit = 0.10e-3
)

// FindLips ranks rotary seals for a shaft and a bore, within what a shaft wears
// and a bore is measured wrong; width counts only when given.
func FindLips(shaft, bore, width float64, extra []Lip, most int) []Lip {
	const nearShaft, nearBore = 0.6e-3, 1.0e-3
	var out []Lip
	for _, l := range append(append([]Lip{}, extra...), Lips...) {
		if math.Abs(l.Shaft-shaft) <= nearShaft && math.Abs(l.Bore-bore) <= nearBore {
			out = append(out, l)
		}
	}
	miss := func(l Lip) float64 {
		m := math.Abs(l.Shaft-shaft) + math.Abs(l.Bore-bore)
		if width > 0 {
			m += math.Abs(l.Width-width) / 10
		}
		return m
	}
	sort.SliceStable(out, func(i, j int) bool { return miss(out[i]) < miss(out[j]) })
	if len(out) > most {
		out = out[:most]
	}
	return out
}

// Span is a stretch of depths in m.
type Span struct{ From, To float64 }

// PressDepths gives where a seal's outer face may stand so that its lip keeps
// off a worn groove. All depths count from the housing's outer face inward; lip
// is measured from the seal's own outer face.
func PressDepths(groove, grooveWidth, sealWidth, lip, bottom, margin float64) []Span {
	deepest := bottom - sealWidth
	var out []Span
	if to := math.Min(groove-margin-lip, deepest); to >= -1e-12 {
		out = append(out, Span{0, math.Max(0, to)})
	}
	if from := math.Max(0, groove+grooveWidth+margin-lip); from <= deepest+1e-12 {
		out = append(out, Span{from, math.Max(from, deepest)})
	}
	return out
}

// Group is a storage group of ISO 2230 with its years.
type Group struct {
	Name            string
	Life, Extension int
}

var groups = map[string]Group{"A": {"A", 5, 2}, "B": {"B", 7, 3}, "C": {"C", 10, 5}}

// groupOf puts the elastomers by their ISO 1629 letters into groups.
var groupOf = map[string]string{
	"NR": "A", "SBR": "A", "BR": "A", "IR": "A", "AU": "A", "EU": "A", "PU": "A",
	"NBR": "B", "XNBR": "B", "HNBR": "B", "CR": "B", "IIR": "B", "ACM": "B", "CO": "B", "ECO": "B",
	"FKM": "C", "FFKM": "C", "EPDM": "C", "EPM": "C", "VMQ": "C", "FVMQ": "C", "PVMQ": "C", "CM": "C",
}

// GroupOf gives the storage group of an elastomer.
func GroupOf(elastomer string) (Group, error) {
	key := strings.ToUpper(strings.TrimSpace(elastomer))
	if key == "PTFE" {
		return Group{}, fmt.Errorf("PTFE is no rubber and does not age on the shelf; rubber parts of the seal do")
	}
	g, ok := groupOf[key]
	if !ok {
		return Group{}, fmt.Errorf("%q is not in the storage groups; use ISO 1629 letters such as NBR, FKM, EPDM",
			elastomer)
	}
	return groups[g], nil
}

// ParseCure reads "2017-Q3" or a date; a quarter counts from its last day.
func ParseCure(s string) (time.Time, error) {
	var year, quarter int
	text := strings.ToUpper(strings.TrimSpace(s))
	if n, err := fmt.Sscanf(text, "%4d-Q%1d", &year, &quarter); err == nil && n == 2 && len(text) == 7 &&
		quarter >= 1 && quarter <= 4 && year > 1900 {
		return time.Date(year, time.Month(3*quarter)+1, 0, 0, 0, 0, 0, time.UTC), nil
	}
	t, err := time.Parse(time.DateOnly, strings.TrimSpace(s))
	if err != nil {
		return t, fmt.Errorf("%q is no cure date; write 2017-Q3 or 2017-08-21", s)
	}
	return t, nil
}

// CureBegins is the first day that a cure date can mean: of a quarter its first.
func CureBegins(s string) (time.Time, error) {
	last, err := ParseCure(s)
	if err == nil && strings.ContainsAny(s, "Qq") {
		return time.Date(last.Year(), last.Month()-2, 1, 0, 0, 0, 0, time.UTC), nil
	}
	return last, err
}

// Range is where an elastomer works, °C, in fluids it bears.
type Range struct{ Low, High float64 }

var ranges = map[string]Range{
	"NBR": {-30, 100}, "HNBR": {-25, 140}, "FKM": {-20, 200}, "EPDM": {-45, 130}, "PU": {-30, 90},
	"PTFE": {-190, 230}, "VMQ": {-55, 200}, "CR": {-35, 100}, "NR": {-45, 70}, "SBR": {-40, 80},
}

// Verdicts of compatibility.
const (
	Suitable   = "suitable"
	Limited    = "limited"
	Unsuitable = "unsuitable"
)

// Fluids lists the fluids of the table.
func Fluids() []string { return rows(compatibility)[0][1:] }

// Elastomers lists the elastomers of the table.
func Elastomers() []string {
	var out []string
	for _, r := range rows(compatibility)[1:] {
		out = append(out, r[0])
	}
	return out
}

var bearing = loadBearing()

func loadBearing() map[string]map[string]string {
	all := rows(compatibility)
	out := map[string]map[string]string{}
	words := map[string]string{"S": Suitable, "L": Limited, "U": Unsuitable}
	for _, r := range all[1:] {
		out[r[0]] = map[string]string{}
		for i, f := range all[0][1:] {
			out[r[0]][f] = words[r[i+1]]
		}
	}
	return out
}

// Bears looks a pair up; ok is false where the table holds nothing certain.
func Bears(elastomer, fluid string) (verdict string, r Range, known, ok bool) {
	row, known := bearing[elastomer]
	if !known {
		return "", Range{}, false, false
	}
	v, listed := row[fluid]
	return v, ranges[elastomer], listed, v != ""
}
