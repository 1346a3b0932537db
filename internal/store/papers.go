package store

import (
	"context"
	"corvek/core/unit"
	"time"

	"gorm.io/gorm"
)

// Paper is a paper as it was when a job was handed over.
type Paper struct {
	HandOver  int // from 1
	Name      string
	MediaType string
	At        time.Time // when it was made
	SHA256    string    // of the content, in hexadecimal digits
	Content   []byte    `gorm:"-:migration"`
}

func keepPapers(db *gorm.DB, job int64, papers []Paper) error {
	for _, p := range papers {
		err := db.Exec("INSERT INTO papers (job_id, hand_over, name, media_type, at, sha256, content) "+
			"VALUES (?, ?, ?, ?, ?, ?, ?)", job, p.HandOver, p.Name, p.MediaType, p.At, p.SHA256, p.Content).Error
		if err != nil {
			return err
		}
	}
	return nil
}

// Papers lists the kept papers of a job, the newest hand-over first, without what
// they consist of.
func (s *Store) Papers(ctx context.Context, tag string) (out []Paper, err error) {
	err = s.db.WithContext(ctx).Raw(`SELECT p.hand_over, p.name, p.media_type, p.at, p.sha256
		FROM papers p JOIN jobs j ON j.id = p.job_id WHERE j.tag = ?
		ORDER BY p.hand_over DESC, p.name`, tag).Scan(&out).Error
	return out, err
}

// Paper gives a kept paper.
func (s *Store) Paper(ctx context.Context, tag string, handOver int, name string) (p Paper, err error) {
	err = s.db.WithContext(ctx).Raw(`SELECT p.* FROM papers p JOIN jobs j ON j.id = p.job_id
		WHERE j.tag = ? AND p.hand_over = ? AND p.name = ?`, tag, handOver, name).Scan(&p).Error
	if err == nil && p.Name == "" {
		err = ErrNotFound
	}
	return p, err
}

// HandedOverWithoutPapers gives jobs that were handed over here and whose papers
// were not kept yet: the program was stopped between the two.
func (s *Store) HandedOverWithoutPapers(ctx context.Context, limit int) (tags []string, err error) {
	err = s.db.WithContext(ctx).Raw(`SELECT j.tag FROM jobs j
		WHERE j.handed_over_at IS NOT NULL AND j.withdrawn_at IS NULL
			AND NOT EXISTS (SELECT FROM papers p WHERE p.job_id = j.id
				AND p.hand_over = 1 + (SELECT count(*) FROM reopenings r WHERE r.job_id = j.id))
			AND EXISTS (SELECT FROM record_entries e WHERE e.job_id = j.id AND e.kind = ?
				AND NOT e.brought AND e.at > j.handed_over_at - interval '1 second')
		ORDER BY j.handed_over_at LIMIT ?`, unit.EventHandedOver, limit).Scan(&tags).Error
	return tags, err
}
