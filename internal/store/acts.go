package store

import (
	"context"
	"encoding/json"
	"errors"

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
	Before map[string]any
	After  map[string]any
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
	told, err := json.Marshal(lines)
	if err != nil {
		return err
	}
	rows := make([]changedRow, len(changed))
	for i, ch := range changed {
		if rows[i], err = ch.row(); err != nil {
			return err
		}
	}
	text, err := json.Marshal(rows)
	if err != nil {
		return err
	}
	return db.Exec("INSERT INTO acts (job_id, version, who, lines, changed) VALUES (?, ?, ?, ?::jsonb, ?::jsonb)",
		c.Job.ID, c.Job.Version, c.Who, string(told), string(text)).Error
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
	return a, json.Unmarshal([]byte(found[0].Changed), &a.changed)
}

// Without gives the job as it would be without an act; ErrRestsOn where what it changed
// is another by now, or where something hangs on it. Nothing is written, and j stays as it is.
func (h History) Without(j *unit.Job, a *Act) (*unit.Job, error) { return without(j, a.changed) }

// Undone notes that an act was taken back.
func (h History) Undone(a *Act) error {
	return h.db.Exec("UPDATE acts SET undone = true WHERE job_id = ? AND version = ?", h.id, a.Version).Error
}

// DropOldActs forgets acts that nobody takes back any more.
func (s *Store) DropOldActs(ctx context.Context) error {
	return s.db.WithContext(ctx).Exec("DELETE FROM acts WHERE at < now() - interval '60 days'").Error
}
