package store

import (
	"cmp"
	"reflect"
	"slices"
	"time"

	"corvek/core/unit"

	"gorm.io/gorm/schema"
)

// row is what a change did, as it is kept with the act.
func (ch change) row() (out changedRow, err error) {
	either, fields := ch.after, ch.fields
	if !either.IsValid() {
		either = ch.before
	}
	if fields == nil {
		fields = ch.kind.values
	}
	out = changedRow{Table: ch.kind.Table}
	if ch.kind != jobKind {
		for _, f := range ch.kind.own {
			out.Key = append(out.Key, of(f, either).Interface())
		}
	}
	if out.Before, err = columnsOf(fields, ch.before); err != nil {
		return out, err
	}
	out.After, err = columnsOf(fields, ch.after)
	return out, err
}

// columnsOf gives columns of a row by name, nil of none.
func columnsOf(fields []*schema.Field, row reflect.Value) (columns, error) {
	if !row.IsValid() {
		return nil, nil
	}
	out := make(columns, len(fields))
	for _, f := range fields {
		v, err := column(f, row)
		if err != nil {
			return nil, err
		}
		out[f.DBName] = v
	}
	return out, nil
}

// rowsOf finds the rows of a job by kind and key.
type rowsOf map[*kind]map[string]reflect.Value

func rowsByKey(j *unit.Job) rowsOf {
	root := reflect.ValueOf(j).Elem()
	out := rowsOf{jobKind: {"": root}}
	jobKind.each(root, func(k *kind, row reflect.Value) {
		if out[k] == nil {
			out[k] = map[string]reflect.Value{}
		}
		out[k][key(k.own, row)] = row
	})
	return out
}

// parent is the row that another one hangs off.
func (r rowsOf) parent(k *kind, row reflect.Value) (reflect.Value, bool) {
	if k.up == jobKind {
		return r[jobKind][""], true
	}
	p, there := r[k.up][key(k.in.child[1:], row)] // behind the job's
	return p, there
}

// without is a copy of a job as it would be without what was changed in it.
func without(j *unit.Job, changed []changedRow) (*unit.Job, error) {
	out := j.Clone()
	rows := rowsByKey(out)
	for _, c := range changed {
		if !c.stands(rows) {
			return nil, ErrRestsOn
		}
	}
	// What was removed comes back, parents first; the rest goes the other way.
	for _, c := range changed {
		if c.After == nil && !c.bringBack(rows, out.ID) {
			return nil, ErrRestsOn
		}
	}
	for _, c := range slices.Backward(changed) {
		if c.After != nil && !c.takeBack(rows) {
			return nil, ErrRestsOn
		}
	}
	out.Order()
	if len(changes(j, out)) != len(changed) {
		return nil, ErrRestsOn
	}
	return out, nil
}

// sample is a row that holds nothing but the key and the columns that are given; ok is false where
// the kind of row has no such column any more.
func (c changedRow) sample(side columns) (k *kind, row reflect.Value, fields []*schema.Field, ok bool) {
	k = kindOf[c.Table]
	if k == nil || k != jobKind && len(c.Key) != len(k.own) {
		return nil, row, nil, false
	}
	row = reflect.New(k.ModelType).Elem()
	for i, v := range c.Key {
		if setColumn(k.own[i], row, asKept(k.own[i], v)) != nil {
			return nil, row, nil, false
		}
	}
	for name, v := range side {
		f := k.LookUpField(name)
		if f == nil || f.DBName != name || setColumn(f, row, asKept(f, v)) != nil {
			return nil, row, nil, false
		}
		fields = append(fields, f)
	}
	return k, row, fields, true
}

// asKept gives what was read from JSON the type that the column has.
func asKept(f *schema.Field, v any) any {
	switch v := v.(type) {
	case float64:
		if of(f, reflect.New(f.Schema.ModelType).Elem()).CanInt() {
			return int64(v)
		}
	case string:
		if t, err := time.Parse(time.RFC3339Nano, v); err == nil && f.DataType == schema.Time {
			return t
		}
	}
	return v
}

// find gives the row that was changed, with its kind.
func (c changedRow) find(rows rowsOf) (k *kind, row reflect.Value, there bool) {
	k, sample, _, ok := c.sample(nil)
	if !ok {
		return nil, row, false
	}
	name := ""
	if k != jobKind {
		name = key(k.own, sample)
	}
	row, there = rows[k][name]
	return k, row, there
}

// stands reports that a row is still as the act left it.
func (c changedRow) stands(rows rowsOf) bool {
	_, sample, fields, ok := c.sample(c.After)
	_, row, there := c.find(rows)
	if !ok || there != (c.After != nil) {
		return false
	}
	for _, f := range fields {
		if !sameValue(f, sample, row) {
			return false
		}
	}
	return true
}

// bringBack puts a row in its list that was removed; false where what it hung off is gone too, or
// where it cannot come back whole.
func (c changedRow) bringBack(rows rowsOf, job int64) bool {
	k, row, _, ok := c.sample(c.Before)
	if !ok || k == jobKind || k.Table == (unit.Picture{}).TableName() { // what it showed is gone
		return false
	}
	of(k.LookUpField("job_id"), row).SetInt(job)
	parent, there := rows.parent(k, row)
	if !there {
		return false
	}
	read(row)
	list := k.in.rows(parent)
	list.Set(reflect.Append(list, row.Addr()))
	if rows[k] == nil {
		rows[k] = map[string]reflect.Value{}
	}
	rows[k][key(k.own, row)] = row
	k.in.sort(parent)
	return true
}

// takeBack writes a row as it was before, or takes one out of its list that was not there; false
// where something hangs off it.
func (c changedRow) takeBack(rows rowsOf) bool {
	k, row, there := c.find(rows)
	if !there {
		return false
	}
	if c.Before != nil {
		for name, v := range c.Before {
			f := k.LookUpField(name)
			if f == nil || setColumn(f, row, asKept(f, v)) != nil {
				return false
			}
		}
		read(row)
		if parent, there := rows.parent(k, row); k != jobKind && there {
			k.in.sort(parent)
		}
		return true
	}
	for _, l := range k.lists {
		if l.rows(row).Len() > 0 {
			return false
		}
	}
	parent, there := rows.parent(k, row)
	if !there {
		return false
	}
	list := k.in.rows(parent)
	kept := reflect.Zero(list.Type()) // a list of nothing is none, as it is read
	for i := range list.Len() {
		if list.Index(i).Pointer() != row.Addr().Pointer() {
			kept = reflect.Append(kept, list.Index(i))
		}
	}
	list.Set(kept)
	return true
}

// read works out what a row holds beside its columns.
func read(row reflect.Value) {
	if m, is := row.Addr().Interface().(interface{ Measure() }); is {
		m.Measure()
	}
}

// sort puts a list in the order in which it is read.
func (l list) sort(parent reflect.Value) {
	by := l.own[len(l.own)-1]
	if l.position != nil {
		by = l.position
	}
	rows := l.rows(parent)
	sorted := make([]reflect.Value, rows.Len())
	for i := range sorted {
		sorted[i] = rows.Index(i).Elem().Addr()
	}
	slices.SortStableFunc(sorted, func(a, b reflect.Value) int {
		x, y := of(by, a.Elem()), of(by, b.Elem())
		if x.CanInt() {
			return cmp.Compare(x.Int(), y.Int())
		}
		return cmp.Compare(x.String(), y.String())
	})
	for i, r := range sorted {
		rows.Index(i).Set(r)
	}
}
