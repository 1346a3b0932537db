package store

import (
	"reflect"

	"corvek/core/unit"

	"gorm.io/gorm/schema"
)

// change is a row in which two states of a job differ; one side is the zero value where the row is
// new or gone.
type change struct {
	kind          *kind
	before, after reflect.Value
	fields        []*schema.Field // that are another, of a row that is there before and after
}

// workedOut are columns of a job's own row that nobody wrote: they follow from what was.
var workedOut = map[string]bool{"version": true, "station": true, "customer_id": true}

// changes are the rows in which two states of a job differ, parents first. It gives the rows of
// after the keys of what they hang off; before keeps its own.
func changes(before, after *unit.Job) (out []change) {
	was, is := reflect.ValueOf(before).Elem(), reflect.ValueOf(after).Elem()
	jobKind.number(is)
	if before.ID != 0 {
		if fields := jobKind.differ(was, is); len(fields) > 0 {
			out = append(out, change{jobKind, was, is, fields})
		}
	}
	old := map[*kind]map[string]reflect.Value{}
	jobKind.each(was, func(k *kind, row reflect.Value) {
		if old[k] == nil {
			old[k] = map[string]reflect.Value{}
		}
		old[k][key(k.own, row)] = row
	})
	jobKind.each(is, func(k *kind, row reflect.Value) {
		name := key(k.own, row)
		was, there := old[k][name]
		if !there {
			out = append(out, change{kind: k, after: row})
			return
		}
		delete(old[k], name)
		if fields := k.differ(was, row); len(fields) > 0 {
			out = append(out, change{k, was, row, fields})
		}
	})
	jobKind.each(was, func(k *kind, row reflect.Value) {
		if _, gone := old[k][key(k.own, row)]; gone {
			out = append(out, change{kind: k, before: row})
		}
	})
	return out
}

// differ gives the fields in which two rows of one key are another.
func (k *kind) differ(a, b reflect.Value) (out []*schema.Field) {
	for _, f := range k.values {
		if (k != jobKind || !workedOut[f.DBName]) && !sameValue(f, a, b) {
			out = append(out, f)
		}
	}
	return out
}
