package store

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"reflect"
	"slices"
	"strings"
	"time"

	"corvek/core/family"
	"corvek/core/quantity"
	"corvek/core/unit"

	"gorm.io/gorm/schema"
)

// serializer keeps values of a Go type in a column, by the name that fields call it.
type serializer[T any] struct {
	read  func(f *schema.Field, text string) (T, error)
	write func(T) (any, error)
}

// Scan writes what a column holds, text or a moment, into the field of a row.
func (s serializer[T]) Scan(ctx context.Context, f *schema.Field, row reflect.Value, v any) error {
	text := ""
	switch v := v.(type) {
	case nil:
	case string:
		text = v
	case []byte:
		text = string(v)
	case time.Time:
		text = v.UTC().Format(time.RFC3339Nano)
	default:
		return fmt.Errorf("%s.%s holds %T", f.Schema.Table, f.DBName, v)
	}
	value, err := s.read(f, text)
	if err != nil {
		return fmt.Errorf("%s.%s: %w", f.Schema.Table, f.DBName, err)
	}
	f.ReflectValueOf(ctx, row).Set(reflect.ValueOf(value))
	return nil
}

// Value gives what the column is to hold.
func (s serializer[T]) Value(_ context.Context, _ *schema.Field, _ reflect.Value, v any) (any, error) {
	return s.write(v.(T))
}

// registerSerializers names what gorm cannot keep by itself: quantities by their dimension, and what
// else stands in one column.
func registerSerializers() {
	for _, d := range quantity.Dimensions() {
		schema.RegisterSerializer(d.Name(), serializer[quantity.Quantity]{quantityOf(d), typedText})
	}
	// One whose dimension is told by another field: it is read when the whole row is there.
	schema.RegisterSerializer("typed", serializer[quantity.Quantity]{
		func(_ *schema.Field, text string) (quantity.Quantity, error) {
			return quantity.Quantity{Typed: text}, nil
		},
		typedText,
	})
	schema.RegisterSerializer("figures", serializer[map[string]quantity.Quantity]{readFigures, writeFigures})
	schema.RegisterSerializer("words", serializer[[]string]{
		func(_ *schema.Field, text string) ([]string, error) { return strings.Fields(text), nil },
		func(w []string) (any, error) { return strings.Join(w, " "), nil },
	})
	schema.RegisterSerializer("answers", serializer[map[string]string]{readAnswers, writeAnswers})
	schema.RegisterSerializer("day", serializer[unit.Date]{readDay, writeDay})
	schema.RegisterSerializer("moment", serializer[time.Time]{readMoment, writeMoment})
}

// quantityOf reads one of a dimension, with the unit of a bare figure that its field declares.
func quantityOf(d quantity.Dimension) func(*schema.Field, string) (quantity.Quantity, error) {
	return func(f *schema.Field, text string) (quantity.Quantity, error) {
		return quantity.Kept(text, d, f.TagSettings["BARE"]), nil
	}
}

func typedText(q quantity.Quantity) (any, error) { return q.Typed, nil }

// Figures are kept as a JSON object of what was typed, by their code.
func readFigures(_ *schema.Field, text string) (map[string]quantity.Quantity, error) {
	typed := map[string]string{}
	if text == "" {
		return nil, nil
	}
	if err := json.Unmarshal([]byte(text), &typed); err != nil || len(typed) == 0 {
		return nil, err
	}
	out := make(map[string]quantity.Quantity, len(typed))
	for code, text := range typed {
		g, _ := family.FigureByCode(code)
		out[code] = quantity.Kept(text, g.Dim, "")
	}
	return out, nil
}

func writeFigures(m map[string]quantity.Quantity) (any, error) {
	typed := make(map[string]string, len(m))
	for code, q := range m {
		typed[code] = q.Typed
	}
	text, err := json.Marshal(typed)
	return string(text), err
}

// Answers are kept as "question=answer", blank-separated, in the order of the questions.
func readAnswers(_ *schema.Field, text string) (map[string]string, error) {
	out := map[string]string{}
	for _, w := range strings.Fields(text) {
		if k, v, ok := strings.Cut(w, "="); ok {
			out[k] = v
		}
	}
	return out, nil
}

func writeAnswers(m map[string]string) (any, error) {
	var out []string
	for _, k := range slices.Sorted(maps.Keys(m)) {
		out = append(out, k+"="+m[k])
	}
	return strings.Join(out, " "), nil
}

// A day or a moment that is none is NULL.
func readDay(_ *schema.Field, text string) (unit.Date, error) {
	if len(text) < len(time.DateOnly) {
		return "", nil
	}
	d, _ := unit.ParseDate(text[:len(time.DateOnly)])
	return d, nil
}

func writeDay(d unit.Date) (any, error) {
	if d == "" {
		return nil, nil
	}
	return d.Time(), nil
}

func readMoment(_ *schema.Field, text string) (time.Time, error) {
	if text == "" {
		return time.Time{}, nil
	}
	return time.Parse(time.RFC3339Nano, text)
}

func writeMoment(t time.Time) (any, error) {
	if t.IsZero() {
		return nil, nil
	}
	return t, nil
}
