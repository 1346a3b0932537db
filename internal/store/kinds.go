package store

import (
	"context"
	"database/sql/driver"
	"fmt"
	"reflect"
	"strconv"
	"strings"
	"sync"
	"time"

	"corvek/core/quantity"
	"corvek/core/unit"

	"gorm.io/gorm/schema"
)

// kind is a kind of row of a job, as its type in core/unit declares it, with the kinds that hang
// off it.
type kind struct {
	*schema.Schema
	own      []*schema.Field // of the key, behind the job's
	values   []*schema.Field // what is kept beside the key
	position *schema.Field   // its place in its list, from 1, where it has no number that tells it
	lists    []list
	up       *kind // that it hangs off, nil of the job's
	in       list  // of that one
}

// list is what hangs off a row: a list of another kind.
type list struct {
	*kind
	field  *schema.Field // of the parent, that holds it
	parent []*schema.Field
	child  []*schema.Field // hold in the child's key what parent does in the parent's
}

// jobKind is the job itself, and all that hangs off it.
var jobKind = parseKinds()

// kinds are all kinds but the job's own, parents before children, and by the name of their table.
var kinds, kindOf = jobKind.below()

// positionTag is what a field says that is its row's place in its list.
const positionTag = "POSITION"

func parseKinds() *kind {
	registerSerializers()
	parsed, err := schema.Parse(&unit.Job{}, &sync.Map{}, schema.NamingStrategy{})
	if err != nil {
		panic(err) // the types of the program itself
	}
	return kindFor(parsed, nil)
}

func kindFor(of *schema.Schema, up *kind) *kind {
	k := &kind{Schema: of, up: up}
	for _, f := range of.Fields {
		_, positioned := f.TagSettings[positionTag]
		switch {
		case f.DBName == "" || f.DBName == "job_id":
		case f.PrimaryKey:
			k.own = append(k.own, f)
		default:
			k.values = append(k.values, f)
			if positioned {
				k.position = f
			}
		}
	}
	for _, r := range of.Relationships.HasMany {
		l := list{kind: kindFor(r.FieldSchema, k), field: r.Field}
		for _, ref := range r.References {
			l.parent, l.child = append(l.parent, ref.PrimaryKey), append(l.child, ref.ForeignKey)
		}
		l.kind.in = l
		k.lists = append(k.lists, l)
	}
	return k
}

func (k *kind) below() (all []*kind, byTable map[string]*kind) {
	byTable = map[string]*kind{k.Table: k}
	for _, l := range k.lists {
		more, named := l.below()
		all = append(append(all, l.kind), more...)
		byTable[l.Table] = l.kind
		for name, kind := range named {
			byTable[name] = kind
		}
	}
	return all, byTable
}

// of gives the value of a field of a row.
func of(f *schema.Field, row reflect.Value) reflect.Value {
	return f.ReflectValueOf(context.Background(), row)
}

// key tells rows of one kind apart within a job.
func key(fields []*schema.Field, row reflect.Value) string {
	var b strings.Builder
	for _, f := range fields {
		if v := of(f, row); v.CanInt() {
			b.WriteString(strconv.FormatInt(v.Int(), 10))
		} else {
			b.WriteString(v.String())
		}
		b.WriteByte(0)
	}
	return b.String()
}

// rows gives the rows of a list of a parent.
func (l list) rows(parent reflect.Value) reflect.Value { return of(l.field, parent) }

// each calls f with every row below one, parents before children.
func (k *kind) each(row reflect.Value, f func(*kind, reflect.Value)) {
	for _, l := range k.lists {
		rows := l.rows(row)
		for i := range rows.Len() {
			child := rows.Index(i).Elem()
			f(l.kind, child)
			l.each(child, f)
		}
	}
}

// number gives every row below one the key of what it hangs off, and its place.
func (k *kind) number(row reflect.Value) {
	for _, l := range k.lists {
		rows := l.rows(row)
		for i := range rows.Len() {
			child := rows.Index(i).Elem()
			for n, f := range l.child {
				of(f, child).Set(of(l.parent[n], row))
			}
			if l.position != nil {
				of(l.position, child).SetInt(int64(i + 1))
			}
			l.number(child)
		}
	}
}

// sameValue compares a field of two rows as the table keeps it.
func sameValue(f *schema.Field, a, b reflect.Value) bool {
	x, y := of(f, a), of(f, b)
	switch p := x.Addr().Interface().(type) {
	case *quantity.Quantity:
		return p.Typed == y.Addr().Interface().(*quantity.Quantity).Typed
	case *time.Time:
		return p.Equal(*y.Addr().Interface().(*time.Time))
	}
	if x.Kind() != reflect.Map && x.Kind() != reflect.Slice {
		return x.Equal(y)
	}
	return x.Len() == y.Len() && fmt.Sprint(x) == fmt.Sprint(y) // maps print in the order of their keys
}

// column is what the table keeps of a field.
func column(f *schema.Field, row reflect.Value) (any, error) {
	v, _ := f.ValueOf(context.Background(), row)
	if kept, is := v.(driver.Valuer); is {
		return kept.Value()
	}
	return v, nil
}

// setColumn writes what a table kept of a field.
func setColumn(f *schema.Field, row reflect.Value, v any) error {
	if f.Serializer != nil {
		return f.Serializer.Scan(context.Background(), f, row, v)
	}
	return f.Set(context.Background(), row, v)
}
