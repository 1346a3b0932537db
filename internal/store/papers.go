package store

import (
	"context"
	"database/sql"
	"errors"
	"strings"
	"time"

	"corvek/core/unit"

	"gorm.io/gorm"
)

// Paper is a paper as it was when a job was handed over.
type Paper struct {
	JobID     int64
	HandOver  int // from 1
	Name      string
	MediaType string
	At        time.Time // when it was made
	SHA256    string    // of the content, in hexadecimal digits
	Content   []byte
}

func keepPapers(db *gorm.DB, job int64, papers []Paper) error {
	for _, p := range papers {
		p.JobID = job
		if err := db.Create(&p).Error; err != nil {
			return err
		}
	}
	return nil
}

// Papers lists the kept papers of a job, the newest hand-over first, without what
// they consist of.
func (s *Store) Papers(ctx context.Context, tag string) (out []Paper, err error) {
	err = s.papersOf(ctx, tag).Omit("content").Order("hand_over DESC, name").Find(&out).Error
	return out, err
}

// Paper gives a kept paper.
func (s *Store) Paper(ctx context.Context, tag string, handOver int, name string) (p Paper, err error) {
	err = s.papersOf(ctx, tag).Where("hand_over = ? AND name = ?", handOver, name).Take(&p).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		err = ErrNotFound
	}
	return p, err
}

func (s *Store) papersOf(ctx context.Context, tag string) *gorm.DB {
	db := s.db.WithContext(ctx)
	return db.Where("job_id = (?)", db.Model(&unit.Job{}).Select("id").Where("tag = ?", tag))
}

// HandedOverWithoutPapers gives jobs that were handed over here and have no paper of a name yet, but for some:
// the program was stopped between the two, or an earlier version of it kept none.
func (s *Store) HandedOverWithoutPapers(
	ctx context.Context,
	name string,
	but []string,
	limit int,
) (tags []string, err error) {
	err = s.db.WithContext(ctx).Raw(handedOverWithout+`
			AND EXISTS (SELECT FROM record_entries e WHERE e.job_id = j.id AND e.kind = @event
				AND NOT e.brought AND e.at > j.handed_over_at - interval '1 second')
		ORDER BY j.handed_over_at LIMIT @limit`, sql.Named("name", name), sql.Named("event", unit.EventHandedOver),
		sql.Named("but", strings.Join(but, " ")), sql.Named("limit", limit)).Scan(&tags).Error
	return tags, err
}

// HandedOverNotFrozen gives jobs that were handed over, here or elsewhere, and have no paper of
// the name yet.
func (s *Store) HandedOverNotFrozen(
	ctx context.Context,
	name string,
	but []string,
	limit int,
) (tags []string, err error) {
	err = s.db.WithContext(ctx).Raw(handedOverWithout+" ORDER BY j.handed_over_at LIMIT @limit",
		sql.Named("name", name), sql.Named("but", strings.Join(but, " ")), sql.Named("limit", limit)).Scan(&tags).Error
	return tags, err
}

// handedOverWithout are jobs whose last hand-over has no paper of a name.
const handedOverWithout = `SELECT j.tag FROM jobs j
	WHERE j.handed_over_at IS NOT NULL AND j.withdrawn_at IS NULL
		AND NOT EXISTS (SELECT FROM papers p WHERE p.job_id = j.id AND p.name = @name
			AND p.hand_over = 1 + (SELECT count(*) FROM reopenings r WHERE r.job_id = j.id))
		AND NOT (j.tag = ANY(string_to_array(@but, ' ')))`
