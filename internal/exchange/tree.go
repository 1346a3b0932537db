package exchange

import (
	"encoding/json"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"corvek/core/entry"
	"corvek/core/field"
)

// tree is an object of a document with its path, from which members are taken
// one by one. The first thing wrong is kept; what is taken after it is empty.
type tree struct {
	path   string
	values map[string]any
	taken  map[string]bool
	inner  map[string]*tree // objects in it that were taken
	fault  *error
}

// fail keeps the first fault, at the path of a member.
func (t *tree) fail(name, format string, args ...any) {
	if *t.fault != nil {
		return
	}
	path := t.path
	if name != "" && path != "" {
		path += "."
	}
	*t.fault = field.Errorf(path+name, format, args...)
}

func (t *tree) get(name string) (any, bool) {
	t.taken[name] = true
	v, ok := t.values[name]
	return v, ok && v != nil
}

// text takes words; longest is the most letters they may have.
func (t *tree) text(name string, longest int) string {
	v, ok := t.get(name)
	if !ok {
		return ""
	}
	s, is := v.(string)
	switch {
	case !is:
		t.fail(name, "is text, between quotation marks")
	case len([]rune(s)) > longest:
		t.fail(name, "is longer than %d letters", longest)
		return ""
	case !legible(s):
		t.fail(name, "holds a character that cannot be kept")
		return ""
	}
	return s
}

// whole takes a whole number between bounds; without one it is missing.
// first refuses an object whose code another one before it has.
func (t *tree) first(seen map[string]bool) {
	code, _ := t.values["code"].(string)
	if seen[code] {
		t.fail("code", "%q is there twice", code)
	}
	seen[code] = true
}

func (t *tree) flag(name string) bool {
	v, there := t.get(name)
	yes, is := v.(bool)
	if there && !is {
		t.fail(name, "is true or false")
	}
	return yes
}

func (t *tree) whole(name string, missing, least, most int) int {
	v, ok := t.get(name)
	if !ok {
		return missing
	}
	number, _ := v.(json.Number)
	n, err := number.Int64()
	if err != nil || n < int64(least) || n > int64(most) {
		t.fail(name, "is a whole number from %d to %d", least, most)
		return missing
	}
	return int(n)
}

// share takes a number from 0 to 1; without one it is 0.
func (t *tree) share(name string) float64 {
	v, ok := t.get(name)
	if !ok {
		return 0
	}
	number, _ := v.(json.Number)
	f, err := number.Float64()
	if err != nil || !(f >= 0 && f <= 1) {
		t.fail(name, "is a number from 0 to 1")
		return 0
	}
	return f
}

// moment takes a time.
func (t *tree) moment(name string) time.Time {
	text := t.text(name, 40)
	if text == "" {
		return time.Time{}
	}
	at, err := time.Parse(time.RFC3339, text)
	if err != nil {
		t.fail(name, "is a moment like 2031-05-27T14:00:00Z")
		return time.Time{}
	}
	if at.Year() < firstYear || at.Year() > lastYear {
		t.fail(name, "is of a year that no bench wrote in")
		return time.Time{}
	}
	return at.UTC()
}

// Years that a moment of a job can be of.
const (
	firstYear = 1970
	lastYear  = 2199
)

// likely reports that a day or a moment is of a year in which there were benches. What is neither
// is told by its own check.
func likely(kind entry.Kind, text string) bool {
	layout := map[entry.Kind]string{entry.Day: time.DateOnly, entry.Timer: time.RFC3339}[kind]
	at, err := time.Parse(layout, text)
	return layout == "" || err != nil || at.Year() >= firstYear && at.Year() <= lastYear
}

// legible reports that a text can be kept and read: no control characters but blanks and ends of
// lines, and nothing that was no letter before it was decoded.
func legible(s string) bool {
	return !strings.ContainsFunc(s, func(r rune) bool {
		return r == utf8.RuneError || unicode.IsControl(r) && r != '\n' && r != '\r' && r != '\t'
	})
}

// object takes an object; one that is missing is empty.
func (t *tree) object(name string) *tree {
	if in, before := t.inner[name]; before {
		return in
	}
	v, ok := t.get(name)
	out := t.child(name, nil)
	if t.inner == nil {
		t.inner = map[string]*tree{}
	}
	t.inner[name] = out
	if !ok {
		return out
	}
	values, is := v.(map[string]any)
	if !is {
		t.fail(name, "is an object, between braces")
		return out
	}
	out.values = values
	return out
}

// at takes the object in which the last name of a path stands, with that name.
func (t *tree) at(path []string) (*tree, string) {
	for _, name := range path[:len(path)-1] {
		t = t.object(name)
	}
	return t, path[len(path)-1]
}

func (t *tree) child(name string, values map[string]any) *tree {
	path := name
	if t.path != "" {
		path = t.path + "." + name
	}
	return &tree{path: path, values: values, taken: map[string]bool{}, fault: t.fault}
}

// list takes a list of at most so many objects.
func (t *tree) list(name string, most int) []*tree {
	v, ok := t.get(name)
	if !ok {
		return nil
	}
	list, is := v.([]any)
	if !is {
		t.fail(name, "is a list, between brackets")
		return nil
	}
	if len(list) > most {
		t.fail(name, "holds %d entries; at most %d are read", len(list), most)
		return nil
	}
	var out []*tree
	for i, x := range list {
		values, is := x.(map[string]any)
		at := fmt.Sprintf("%s[%d]", name, i)
		if !is {
			t.fail(at, "is an object, between braces")
			return nil
		}
		out = append(out, t.child(at, values))
	}
	return out
}

// end refuses members that nobody took.
func (t *tree) end() {
	var unknown []string
	for name := range t.values {
		if !t.taken[name] {
			unknown = append(unknown, name)
		}
	}
	if len(unknown) > 0 {
		slices.Sort(unknown)
		t.fail(unknown[0], "is not known here")
	}
	for _, name := range slices.Sorted(maps.Keys(t.inner)) {
		t.inner[name].end()
	}
}
