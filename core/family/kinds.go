package family

import "slices"

// MarkDef is a mark that a part can bear, of whatever unit it is from.
type MarkDef struct {
	Code, Text string
	Breaking   bool // a part that bears it is not kept without a written reason
}

// PartMarks are the marks that parts bear, in the order they are offered.
var PartMarks = []MarkDef{
	{"broken", "broken", true}, {"cracked", "cracked", true}, {"sheared", "sheared", true}, {"bent", "bent", true},
	{"piece_missing", "piece missing", true}, {"heat_colours", "heat colours", true}, {"pitted", "pitted", true},
	{"scored", "scored", false}, {"smeared", "smeared or picked up", false}, {"rust", "rust", false},
	{"worn_one_side", "worn on one side", false}, {"seized", "seized or stuck", false},
	{"swollen", "swollen or soft", true}, {"hard", "hard", true}, {"cut", "cut or torn", true},
	{"nibbled", "nibbled", true}, {"dirt", "dirt or chips in it", false}, {"loose", "loose", false},
}

// PartMark finds a mark that parts bear.
func PartMark(code string) (MarkDef, bool) {
	for _, m := range PartMarks {
		if m.Code == code {
			return m, true
		}
	}
	return MarkDef{}, false
}

// Grades of a mark, told by looking and by touch; they are never a share of a limit.
const (
	GradeLight = "light"
	GradeClear = "clear"
	GradeHeavy = "heavy"
)

// MarkGrades are the grades, lightest first.
var MarkGrades = []string{GradeLight, GradeClear, GradeHeavy}

var (
	rubber = []string{"swollen", "hard", "cut", "nibbled", "piece_missing", "worn_one_side", "dirt"}
	metal  = []string{"broken", "cracked", "bent", "piece_missing", "heat_colours", "pitted", "scored", "smeared",
		"rust", "worn_one_side", "seized", "dirt", "loose"}
	fixing = []string{"broken", "cracked", "sheared", "bent", "rust", "seized", "loose"}
)

// kindDef is what a kind of part brings to a unit that its family does not have
// it in.
type kindDef struct {
	marks    []string
	soft     bool // renewed at every rebuild
	facings  []string
	checks   []string
	features []Feature
}

func value(code, name, how string) Feature {
	return Feature{Code: code, Name: name, Method: MethodValue, How: how, Rows: 1, Cols: 2, Standing: StandingNone}
}

func face(name string) Feature {
	return Feature{Code: "face", Name: name, Method: MethodGrade, How: "Nail across the face, both ways",
		Standing: StandingNone, Worst: 3}
}

var (
	diameter = value("diameter", "Diameter", "Micrometer, two places at right angles")
	bore     = value("bore", "Bore", "Bore gauge, two places at right angles")
)

var kinds = map[string]kindDef{
	"o_ring": {marks: rubber, soft: true, checks: []string{"oiled, not twisted, seated all round"},
		features: []Feature{value("section", "Section", "Calipers, two places, not squeezed")}},
	"backup_ring": {marks: rubber, soft: true, checks: []string{"on the side away from the pressure"}},
	"gasket":      {marks: rubber, soft: true, checks: []string{"dry or sealed as its maker says; faces clean"}},
	"piston_seal": {marks: rubber, soft: true, facings: []string{"lip to the pressure", "lip away"},
		checks: []string{"lip to the pressure, not cut by the edge"}},
	"lip_seal": {marks: rubber, soft: true, facings: []string{"lip to the oil", "lip outward"},
		checks:   []string{"square in its bore, lip oiled, edge taped over the shaft's end"},
		features: []Feature{value("track", "Lip track on the shaft", "Micrometer on the track")}},
	"bolts": {marks: fixing}, "dowels": {marks: fixing}, "key": {marks: fixing}, "pin": {marks: fixing},
	"retaining_ring": {marks: fixing, checks: []string{"turned in its groove to see that it sits"}},
	"spring": {marks: metal, features: []Feature{value("free_length", "Free length", "Calipers, standing free"),
		value("wire", "Wire", "Micrometer on the wire")}},
	"gear_shaft": {marks: metal, features: []Feature{value("journal", "Journal", "Micrometer, two places")}},
	"rod":        {marks: metal, features: []Feature{diameter}},
	"piston":     {marks: metal, features: []Feature{diameter}},
	"spool":      {marks: metal, features: []Feature{diameter}},
	"poppet":     {marks: metal, features: []Feature{face("Seat face")}},
	"bush":       {marks: metal, features: []Feature{bore}},
	"bearing":    {marks: metal},
	"tube":       {marks: metal, features: []Feature{bore}},
	"plate":      {marks: metal, features: []Feature{face("Running face")}},
	"valve_plate": {marks: metal, features: []Feature{face("Running face")}, facings: []string{"ports to the barrel",
		"ports to the cover"}},
	"cam_ring": {marks: metal, features: []Feature{face("Track")}},
	"needles":  {marks: metal, features: []Feature{diameter}},
	"shims":    {marks: fixing, features: []Feature{value("thickness", "Thickness", "Micrometer, the whole pack")}},
}

// MarksOf are the marks to look for on a kind of part.
func MarksOf(kind string) []MarkDef {
	def, known := kinds[kind]
	if !known {
		def.marks = metal
	}
	var out []MarkDef
	for _, m := range PartMarks {
		if slices.Contains(def.marks, m.Code) {
			out = append(out, m)
		}
	}
	return out
}

// PartOfKind is a part that no family told of: what its kind brings, and a drawing.
func PartOfKind(code, name, kind, branch string, count int) *Part {
	def := kinds[kind]
	p := &Part{Code: code, Name: name, Kind: kind, Branch: branch, Count: count, Renew: def.soft,
		Facings: def.facings, Checks: def.checks, Features: slices.Clone(def.features),
		Shape: Shape{W: 20, OD: 40, ID: 24, Top: 30, Base: -30, Step: 6,
			Shaft: []Segment{{L: 8, D: 20}, {L: 12, D: 36}}}}
	return p
}
