package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"iter"
	"time"

	"corvek/core/unit"

	"gorm.io/gorm"
)

// atOnce is how many lines of a record are held in memory at a time.
const atOnce = 500

// entryRow is a line of the record as it is read.
type entryRow struct {
	Place         int64
	Who, Role     string
	At            time.Time
	Action, Field string
	Before, After string
	Event         string
	Brought       bool
	Form          int
}

func (r entryRow) entry() (unit.Entry, error) {
	e := unit.Entry{Who: r.Who, Role: r.Role, At: r.At, Action: r.Action, Field: r.Field, Before: r.Before,
		After: r.After, Brought: r.Brought}
	if r.Form == 1 {
		e.Event = unit.EventOfWords(r.Action)
	}
	if r.Event == "" {
		return e, nil
	}
	e.Event = &unit.Event{}
	if err := json.Unmarshal([]byte(r.Event), e.Event); err != nil {
		return e, fmt.Errorf("line %d of the record: %w", r.Place, err)
	}
	return e, nil
}

const entryOf = `SELECT r.place, r.who, r.role, r.at, r.action, r.field, r.before, r.after, r.event, r.brought, r.form
	FROM record_entries r JOIN jobs j ON j.id = r.job_id
	WHERE j.tag = ?`

func entries(db *gorm.DB, query string, args ...any) (out []unit.Entry, last int64, err error) {
	var rows []entryRow
	if err := db.Raw(query, args...).Scan(&rows).Error; err != nil {
		return nil, 0, err
	}
	for _, r := range rows {
		e, err := r.entry()
		if err != nil {
			return nil, 0, err
		}
		out, last = append(out, e), r.Place
	}
	return out, last, nil
}

// Record gives the last lines of the record of a job, newest first.
func (s *Store) Record(ctx context.Context, tag string, limit int) ([]unit.Entry, error) {
	out, _, err := entries(s.db.WithContext(ctx), entryOf+" ORDER BY r.place DESC LIMIT ?", tag, limit)
	return out, err
}

// Events gives the lines of a job's record that are events, oldest first: few beside the fields
// that were set.
func (s *Store) Events(ctx context.Context, tag string) ([]unit.Entry, error) {
	return eventsOf(s.db.WithContext(ctx), tag)
}

// mostEvents of a job are read, the newest.
const mostEvents = 5000

func eventsOf(db *gorm.DB, tag string) ([]unit.Entry, error) {
	out, _, err := entries(db, "SELECT * FROM ("+entryOf+" AND r.kind <> '' ORDER BY r.place DESC LIMIT ?) e "+
		"ORDER BY place", tag, mostEvents)
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
			piece, end, err := entries(s.db.WithContext(ctx), entryOf+" AND r.place > ? ORDER BY r.place LIMIT ?",
				tag, last, atOnce)
			if err != nil {
				yield(unit.Entry{}, err)
				return
			}
			for _, line := range piece {
				if !yield(line, nil) {
					return
				}
			}
			if last = end; len(piece) < atOnce {
				return
			}
		}
	}
}

// JobsOfEarlier gives jobs whose state is not fingerprinted in today's form: an earlier version of
// the program wrote them last.
func (s *Store) JobsOfEarlier(ctx context.Context, limit int) (tags []string, err error) {
	err = s.db.WithContext(ctx).Raw(`SELECT j.tag FROM jobs j LEFT JOIN record_tails t ON t.job_id = j.id
		WHERE coalesce(t.state, '') NOT LIKE ? ORDER BY j.id LIMIT ?`,
		fmt.Sprintf("%d:%%", unit.StateForm), limit).Scan(&tags).Error
	return tags, err
}

// TakeOver fingerprints what a job says that an earlier version wrote, with a line of its record.
// The job itself stays as it is.
func (s *Store) TakeOver(ctx context.Context, tag string, line unit.Entry) error {
	return s.db.WithContext(ctx).Transaction(func(db *gorm.DB) error {
		if err := db.Exec("SELECT FROM jobs WHERE tag = ? FOR UPDATE", tag).Error; err != nil {
			return err
		}
		j, err := load(db, tag)
		if err != nil {
			return err
		}
		return record(db, j.ID, j, []unit.Entry{line})
	})
}

// FoundLine is a line of the record that a fingerprint led to.
type FoundLine struct {
	unit.Entry
	Tag    string
	Number int // within the record of its job, from 1
}

// FindFingerprint looks for the line of a job's record that a fingerprint, or its first digits,
// is of: one that was printed as the end of the record, or of a paper that was kept. ErrNotFound
// where there is none.
func (s *Store) FindFingerprint(ctx context.Context, digits string) (FoundLine, error) {
	var found struct {
		Tag    string
		Place  int64
		Number int
	}
	err := s.db.WithContext(ctx).Raw(`SELECT j.tag, r.place, (SELECT count(*) FROM record_entries b
			WHERE b.job_id = r.job_id AND b.place <= r.place) AS number
		FROM record_entries r JOIN jobs j ON j.id = r.job_id
		WHERE encode(r.job_chain, 'hex') LIKE @digits
			OR NOT r.brought AND r.kind = @kept AND r.event::jsonb ->> 'sum' LIKE @digits
			OR NOT r.brought AND r.form = 1 AND r.action LIKE @words
		ORDER BY r.place LIMIT 1`, sql.Named("digits", digits+"%"), sql.Named("kept", unit.EventPaperKept),
		sql.Named("words", "kept the paper of the day %, SHA-256 "+digits+"%")).Scan(&found).Error
	if err != nil {
		return FoundLine{}, err
	}
	if found.Tag == "" {
		return FoundLine{}, ErrNotFound
	}
	list, _, err := entries(s.db.WithContext(ctx), entryOf+" AND r.place = ?", found.Tag, found.Place)
	if err != nil || len(list) == 0 {
		return FoundLine{}, err
	}
	return FoundLine{list[0], found.Tag, found.Number}, nil
}

// writtenLine is a line as record_write takes it.
type writtenLine struct {
	Who     string    `json:"who"`
	Role    string    `json:"role"`
	At      time.Time `json:"at"`
	Action  string    `json:"action"`
	Field   string    `json:"field"`
	Before  string    `json:"before"`
	After   string    `json:"after"`
	Kind    string    `json:"kind"`
	Event   string    `json:"event"`
	Brought bool      `json:"brought"`
}

// record appends to the record of who did what, with what the job says after it; the database
// ties each line to those before it.
func record(db *gorm.DB, id int64, after *unit.Job, entries []unit.Entry) error {
	now, err := after.Sections()
	if err != nil {
		return err
	}
	for len(entries) > 0 {
		n := min(batch, len(entries))
		list := make([]writtenLine, n)
		for i, e := range entries[:n] {
			list[i] = writtenLine{Who: e.Who, Role: e.Role, At: e.At, Action: e.Action, Field: e.Field,
				Before: e.Before, After: e.After, Brought: e.Brought}
			if e.Event == nil {
				continue
			}
			text, err := json.Marshal(e.Event)
			if err != nil {
				return err
			}
			list[i].Kind, list[i].Event = e.Event.Kind, string(text)
		}
		text, err := json.Marshal(list)
		if err != nil {
			return err
		}
		entries = entries[n:]
		state, sections := "", ""
		if len(entries) == 0 {
			state, sections = unit.StateOf(now), writeSections(now)
		}
		if err := db.Exec("SELECT record_write(?, ?::jsonb, ?, ?)", id, string(text), state,
			sections).Error; err != nil {
			return err
		}
	}
	return nil
}
