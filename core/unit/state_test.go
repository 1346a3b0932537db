package unit_test

import (
	"fmt"
	"reflect"
	"strings"
	"testing"
	"time"

	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// keys tell where in the tables of one store a row stands, and nothing of the job.
var keys = map[string]bool{"OfJob": true, "OfUnit": true, "OfPart": true, "OfFeature": true, "OfAttempt": true,
	"OfPicture": true, "ID": true, "CustomerID": true, "Ordinal": true}

// leaves calls f with every value that a job holds, by its path.
func leaves(path string, v reflect.Value, f func(path string, v reflect.Value)) {
	switch v.Kind() {
	case reflect.Pointer:
		leaves(path, v.Elem(), f)
	case reflect.Slice:
		for i := range v.Len() {
			leaves(fmt.Sprintf("%s[%d]", path, i), v.Index(i), f)
		}
	case reflect.Struct:
		if v.Type() == reflect.TypeFor[time.Time]() || v.Type() == reflect.TypeFor[quantity.Quantity]() {
			f(path, v)
			return
		}
		for i := range v.NumField() {
			if name := v.Type().Field(i).Name; !keys[name] {
				leaves(path+"."+name, v.Field(i), f)
			}
		}
	default:
		f(path, v)
	}
}

// other puts another value in a place.
func other(v reflect.Value) {
	switch x := v.Interface().(type) {
	case time.Time:
		v.Set(reflect.ValueOf(x.Add(time.Second)))
		return
	case quantity.Quantity:
		x.Typed += "1"
		v.Set(reflect.ValueOf(x))
		return
	}
	switch v.Kind() {
	case reflect.String:
		v.SetString(v.String() + "!")
	case reflect.Int, reflect.Int64:
		v.SetInt(v.Int() + 1)
	case reflect.Float64:
		v.SetFloat(v.Float() + 1)
	case reflect.Bool:
		v.SetBool(!v.Bool())
	case reflect.Map:
		value := reflect.New(v.Type().Elem()).Elem()
		if v.Type() == reflect.TypeFor[map[string]*unit.Taking]() {
			value.Set(reflect.ValueOf(&unit.Taking{Ground: 9}))
		} else {
			other(value)
		}
		v.SetMapIndex(reflect.ValueOf("question"), value)
	default:
		panic(v.Kind())
	}
}

func fullJob() *unit.Job {
	j := &unit.Job{}
	full(reflect.ValueOf(j).Elem(), 0)
	for i, u := range j.Units {
		u.Number = i + 1
		for n, p := range u.Parts {
			p.Code = fmt.Sprint("part", n)
		}
		for n, a := range u.Attempts {
			a.Number = n
			for m, p := range a.Points {
				p.Code = fmt.Sprint("point", m)
			}
		}
	}
	for i, p := range j.Pictures {
		p.Number = i + 1
	}
	return j
}

// Every value that a job holds is in its fingerprint, and in the section of the thing it belongs
// to; but for what is worked out, the version, and where a customer is found, which is the shop's.
func TestEveryValueIsInTheFingerprint(t *testing.T) {
	left := map[string]bool{".Version": true, ".Station": true, ".Customer.Place": true, ".Customer.Contact": true}
	was, err := fullJob().Sections()
	require.NoError(t, err)
	n := 0
	leaves("", reflect.ValueOf(fullJob()), func(path string, _ reflect.Value) {
		j := fullJob()
		leaves("", reflect.ValueOf(j), func(at string, v reflect.Value) {
			if at == path {
				other(v)
			}
		})
		now, err := j.Sections()
		require.NoError(t, err)
		if left[path] || strings.Contains(path, ".Readings[") && strings.HasSuffix(path, ".Size") ||
			strings.Contains(path, ".Features[") && strings.HasSuffix(path, "].Place") {
			assert.Equal(t, unit.StateOf(was), unit.StateOf(now), path)
			return
		}
		n++
		assert.NotEqual(t, unit.StateOf(was), unit.StateOf(now), path)
		where := unit.Differ(was, now)
		switch {
		case strings.HasSuffix(path, "].Code") || strings.HasSuffix(path, ".Number"):
		case strings.HasPrefix(path, ".Units[1].Parts[0]"):
			assert.Equal(t, []string{"u2/part/part0"}, where, path)
		case strings.HasPrefix(path, ".Units[0].Attempts[1].Points[0]"):
			assert.Equal(t, []string{"u1/attempt/1/point/point0"}, where, path)
		default:
			assert.Len(t, where, 1, path)
		}
	})
	assert.Greater(t, n, 500)
}

// A job that was kept and comes back has the fingerprint it had: moments lose what a database
// keeps not, and what is empty is as what is not there.
func TestTheFingerprintIsOfWhatIsKept(t *testing.T) {
	j := fullJob()
	leaves("", reflect.ValueOf(j), func(_ string, v reflect.Value) {
		if v.Type() == reflect.TypeFor[time.Time]() {
			v.Set(reflect.ValueOf(time.Unix(0, 123456789).In(time.FixedZone("shop", 7200))))
		}
	})
	j.Order()
	leaves("", reflect.ValueOf(j), func(path string, v reflect.Value) {
		if at, is := v.Interface().(time.Time); is {
			assert.Equal(t, time.Unix(0, 123456000).UTC(), at, path)
		}
	})
	a, b := &unit.Unit{Number: 1}, &unit.Unit{Number: 1, Gauge: map[string]string{}, Parts: []*unit.Part{}}
	x, err := (&unit.Job{Units: []*unit.Unit{a}}).State()
	require.NoError(t, err)
	y, err := (&unit.Job{Units: []*unit.Unit{b}, Symptoms: []string{}}).State()
	require.NoError(t, err)
	assert.Equal(t, x, y)
}

func TestDiffer(t *testing.T) {
	a := []unit.Section{{Path: "job", Sum: "1"}, {Path: "u1", Sum: "2"}, {Path: "u1/part/ball", Sum: "3"}}
	b := []unit.Section{{Path: "job", Sum: "1"}, {Path: "u1", Sum: "9"}, {Path: "u1/part/seat", Sum: "3"}}
	assert.Equal(t, []string{"u1", "u1/part/ball", "u1/part/seat"}, unit.Differ(a, b))
	assert.Empty(t, unit.Differ(a, a))
}
