package store

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"
	"time"

	"corvek/core/unit"

	"gorm.io/gorm"
)

// Content is what a picture consists of.
type Content struct {
	Bytes, Thumb []byte
}

// Change is what a writer made of a job.
type Change struct {
	Job      *unit.Job       // as it is now
	Entries  []unit.Entry    // what goes into the record
	Contents map[int]Content // of new pictures, by number
	Papers   []Paper         // to be kept as they are now
	Who      string          // may take it back; "" where nobody may
}

// ErrUnchanged is returned by a writer that found nothing to write; the store
// then keeps everything as it is.
var ErrUnchanged = errors.New("nothing was changed")

// errNoLine says that a job was changed without a line of the record that tells of it.
var errNoLine = errors.New("a change that no line of the record tells of is not written")

// Update lets f change a job. Writers of one job are put in order by its row,
// which also steps its version; f gets a copy of its own and says in the Change
// what became of it. Only the rows that differ are written. History answers
// questions about the record within the same transaction.
func (s *Store) Update(ctx context.Context, tag string, f func(*unit.Job, History) (*Change, error)) error {
	var kept *unit.Job
	err := s.transaction(ctx, func(db *gorm.DB) error {
		var head struct{ ID, Version int64 }
		err := db.Raw("UPDATE jobs SET version = version + 1, updated_at = now() WHERE tag = ? RETURNING id, "+
			"version", tag).Scan(&head).Error
		if err != nil {
			return err
		}
		if head.ID == 0 {
			return ErrNotFound
		}
		before, ok := s.cache.Get(tag)
		if !ok || before.Version != head.Version-1 {
			if before, _, err = load(db, tag); err != nil {
				return err
			}
		}
		next := before.Clone()
		next.Version = head.Version
		c, err := f(next, History{db, head.ID, before})
		if err != nil {
			return err
		}
		c.Job.Order()
		changed := changes(before, c.Job)
		if len(changed) > 0 && len(c.Entries) == 0 {
			return errNoLine
		}
		if err := save(db, head.ID, before, c, changed); err != nil {
			return err
		}
		if err := keepAct(db, head.ID, c, changed); err != nil {
			return err
		}
		kept = c.Job
		if err := keepPapers(db, head.ID, c.Papers); err != nil {
			return err
		}
		return record(db, head.ID, c.Job, c.Entries)
	})
	if errors.Is(err, ErrUnchanged) {
		return nil
	}
	if err == nil {
		s.cache.Add(tag, kept)
	}
	return err
}

// save writes the rows in which a job differs from what was kept.
func save(db *gorm.DB, id int64, before *unit.Job, c *Change, changed []changedRow) error {
	if err := saveHead(db, id, before, c.Job, changed); err != nil {
		return err
	}
	var fresh []row
	for _, r := range changed {
		switch {
		case r.Table == headTable:
		case r.Before == nil:
			fresh = append(fresh, row{tables[r.Table], r.Key, r.After})
		case r.After != nil:
			if err := update(db, id, r, r.After); err != nil {
				return err
			}
		}
	}
	// Children go before their parents.
	for _, r := range slices.Backward(changed) {
		if r.Table != headTable && r.After == nil {
			if err := remove(db, id, row{table: tables[r.Table], key: r.Key}); err != nil {
				return err
			}
		}
	}
	return insert(db, id, fresh, c.Contents)
}

func saveHead(db *gorm.DB, id int64, before, now *unit.Job, changed []changedRow) error {
	cols := columns{}
	for _, r := range changed {
		if r.Table == headTable {
			maps.Copy(cols, r.After)
		}
	}
	if text := search(now); text != search(before) {
		cols["search"] = text
	}
	if now.Station != before.Station {
		cols["station"] = now.Station
	}
	if len(cols) == 0 {
		return nil
	}
	return db.Table(headTable).Where("id = ?", id).Updates(map[string]any(cols)).Error
}

// update writes columns of a row that is there.
func update(db *gorm.DB, id int64, r changedRow, cols columns) error {
	key := row{table: tables[r.Table], key: r.Key}
	return db.Table(r.Table).Where("job_id = ?", id).Where(map[string]any(key.where())).
		Updates(map[string]any(cols)).Error
}

func remove(db *gorm.DB, id int64, r row) error {
	where, args := []string{"job_id = ?"}, []any{id}
	for i, k := range r.table.key {
		where, args = append(where, k+" = ?"), append(args, r.key[i])
	}
	return db.Exec("DELETE FROM "+r.table.name+" WHERE "+strings.Join(where, " AND "), args...).Error
}

// batch is how many rows are written at once.
const batch = 200

// insert writes new rows, runs of one table together. Pictures go one by one:
// they are large.
func insert(db *gorm.DB, id int64, fresh []row, contents map[int]Content) error {
	byTable := map[*table][]map[string]any{}
	var order []*table
	for _, r := range fresh {
		if byTable[r.table] == nil {
			order = append(order, r.table)
		}
		cols := r.where()
		cols["job_id"] = id
		for name, v := range r.cols {
			cols[name] = v
		}
		if r.table == picturesTable {
			c := contents[r.key[0].(int)]
			cols["content"], cols["thumb"] = c.Bytes, c.Thumb
		}
		byTable[r.table] = append(byTable[r.table], cols)
	}
	for _, t := range order {
		size := batch
		if t == picturesTable {
			size = 1
		}
		list := byTable[t]
		for len(list) > 0 {
			n := min(size, len(list))
			if err := db.Table(t.name).Create(list[:n]).Error; err != nil {
				return fmt.Errorf("%s: %w", t.name, err)
			}
			list = list[n:]
		}
	}
	return nil
}

// Create keeps a new job, giving it a tag when it has none.
func (s *Store) Create(ctx context.Context, c *Change) error {
	j := c.Job
	if len(c.Entries) == 0 {
		return errNoLine
	}
	return s.transaction(ctx, func(db *gorm.DB) error {
		if err := giveTag(db, j); err != nil {
			return err
		}
		var customer int64
		err := db.Raw(`INSERT INTO customers (name, place, contact) VALUES (?, ?, ?)
			ON CONFLICT (name) DO UPDATE SET name = excluded.name RETURNING id`,
			j.Customer.Name, j.Customer.Place, j.Customer.Contact).Scan(&customer).Error
		if err != nil {
			return err
		}
		j.Version = 1
		j.Order()
		head := jobColumns(j)
		head["tag"], head["customer_id"], head["station"], head["search"] = j.Tag, customer, j.Station, search(j)
		if err := db.Table("jobs").Create(map[string]any(head)).Error; err != nil {
			if taken(err) {
				return ErrTagTaken
			}
			return err
		}
		var id int64
		if err := db.Raw("SELECT id FROM jobs WHERE tag = ?", j.Tag).Scan(&id).Error; err != nil {
			return err
		}
		if err := insert(db, id, rows(j), c.Contents); err != nil {
			return err
		}
		if err := keepPapers(db, id, c.Papers); err != nil {
			return err
		}
		if err := noteResult(ctx, db, j.Tag); err != nil {
			return err
		}
		return record(db, id, j, c.Entries)
	})
}

// ErrTagTaken says that a job of this tag is here already.
var ErrTagTaken = errors.New("a job with this tag is here already")

// giveTag takes the next tag: above all that are here, so that a newer job never
// has the lower number, and above what the sequence has given out. Jobs that are
// opened at once take turns.
func giveTag(db *gorm.DB, j *unit.Job) error {
	if j.Tag != "" {
		return nil
	}
	if err := db.Exec("SELECT pg_advisory_xact_lock(hashtextextended('job tags', 0))").Error; err != nil {
		return err
	}
	var n int64
	err := db.Raw(`SELECT greatest(nextval('job_tags'), 1 + coalesce(max(substr(tag, 3)::bigint), 0)) FROM jobs
		WHERE tag ~ '^T-[0-9]{1,6}$'`).Scan(&n).Error
	// Numbers beyond that many digits are not counted, and may be taken.
	for free := false; err == nil && !free; n++ {
		j.Tag = fmt.Sprintf("T-%04d", n)
		err = db.Raw("SELECT NOT EXISTS (SELECT FROM jobs WHERE tag = ?)", j.Tag).Scan(&free).Error
	}
	return err
}

// search is the text in which a job is looked for.
func search(j *unit.Job) string {
	words := []string{j.Tag, j.Title, j.Customer.Name}
	for _, u := range j.Units {
		words = append(words, u.Name, u.Maker, u.Model, u.Serial)
	}
	return strings.ToLower(strings.Join(strings.Fields(strings.Join(words, " ")), " "))
}

// History is a job's record within a transaction.
type History struct {
	db *gorm.DB
	id int64
	// Before is the job as it was. Others read it too, so that nobody may change it.
	Before *unit.Job
}

// Last gives who changed a field last; ok is false where nobody did.
func (h History) Last(field string) (who string, at time.Time, ok bool, err error) {
	var e struct {
		Who string
		At  time.Time
	}
	err = h.db.Raw("SELECT who, at FROM record_entries WHERE job_id = ? AND field = ? ORDER BY place DESC LIMIT 1",
		h.id, field).Scan(&e).Error
	return e.Who, e.At, e.Who != "", err
}

// Job loads a job. It comes from memory when it has not changed since; nobody
// may change what is returned.
func (s *Store) Job(ctx context.Context, tag string) (*unit.Job, error) {
	var version int64
	if err := s.db.WithContext(ctx).Raw("SELECT version FROM jobs WHERE tag = ?",
		tag).Scan(&version).Error; err != nil {
		return nil, err
	}
	return s.JobAt(ctx, tag, version)
}

// JobAt is Job for a version that was just asked for; 0 is no job.
func (s *Store) JobAt(ctx context.Context, tag string, version int64) (*unit.Job, error) {
	if version == 0 {
		return nil, ErrNotFound
	}
	if j, ok := s.cache.Get(tag); ok && j.Version == version {
		return j, nil
	}
	j, err := s.Read(ctx, tag)
	if err != nil {
		return nil, err
	}
	s.cache.Add(tag, j)
	return j, nil
}

// Held are the jobs that are in memory, the last used ones last, to be read only.
func (s *Store) Held() []*unit.Job { return s.cache.Values() }

// Read loads a job from the tables, whatever is in memory.
func (s *Store) Read(ctx context.Context, tag string) (j *unit.Job, err error) {
	err = s.atOneMoment(ctx, func(db *gorm.DB) error {
		j, _, err = load(db, tag)
		return err
	})
	return j, err
}

// Picture gives what a picture consists of, with its media type.
func (s *Store) Picture(ctx context.Context, tag string, number int) (c Content, mediaType string, err error) {
	var row struct {
		Content, Thumb []byte
		MediaType      string
	}
	err = s.db.WithContext(ctx).Raw(`SELECT a.content, a.thumb, a.media_type
		FROM attachments a JOIN jobs j ON j.id = a.job_id
		WHERE j.tag = ? AND a.number = ?`, tag, number).Scan(&row).Error
	if err == nil && row.MediaType == "" {
		err = ErrNotFound
	}
	return Content{row.Content, row.Thumb}, row.MediaType, err
}
