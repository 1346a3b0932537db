package family

import (
	"bytes"
	"cmp"
	"corvek/core/quantity"
	"embed"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"sync"

	"go.yaml.in/yaml/v3"
)

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
	{"backed_out", "backed out past its witness", false}, {"burst", "burst", true},
	{"blocked", "passage blocked", true},
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

//go:embed kinds/*.yaml
var kindFiles embed.FS

var notInCode = regexp.MustCompile(`[^a-z0-9]+`)

// CodeOf makes a code of a name that somebody typed: small letters, figures and _; ""
// where the name has none of them.
func CodeOf(name string) string {
	return strings.Trim(notInCode.ReplaceAllString(strings.ToLower(name), "_"), "_")
}

// KindDef is what a kind of part brings to a unit that its family does not have it in:
// its glyph, the marks to look for, what is measured, how it is fitted.
type KindDef struct {
	Code     string    `yaml:"kind"`
	Name     string    `yaml:"name"`
	Marks    []string  `yaml:"marks"`
	Soft     bool      `yaml:"soft"`   // renewed at every rebuild
	Moves    bool      `yaml:"moves"`  // it must go freely in the rebuilt unit
	Loaded   bool      `yaml:"loaded"` // the force of the unit goes through it
	Bolted   bool      `yaml:"bolted"` // has a thread of its own, or is held by one
	Facings  []string  `yaml:"facings"`
	Checks   []string  `yaml:"checks"`
	Features []Feature `yaml:"features"`
	Reworks  []Rework  `yaml:"reworks"` // ways to save a part that names none itself
	Shape    Shape     `yaml:"shape"`
}

// KindGroup is the kinds that are looked for in one place.
type KindGroup struct {
	Name  string    `yaml:"group"`
	Order int       `yaml:"order"`
	Marks []string  `yaml:"marks"` // of the kinds that name none of their own
	Kinds []KindDef `yaml:"kinds"`
}

// KindGroups are all kinds of parts, in the order they are offered. What ships was
// checked by the tests; a file that is wrong is a fault of the program.
var KindGroups = sync.OnceValue(func() []KindGroup {
	groups, err := loadKinds()
	if err != nil {
		panic(err)
	}
	return groups
})

func loadKinds() ([]KindGroup, error) {
	entries, err := kindFiles.ReadDir("kinds")
	if err != nil {
		return nil, err
	}
	var out []KindGroup
	for _, e := range entries {
		text, err := kindFiles.ReadFile("kinds/" + e.Name())
		if err != nil {
			return nil, err
		}
		g, err := loadKindGroup("kinds/"+e.Name(), text)
		if err != nil {
			return nil, err
		}
		out = append(out, *g)
	}
	slices.SortFunc(out, func(a, b KindGroup) int { return cmp.Compare(a.Order, b.Order) })
	return out, nil
}

func loadKindGroup(file string, text []byte) (*KindGroup, error) {
	g := &KindGroup{}
	dec := yaml.NewDecoder(bytes.NewReader(text))
	dec.KnownFields(true)
	if err := dec.Decode(g); err != nil {
		return nil, fmt.Errorf("%s: %s", file, strings.TrimPrefix(err.Error(), "yaml: "))
	}
	c := &checker{f: &Family{file: file, Axes: []float64{0}}}
	for i := range g.Kinds {
		k := &g.Kinds[i]
		if len(k.Marks) == 0 {
			k.Marks = g.Marks
		}
		if k.Code == "" || k.Name == "" || len(k.Marks) == 0 {
			c.fail(0, "a kind needs code, name and marks")
		}
		for _, m := range k.Marks {
			if _, known := PartMark(m); !known {
				c.fail(0, "%s: mark %q is not known", k.Code, m)
			}
		}
		p := &Part{Code: k.Code, Shape: k.Shape, Features: k.Features}
		p.usual()
		c.shape(p)
		for _, r := range k.Reworks {
			if _, known := WayByCode(r.Code); !known {
				c.fail(0, "%s: %q is no kind of rework", k.Code, r.Code)
			}
			c.quantity(0, "stock", r.Stock, quantity.Length)
		}
		for n := range k.Features {
			c.feature(p, &k.Features[n])
		}
	}
	return g, c.err
}

var kindsByCode = sync.OnceValue(func() map[string]*KindDef {
	out := map[string]*KindDef{}
	for _, g := range KindGroups() {
		for i := range g.Kinds {
			out[g.Kinds[i].Code] = &g.Kinds[i]
		}
	}
	return out
})

// KindByCode finds a kind of part.
func KindByCode(code string) (*KindDef, bool) {
	k, ok := kindsByCode()[code]
	return k, ok
}

// Kinds are the codes of the kinds of parts, each with a glyph of its own.
var Kinds = sync.OnceValue(func() (out []string) {
	for code := range kindsByCode() {
		out = append(out, code)
	}
	slices.Sort(out)
	return out
})

// MarksOf are the marks to look for on a kind of part.
func MarksOf(kind string) (out []MarkDef) {
	k, ok := KindByCode(kind)
	if !ok {
		return nil
	}
	for _, m := range PartMarks {
		if slices.Contains(k.Marks, m.Code) {
			out = append(out, m)
		}
	}
	return out
}

// PartOfKind is a part that no family told of: what its kind brings, and a drawing.
func PartOfKind(code, name, kind, branch string, count int) *Part {
	p := &Part{Code: code, Name: name, Kind: kind, Branch: branch, Count: count}
	if k, ok := KindByCode(kind); ok {
		p.Renew, p.Facings, p.Checks, p.Shape = k.Soft, k.Facings, k.Checks, k.Shape
		p.Features = slices.Clone(k.Features)
		p.saved()
	}
	return p
}
