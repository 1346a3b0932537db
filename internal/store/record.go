package store

import (
	"context"
	"iter"

	"corvek/core/unit"
)

// atOnce is how many lines of a record are held in memory at a time.
const atOnce = 500

const entryOf = `SELECT r.place, r.who, r.at, r.action, r.field, r.before, r.after, r.brought
	FROM record_entries r JOIN jobs j ON j.id = r.job_id
	WHERE j.tag = ?`

// Record gives the last lines of the record of a job, newest first.
func (s *Store) Record(ctx context.Context, tag string, limit int) ([]unit.Entry, error) {
	var out []unit.Entry
	err := s.db.WithContext(ctx).Raw(entryOf+" ORDER BY r.place DESC LIMIT ?", tag, limit).Scan(&out).Error
	return out, err
}

// RecordLength is how many lines the record of a job has.
func (s *Store) RecordLength(ctx context.Context, tag string) (lines int64, err error) {
	err = s.db.WithContext(ctx).Raw(`SELECT count(*) FROM record_entries r JOIN jobs j ON j.id = r.job_id
		WHERE j.tag = ?`, tag).Scan(&lines).Error
	return lines, err
}

// Lines gives the whole record of a job, oldest first. It is read a piece at a time,
// and between pieces no connection is held, so that a long record read by a slow
// hand costs neither memory nor a connection. What is written meanwhile comes too.
func (s *Store) Lines(ctx context.Context, tag string) iter.Seq2[unit.Entry, error] {
	return func(yield func(unit.Entry, error) bool) {
		last := int64(0)
		for {
			var piece []struct {
				unit.Entry
				Place int64
			}
			err := s.db.WithContext(ctx).Raw(entryOf+" AND r.place > ? ORDER BY r.place LIMIT ?",
				tag, last, atOnce).Scan(&piece).Error
			if err != nil {
				yield(unit.Entry{}, err)
				return
			}
			for _, line := range piece {
				if !yield(line.Entry, nil) {
					return
				}
				last = line.Place
			}
			if len(piece) < atOnce {
				return
			}
		}
	}
}
