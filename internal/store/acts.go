package store

import (
	"context"
	"database/sql/driver"
	"errors"
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

// changedRow is what one person's write did to a row, as it is kept: the columns before and after;
// nil where there was none.
type changedRow struct {
	Table  string
	Key    []any
	Before columns
	After  columns
}

// columns are values by the names of their columns: the part of a row that an act changed, whatever
// kind of row it is and whichever columns it has by then.
type columns map[string]driver.Value

// act is the row that keeps one.
type act struct {
	JobID   int64 `gorm:"primaryKey;autoIncrement:false"`
	Version int64 `gorm:"primaryKey;autoIncrement:false"`
	Who     string
	At      time.Time
	Lines   []ActLine    `gorm:"serializer:json"`
	Changed []changedRow `gorm:"serializer:json"`
	Undone  bool
}

// ErrRestsOn says that an act cannot be taken back, since something was changed after it
// that rests on it.
var ErrRestsOn = errors.New("something that was entered since rests on it")

// keepAct notes what a person's write changed.
func keepAct(db *gorm.DB, c *Change, changed []change) error {
	if c.Who == "" || len(changed) == 0 {
		return nil
	}
	lines := []ActLine{}
	for _, e := range c.Entries {
		lines = append(lines, ActLine{e.Action, e.Field, e.Before, e.After})
	}
	rows := make([]changedRow, len(changed))
	for i, ch := range changed {
		var err error
		if rows[i], err = ch.row(); err != nil {
			return err
		}
	}
	return db.Omit("At").Create(&act{JobID: c.Job.ID, Version: c.Job.Version, Who: c.Who, Lines: lines,
		Changed: rows}).Error
}

// LastAct is what a person did last on a job and has not taken back; nil where there is
// nothing.
func (s *Store) LastAct(ctx context.Context, tag, who string) (*Act, error) {
	of := s.db.WithContext(ctx).Model(&unit.Job{}).Select("id").Where("tag = ?", tag)
	return lastAct(s.db.WithContext(ctx).Omit("Changed").Where("job_id = (?)", of), who)
}

// LastAct is Store.LastAct within the transaction of a write, with what it changed.
func (h History) LastAct(who string) (*Act, error) {
	return lastAct(h.db.Where("job_id = ?", h.Before.ID), who)
}

func lastAct(db *gorm.DB, who string) (*Act, error) {
	var found []act
	err := db.Where("who = ? AND NOT undone", who).Order("version DESC").Limit(1).Find(&found).Error
	if err != nil || len(found) == 0 {
		return nil, err
	}
	return &Act{Version: found[0].Version, Lines: found[0].Lines, changed: found[0].Changed}, nil
}

// Without gives the job as it would be without an act; ErrRestsOn where what it changed
// is another by now, or where something hangs on it. Nothing is written, and j stays as it is.
func (h History) Without(j *unit.Job, a *Act) (*unit.Job, error) { return without(j, a.changed) }

// Undone notes that an act was taken back.
func (h History) Undone(a *Act) error {
	return h.db.Model(&act{JobID: h.Before.ID, Version: a.Version}).Update("undone", true).Error
}

// DropOldActs forgets acts that nobody takes back any more.
func (s *Store) DropOldActs(ctx context.Context) error {
	return s.db.WithContext(ctx).Where("at < now() - interval '60 days'").Delete(&act{}).Error
}
