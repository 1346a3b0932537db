package store

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"math"
	"slices"
	"time"

	"corvek/core/unit"

	"gorm.io/gorm"
)

// Act is what one person wrote at once, with the lines it left in the record.
type Act struct {
	Version int64 // of the job after it
	Lines   []ActLine
	changed []changedRow
}

// ActLine is a line of the record, as far as an act is told by it.
type ActLine struct {
	Action, Field, Before, After string
}

// changedRow is a row before and after an act; nil where there was none.
type changedRow struct {
	Table  string
	Key    []any
	Before columns
	After  columns
}

// headTable stands for the job's own row among the changed ones.
const headTable = "jobs"

// ErrRestsOn says that an act cannot be taken back, since something was changed after it
// that rests on it.
var ErrRestsOn = errors.New("something that was entered since rests on it")

// changes are the rows in which two states of a job differ, parents first.
func changes(before, after *unit.Job) (out []changedRow) {
	if b, a := differ(jobColumns(before), jobColumns(after)); len(a) > 0 {
		out = append(out, changedRow{headTable, nil, b, a})
	}
	old := map[string]row{}
	for _, r := range rows(before) {
		old[r.id()] = r
	}
	for _, r := range rows(after) {
		was, there := old[r.id()]
		delete(old, r.id())
		if !there {
			out = append(out, changedRow{r.table.name, r.key, nil, r.cols})
			continue
		}
		if b, a := differ(was.cols, r.cols); len(a) > 0 {
			out = append(out, changedRow{r.table.name, r.key, b, a})
		}
	}
	for _, r := range rows(before) {
		if _, gone := old[r.id()]; gone {
			out = append(out, changedRow{r.table.name, r.key, r.cols, nil})
		}
	}
	return out
}

// differ gives the columns that are another, before and after.
func differ(before, after columns) (b, a columns) {
	b, a = columns{}, columns{}
	for name, v := range after {
		if !same(v, before[name]) {
			b[name], a[name] = before[name], v
		}
	}
	return b, a
}

// keepAct notes what a person's write changed.
func keepAct(db *gorm.DB, id int64, c *Change, changed []changedRow) error {
	if c.Who == "" || len(changed) == 0 {
		return nil
	}
	lines := []ActLine{}
	for _, e := range c.Entries {
		lines = append(lines, ActLine{e.Action, e.Field, e.Before, e.After})
	}
	told, err := json.Marshal(lines)
	if err != nil {
		return err
	}
	text, err := json.Marshal(changed)
	if err != nil {
		return err
	}
	return db.Exec("INSERT INTO acts (job_id, version, who, lines, changed) VALUES (?, ?, ?, ?::jsonb, ?::jsonb)",
		id, c.Job.Version, c.Who, string(told), string(text)).Error
}

// LastAct is what a person did last on a job and has not taken back; nil where there is
// nothing.
func (s *Store) LastAct(ctx context.Context, tag, who string) (*Act, error) {
	return lastAct(s.db.WithContext(ctx).Where("job_id = (SELECT id FROM jobs WHERE tag = ?)", tag), who, "lines")
}

// LastAct is Store.LastAct within the transaction of a write, with what it changed.
func (h History) LastAct(who string) (*Act, error) {
	return lastAct(h.db.Where("job_id = ?", h.id), who, "lines, changed")
}

func lastAct(db *gorm.DB, who, columns string) (*Act, error) {
	var found []struct {
		Version        int64
		Lines, Changed string
	}
	err := db.Table("acts").Select("version, "+columns).Where("who = ? AND NOT undone", who).
		Order("version DESC").Limit(1).Find(&found).Error
	if err != nil || len(found) == 0 {
		return nil, err
	}
	a := &Act{Version: found[0].Version}
	if err := json.Unmarshal([]byte(found[0].Lines), &a.Lines); err != nil {
		return nil, err
	}
	if found[0].Changed == "" {
		return a, nil
	}
	err = json.Unmarshal([]byte(found[0].Changed), &a.changed)
	for i := range a.changed {
		a.changed[i].read()
	}
	return a, err
}

// read gives the figures and moments of a row that was kept as text their kind again.
func (r *changedRow) read() {
	for i := range r.Key {
		r.Key[i] = kept(r.Key[i])
	}
	for _, cols := range []columns{r.Before, r.After} {
		for name, v := range cols {
			cols[name] = kept(v)
		}
	}
}

func kept(v any) any {
	switch v := v.(type) {
	case float64:
		if v == math.Trunc(v) {
			return int64(v)
		}
	case string:
		if t, err := time.Parse(time.RFC3339Nano, v); err == nil && len(v) > len(time.DateOnly) {
			return t
		}
	}
	return v
}

// alike compares what a column keeps with what was noted of it.
func alike(a, b any) bool {
	if x, is := a.(time.Time); is {
		y, too := b.(time.Time)
		return too && x.Equal(y)
	}
	x, errX := json.Marshal(a)
	y, errY := json.Marshal(b)
	return errX == nil && errY == nil && bytes.Equal(x, y)
}

// errBack brings a transaction back to where it began.
var errBack = errors.New("back")

// Without gives the job as it would be without an act; ErrRestsOn where what it changed
// is another by now, or where something hangs on it. Nothing is written.
func (h History) Without(j *unit.Job, a *Act) (*unit.Job, error) {
	if !stands(j, a.changed) {
		return nil, ErrRestsOn
	}
	var without *unit.Job
	err := h.db.Transaction(func(db *gorm.DB) error {
		if err := takeBack(db, h.id, a.changed); err != nil {
			return err
		}
		var err error
		if without, _, err = load(db, j.Tag); err != nil {
			return err
		}
		return errBack
	})
	if !errors.Is(err, errBack) {
		return nil, err
	}
	without.Version, without.Station = j.Version, j.Station
	// What else went with it, such as readings of a part that was added, was not its own.
	if len(changes(j, without)) != len(a.changed) {
		return nil, ErrRestsOn
	}
	return without, nil
}

// stands reports that all that an act changed is still as it left it.
func stands(j *unit.Job, changed []changedRow) bool {
	now := map[string]columns{row{table: &table{name: headTable}}.id(): jobColumns(j)}
	for _, r := range rows(j) {
		now[r.id()] = r.cols
	}
	for _, c := range changed {
		cols, there := now[c.id()]
		if there != (c.After != nil) {
			return false
		}
		for name, v := range c.After {
			if !alike(cols[name], v) {
				return false
			}
		}
	}
	return true
}

func (r changedRow) id() string {
	key := make([]any, len(r.Key))
	for i, k := range r.Key {
		if n, is := k.(int64); is {
			k = int(n)
		}
		key[i] = k
	}
	return row{table: &table{name: r.Table}, key: key}.id()
}

// takeBack writes rows as they were before: what was removed comes back, parents first,
// then the rest goes the other way.
func takeBack(db *gorm.DB, id int64, changed []changedRow) error {
	var back []row
	for _, r := range changed {
		t := tables[r.Table]
		if r.After == nil && t == picturesTable {
			return ErrRestsOn // what it showed is gone
		}
		if r.After == nil {
			back = append(back, row{t, r.Key, r.Before})
		}
	}
	if err := insert(db, id, back, nil); err != nil {
		return err
	}
	for _, r := range slices.Backward(changed) {
		var err error
		switch {
		case r.Table == headTable:
			err = db.Table(headTable).Where("id = ?", id).Updates(map[string]any(r.Before)).Error
		case r.Before == nil:
			err = remove(db, id, row{table: tables[r.Table], key: r.Key})
		case r.After != nil:
			err = update(db, id, r, r.Before)
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// Undone notes that an act was taken back.
func (h History) Undone(a *Act) error {
	return h.db.Exec("UPDATE acts SET undone = true WHERE job_id = ? AND version = ?", h.id, a.Version).Error
}

// DropOldActs forgets acts that nobody takes back any more.
func (s *Store) DropOldActs(ctx context.Context) error {
	return s.db.WithContext(ctx).Exec("DELETE FROM acts WHERE at < now() - interval '60 days'").Error
}
