package family

import (
	"fmt"
	"maps"
	"slices"
	"strconv"
	"strings"
	"unicode"
)

// What is measured on a part of one unit beyond its family stands among what it has more of, under a code that says
// all of it: measure:PART:METHOD:WEARS:ROWS:COLS:its_name. WEARS is bore, shaft or - for neither.
const measureMark = "measure:"

// MostOwnFeatures of one unit, and the most places of one.
const (
	MostOwnFeatures = 40
	mostPlaces      = 40
)

// OwnMethods are the methods by which something else can be measured on a part.
var OwnMethods = []Method{MethodValue, MethodGrid, MethodSisters, MethodFit, MethodFeeler, MethodDepth, MethodTIR,
	MethodGrade}

// usualLeaves of a set in thou, for a gap that a shop measures besides.
var usualLeaves = []string{"1 thou", "1.5 thou", "2 thou", "3 thou", "4 thou", "5 thou", "6 thou", "8 thou", "10 thou"}

// OwnFeature is something that is measured on a part of one unit alone.
type OwnFeature struct {
	Part  string
	Name  string
	By    Method
	Wears string // bore, shaft or "" for neither
	Rows  int
	Cols  int
}

// Code is under what a unit has it more.
func (o OwnFeature) Code() (string, error) {
	name := slug(o.Name)
	switch {
	case name == "":
		return "", fmt.Errorf("say in a few words what is measured")
	case len([]rune(name)) > mostStepName:
		return "", fmt.Errorf("is longer than %d letters", mostStepName)
	case !slices.Contains(OwnMethods, o.By):
		return "", fmt.Errorf("choose how it is measured")
	case o.Rows < 1 || o.Cols < 1 || o.Rows*o.Cols > mostPlaces:
		return "", fmt.Errorf("is read at 1 to %d places", mostPlaces)
	}
	wears := o.Wears
	if wears != "bore" && wears != "shaft" {
		wears = "-"
	}
	return fmt.Sprintf("%s%s:%s:%s:%d:%d:%s", measureMark, o.Part, o.By, wears, o.Rows, o.Cols, name), nil
}

// FeatureOfCode reads what a unit has more as something that is measured on a part; ok is false where it is none.
func FeatureOfCode(code string) (part string, f Feature, ok bool) {
	text, is := strings.CutPrefix(code, measureMark)
	words := strings.Split(text, ":")
	if !is || len(words) != 6 {
		return "", f, false
	}
	o := OwnFeature{Part: words[0], By: Method(words[1]), Name: strings.ReplaceAll(words[5], "_", " ")}
	if words[2] != "-" {
		o.Wears = words[2]
	}
	var e1, e2 error
	o.Rows, e1 = strconv.Atoi(words[3])
	o.Cols, e2 = strconv.Atoi(words[4])
	if again, err := o.Code(); err != nil || e1 != nil || e2 != nil || again != code {
		return "", f, false
	}
	first := []rune(o.Name)
	f = Feature{Code: "own_" + words[5], Name: string(unicode.ToUpper(first[0])) + string(first[1:]), Method: o.By,
		How: "On this unit alone", Wears: o.Wears, Rows: o.Rows, Cols: o.Cols, LimitSource: SourceNone}
	switch o.By {
	case MethodFeeler:
		f.Leaves = slices.Clone(usualLeaves)
	case MethodGrade:
		f.Worst = 3
	}
	return o.Part, f, true
}

// ownFeatures gives parts what is measured on them on one unit alone.
func (f *Family) ownFeatures(more map[string]int) {
	given := 0
	for _, code := range slices.Sorted(maps.Keys(more)) {
		part, feature, is := FeatureOfCode(code)
		if !is || more[code] < 1 || given >= MostOwnFeatures {
			continue
		}
		given++
		if f.OwnFeatures == nil {
			f.OwnFeatures = map[string][]Feature{}
		}
		f.OwnFeatures[part] = append(f.OwnFeatures[part], feature)
		if p, known := f.PartByCode(part); known {
			p.take(feature)
		}
	}
}

// take gives the part one more feature, unless it has it.
func (p *Part) take(feature Feature) {
	if _, there := p.FeatureByCode(feature.Code); !there {
		p.Features = append(slices.Clone(p.Features), feature)
	}
}

// PartNamed is a part that the family does not know, with what is measured on it on this unit.
func (f *Family) PartNamed(code, name, kind, branch string, count int) *Part {
	p := PartOfKind(code, name, kind, branch, count)
	for _, feature := range f.OwnFeatures[code] {
		p.take(feature)
	}
	return p
}

// slug writes words as a part of a code: letters and figures, with _ between.
func slug(words string) string {
	var out strings.Builder
	for _, r := range strings.ToLower(words) {
		switch {
		case unicode.IsLetter(r) || unicode.IsDigit(r):
			out.WriteRune(r)
		case out.Len() > 0 && !strings.HasSuffix(out.String(), "_"):
			out.WriteByte('_')
		}
	}
	return strings.Trim(out.String(), "_")
}
