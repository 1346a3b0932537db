package exchange

import (
	"reflect"
	"strings"
	"time"

	"corvek/core/unit"
)

// content is what a document holds, for what kind of value stands where.
type content struct {
	unit.Job
	Record []unit.Entry `json:"record"`
}

// Shift moves every day and every moment by whole days, so that a demo always stands at today.
func (d *Document) Shift(days int) { shift(d.root, reflect.TypeFor[content](), days) }

// shift gives a value of a type moved by days. What is in objects and lists is moved there.
func shift(v any, t reflect.Type, days int) any {
	for t.Kind() == reflect.Pointer {
		t = t.Elem()
	}
	switch x := v.(type) {
	case string:
		return shiftText(x, t, days)
	case []any:
		for i := range x {
			if t.Kind() == reflect.Slice {
				x[i] = shift(x[i], t.Elem(), days)
			}
		}
	case map[string]any:
		for name, of := range membersOf(t, x) {
			x[name] = shift(x[name], of, days)
		}
	}
	return v
}

func shiftText(text string, t reflect.Type, days int) string {
	if t == reflect.TypeFor[unit.Date]() {
		if day, ok := unit.ParseDate(text); ok {
			return string(day.Add(days))
		}
	}
	if t == reflect.TypeFor[time.Time]() || t == reflect.TypeFor[answer]() {
		if at, err := time.Parse(time.RFC3339, text); err == nil {
			return at.AddDate(0, 0, days).Format(time.RFC3339Nano)
		}
	}
	return text
}

// answer is a value of an object of answers: words, or the moment at which something was done.
type answer string

// membersOf gives the types of the members of an object that is there.
func membersOf(t reflect.Type, o map[string]any) map[string]reflect.Type {
	out := map[string]reflect.Type{}
	if t.Kind() == reflect.Map {
		of := reflect.TypeFor[answer]()
		if t.Elem().Kind() == reflect.Pointer {
			of = t.Elem()
		}
		for name := range o {
			out[name] = of
		}
	}
	if t.Kind() != reflect.Struct {
		return out
	}
	for _, f := range reflect.VisibleFields(t) {
		name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
		if _, there := o[name]; there {
			out[name] = f.Type
		}
	}
	return out
}
