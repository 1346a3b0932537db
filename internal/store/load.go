package store

import (
	"fmt"
	"reflect"
	"strconv"

	"corvek/core/unit"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// load reads a job whole but for the content of its pictures. It is one
// consistent state only within a transaction.
func load(db *gorm.DB, tag string) (*unit.Job, error) {
	jobs, err := loadAll(db, []string{tag})
	if err != nil {
		return nil, err
	}
	if len(jobs) == 0 {
		return nil, ErrNotFound
	}
	return jobs[0], nil
}

// loadAll reads jobs so, as many as there are of the tags: each table once for all of them.
func loadAll(db *gorm.DB, tags []string) ([]*unit.Job, error) {
	var jobs []*unit.Job
	if err := db.Joins("Customer").Where("tag IN ?", tags).Find(&jobs).Error; err != nil || len(jobs) == 0 {
		return nil, err
	}
	ids, rows := make([]int64, len(jobs)), make([]reflect.Value, len(jobs))
	for i, j := range jobs {
		ids[i], rows[i] = j.ID, reflect.ValueOf(j).Elem()
	}
	if err := readBelow(db, ids, jobKind, rows); err != nil {
		return nil, err
	}
	for _, j := range jobs {
		j.Order()
	}
	return jobs, nil
}

// readBelow reads what hangs off rows of jobs: each table once, whole, whatever there is of the parents.
func readBelow(db *gorm.DB, ids []int64, k *kind, parents []reflect.Value) error {
	for _, l := range k.lists {
		byKey := make(map[string]reflect.Value, len(parents))
		for _, p := range parents {
			byKey[k.jobOf(p)+key(l.parent, p)] = p
		}
		found := reflect.New(reflect.SliceOf(l.field.FieldType.Elem()))
		err := db.Where("job_id IN ?", ids).Clauses(clause.OrderBy{Columns: l.order()}).Find(found.Interface()).Error
		if err != nil {
			return fmt.Errorf("%s: %w", l.Table, err)
		}
		children := make([]reflect.Value, found.Elem().Len())
		for i := range children {
			row := found.Elem().Index(i)
			children[i] = row.Elem()
			read(children[i])
			parent, there := byKey[l.jobOf(row.Elem())+key(l.child, row.Elem())]
			if !there {
				return fmt.Errorf("%s: a row hangs off nothing that is there", l.Table)
			}
			rows := l.rows(parent)
			rows.Set(reflect.Append(rows, row))
		}
		if err := readBelow(db, ids, l.kind, children); err != nil {
			return err
		}
	}
	return nil
}

// jobOf is the number of the job that a row is of, as it stands before its key.
func (k *kind) jobOf(row reflect.Value) string {
	name := "job_id"
	if k.up == nil {
		name = "id"
	}
	return strconv.FormatInt(of(k.FieldsByDBName[name], row).Int(), 10) + ":"
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
