package wording

import (
	"fmt"
	"regexp"
	"strings"
	"unicode"
	"unicode/utf8"

	"corvek/core/entry"
	"corvek/core/family"
	"corvek/core/unit"
)

// anyBoard knows every mark and cause: an address in the record stood for something
// when it was written.
type anyBoard struct{}

func (anyBoard) KnowsMark(string) bool  { return true }
func (anyBoard) KnowsCause(string) bool { return true }

// moved are addresses whose value has found another place since they were written.
var moved = strings.NewReplacer("/stack_fit", "/step/stack_fit", "/step/step/", "/step/")

// Where says in words which value of a job an address names: "Rear side plate, side
// clearance, leaf 7 thou as found". An address that leads nowhere any more stays as
// it is.
func Where(j *unit.Job, families func(*unit.Unit) *family.Family, address string) string {
	ref, err := unit.ParseRef(moved.Replace(address))
	if err != nil {
		return address
	}
	shop := &entry.Shop{Family: families, Knowledge: func(string) entry.Knowledge { return anyBoard{} }}
	p, f, err := entry.Resolve(j, ref, shop)
	if err != nil {
		return address
	}
	words := thing(p)
	if ref.Scope == unit.ScopeReading {
		words = append(words, slot(ref.Name)+map[string]string{unit.StageFound: " as found",
			unit.StageBuilt: " after the work"}[ref.Stage])
	} else if label := f.Label; label != "" {
		if ref.Code != "" && (ref.Scope == unit.ScopeJob || ref.Scope == unit.ScopeUnit) {
			label += ": " + Plain(ref.Code)
		}
		words = append(words, small(label))
	}
	if len(words) == 0 {
		return address
	}
	if len(j.Units) > 1 && p.Unit != nil {
		words = append([]string{p.Unit.Name}, words...)
	}
	first, size := utf8.DecodeRuneInString(words[0])
	words[0] = string(unicode.ToUpper(first)) + words[0][size:]
	return strings.Join(words, ", ")
}

// small writes a label within a sentence; one that begins with two capitals is a
// short form and stays.
func small(label string) string {
	first, size := utf8.DecodeRuneInString(label)
	second, _ := utf8.DecodeRuneInString(label[size:])
	if unicode.IsUpper(second) {
		return label
	}
	return string(unicode.ToLower(first)) + label[size:]
}

// thing says what a value belongs to, from the large to the small.
func thing(p *entry.Place) []string {
	r := p.Ref
	var out []string
	if p.Part != nil {
		out = append(out, p.Part.Name)
	}
	switch r.Scope {
	case unit.ScopeFeature, unit.ScopeReading:
		name := Plain(r.Feature)
		if p.FeatureDef != nil {
			name = strings.ToLower(p.FeatureDef.Name)
		}
		return append(out, name)
	case unit.ScopeDecision:
		return append(out, "decision")
	case unit.ScopeRework:
		return append(out, "rework "+Plain(r.Code))
	case unit.ScopeStep:
		return append(out, "fitting")
	case unit.ScopeEvidence:
		return append(out, "mark "+Plain(r.Code))
	case unit.ScopePartMark:
		m, _ := family.PartMark(r.Code)
		return append(out, "mark "+m.Text)
	case unit.ScopeConclusion:
		return append(out, "conclusion")
	case unit.ScopeCause:
		return append(out, fmt.Sprintf("further cause %d", r.Number))
	case unit.ScopeLoose:
		return append(out, fmt.Sprintf("loose piece %d", r.Number))
	case unit.ScopePiece:
		return append(out, fmt.Sprintf("kit piece %d", r.Number))
	case unit.ScopePicture:
		return append(out, fmt.Sprintf("picture %d", r.Number))
	case unit.ScopeAttempt:
		return append(out, attempt(r.Number))
	case unit.ScopePoint:
		name := Plain(r.Code)
		if p.Test != nil && p.Test.Name != "" {
			name = strings.ToLower(p.Test.Name)
		}
		return append(out, attempt(r.Number), name)
	}
	return out
}

func attempt(number int) string {
	if number == 0 {
		return "test as received"
	}
	return fmt.Sprintf("test attempt %d", number)
}

var gridSlot = regexp.MustCompile(`^r(\d+)c(\d+)$`)

// slot says which place of a sheet of readings is meant.
func slot(name string) string {
	if m := gridSlot.FindStringSubmatch(name); m != nil {
		return "row " + m[1] + ", column " + m[2]
	}
	if leaf, is := strings.CutPrefix(name, "leaf:"); is {
		return "leaf " + leaf
	}
	if n, is := strings.CutPrefix(name, "v"); is && n != "" {
		return "reading " + n
	}
	return Plain(name)
}
