package unit_test

import (
	"fmt"
	"reflect"
	"testing"
	"time"

	"corvek/core/family"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// full gives a value of the type with something in every place, lists of two.
func full(v reflect.Value, depth int) {
	switch v.Kind() {
	case reflect.Pointer:
		v.Set(reflect.New(v.Type().Elem()))
		full(v.Elem(), depth+1)
	case reflect.Slice:
		v.Set(reflect.MakeSlice(v.Type(), 2, 2))
		for i := range 2 {
			full(v.Index(i), depth+1)
		}
	case reflect.Map:
		v.Set(reflect.MakeMap(v.Type()))
		value := reflect.New(v.Type().Elem()).Elem()
		full(value, depth+1)
		v.SetMapIndex(reflect.ValueOf("question"), value)
	case reflect.Struct:
		if v.Type() == reflect.TypeFor[time.Time]() {
			v.Set(reflect.ValueOf(time.Unix(int64(depth), 0)))
			return
		}
		for i := range v.NumField() {
			if v.Field(i).CanSet() {
				full(v.Field(i), depth+1)
			}
		}
	case reflect.String:
		v.SetString(fmt.Sprint("text ", depth))
	case reflect.Int, reflect.Int64:
		v.SetInt(int64(depth))
	case reflect.Float64:
		v.SetFloat(float64(depth))
	case reflect.Bool:
		v.SetBool(true)
	}
}

// shared looks for a pointer, list or map that two values have in common.
func shared(path string, a, b reflect.Value) string {
	switch a.Kind() {
	case reflect.Pointer, reflect.Slice, reflect.Map:
		if !a.IsNil() && a.Pointer() == b.Pointer() {
			return path
		}
	}
	switch a.Kind() {
	case reflect.Pointer:
		return shared(path, a.Elem(), b.Elem())
	case reflect.Slice:
		for i := range a.Len() {
			if s := shared(fmt.Sprintf("%s[%d]", path, i), a.Index(i), b.Index(i)); s != "" {
				return s
			}
		}
	case reflect.Struct:
		if a.Type() == reflect.TypeFor[time.Time]() {
			return ""
		}
		for i := range a.NumField() {
			if s := shared(path+"."+a.Type().Field(i).Name, a.Field(i), b.Field(i)); s != "" {
				return s
			}
		}
	}
	return ""
}

// A copy shares nothing with what it was made from, whatever is added to the
// types: a writer must never change what a reader holds.
func TestCloneSharesNothing(t *testing.T) {
	j := &unit.Job{}
	full(reflect.ValueOf(j).Elem(), 0)
	c := j.Clone()
	assert.Equal(t, j, c)
	assert.Empty(t, shared("job", reflect.ValueOf(j), reflect.ValueOf(c)))
}

// A unit is laid out as its family has it; from then on it is its own.
func TestNewUnitIsLaidOutByItsFamily(t *testing.T) {
	lib, err := family.Shipped()
	require.NoError(t, err)
	for _, f := range lib.List() {
		u := unit.New(f, 2, "Iva", time.Unix(0, 0))
		require.Len(t, u.Parts, len(f.Parts), f.Code)
		assert.Equal(t, 1, u.Round())
		assert.NotNil(t, u.Attempt(0), "as received")
		for i, p := range u.Parts {
			def := &f.Parts[i]
			assert.Equal(t, def.Count, p.Expected)
			assert.Same(t, def, p.Def(f))
			for k, ft := range p.Features {
				fd := def.Features[k]
				assert.Equal(t, fd.Upper, ft.Upper.Typed)
				assert.NotEmpty(t, ft.LimitFor, "%s %s.%s: what the limit is for", f.Code, p.Code, ft.Code)
			}
		}
	}
}

func TestAddedPartsHaveCodesOfTheirOwn(t *testing.T) {
	u := &unit.Unit{Parts: []*unit.Part{{Code: "key"}, {Code: "extra-1"}}}
	first := u.AddPart(1, "Ring", "spacer", "", 2)
	second := u.AddPart(99, "Home-made shim", "shim", "", 1)
	assert.Equal(t, "extra-2", first.Code)
	assert.Equal(t, "extra-3", second.Code)
	assert.Equal(t, []string{"key", "extra-2", "extra-1", "extra-3"},
		[]string{u.Parts[0].Code, u.Parts[1].Code, u.Parts[2].Code, u.Parts[3].Code})
	assert.Equal(t, "spacer", first.Def(&family.Family{}).Kind)
	a, b := u.AddLoose("chip", "", 1), u.AddLoose("pin", "", 1)
	u.Loose = u.Loose[1:]
	assert.Equal(t, [3]int{1, 2, 3}, [3]int{a.Number, b.Number, u.AddLoose("ball", "", 1).Number},
		"a number is not given out twice while a later one is there")
}

// A later round's readings stand for those of an earlier one as a whole.
func TestNewestReadings(t *testing.T) {
	f := &unit.Feature{Readings: []*unit.Reading{
		{Round: 1, Stage: unit.StageFound, Slot: "v1"}, {Round: 1, Stage: unit.StageFound, Slot: "v2"},
		{Round: 2, Stage: unit.StageFound, Slot: "v1"}, {Round: 1, Stage: unit.StageBuilt, Slot: "v1"},
	}}
	assert.Len(t, f.Newest(unit.StageFound), 1)
	assert.Equal(t, 2, f.Newest(unit.StageFound)[0].Round)
	assert.Len(t, f.Newest(unit.StageBuilt), 1)
	u := &unit.Unit{Marks: []*unit.UnitMark{{Mark: unit.Mark{Round: 2, Code: "x", State: unit.MarkAbsent}},
		{Mark: unit.Mark{Round: 1, Code: "x", State: unit.MarkSeen}}}}
	assert.Equal(t, unit.MarkAbsent, u.LastSaid("x").State, "the later round's word, whatever the order")
	assert.Equal(t, unit.OriginFound, u.LastSaid("never spoken of").Origin)
}
