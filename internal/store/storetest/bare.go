package storetest

import (
	"reflect"
	"strings"

	"corvek/core/quantity"
	"corvek/core/unit"
)

// Bare is a copy of a job without the keys under which one store keeps it, so that jobs can be
// compared wherever they come from.
func Bare(j *unit.Job) *unit.Job {
	c := j.Clone()
	c.ID, c.CustomerID, c.Customer.ID = 0, 0, 0
	bare(reflect.ValueOf(c).Elem())
	return c
}

func bare(v reflect.Value) {
	for i := range v.NumField() {
		f, is := v.Field(i), v.Type().Field(i)
		switch {
		case is.Anonymous && strings.HasPrefix(is.Name, "Of"),
			strings.HasPrefix(is.Tag.Get("gorm"), "position"):
			f.SetZero()
		case f.Kind() == reflect.Slice && f.Type().Elem().Kind() == reflect.Pointer:
			for n := range f.Len() {
				bare(f.Index(n).Elem())
			}
		case f.Kind() == reflect.Struct && f.Type() != reflect.TypeFor[quantity.Quantity]() &&
			f.Type().PkgPath() == reflect.TypeFor[unit.Job]().PkgPath():
			bare(f)
		}
	}
}
