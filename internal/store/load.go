package store

import (
	"errors"
	"fmt"
	"reflect"

	"corvek/core/unit"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// load reads a job whole but for the content of its pictures. It is one
// consistent state only within a transaction.
func load(db *gorm.DB, tag string) (*unit.Job, error) {
	j := &unit.Job{}
	err := db.Joins("Customer").Where("tag = ?", tag).Take(j).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return nil, ErrNotFound
	}
	if err != nil {
		return nil, err
	}
	if err := readBelow(db, j.ID, jobKind, []reflect.Value{reflect.ValueOf(j).Elem()}); err != nil {
		return nil, err
	}
	j.Order()
	return j, nil
}

// readBelow reads what hangs off rows: each table once, whole, whatever there is of the parents.
func readBelow(db *gorm.DB, id int64, k *kind, parents []reflect.Value) error {
	for _, l := range k.lists {
		byKey := make(map[string]reflect.Value, len(parents))
		for _, p := range parents {
			byKey[key(l.parent, p)] = p
		}
		found := reflect.New(reflect.SliceOf(l.field.FieldType.Elem()))
		err := db.Where("job_id = ?", id).Clauses(clause.OrderBy{Columns: l.order()}).Find(found.Interface()).Error
		if err != nil {
			return fmt.Errorf("%s: %w", l.Table, err)
		}
		children := make([]reflect.Value, found.Elem().Len())
		for i := range children {
			row := found.Elem().Index(i)
			children[i] = row.Elem()
			read(children[i])
			parent, there := byKey[key(l.child, row.Elem())]
			if !there {
				return fmt.Errorf("%s: a row hangs off nothing that is there", l.Table)
			}
			rows := l.rows(parent)
			rows.Set(reflect.Append(rows, row))
		}
		if err := readBelow(db, id, l.kind, children); err != nil {
			return err
		}
	}
	return nil
}

// order is that of a list: by place where it has one, else by number or code.
func (k *kind) order() (out []clause.OrderByColumn) {
	for i, f := range k.own {
		if k.position != nil && i == len(k.own)-1 {
			f = k.position
		}
		out = append(out, clause.OrderByColumn{Column: clause.Column{Name: f.DBName}})
	}
	return out
}
