package store

import (
	"context"
	"time"

	"corvek/core/shop"
	"corvek/core/unit"
)

// FollowUp is something that is asked back, with the job it is asked of.
type FollowUp struct {
	Tag, Title string
	Unit       int
	Kind       string
	DueOn      time.Time
}

// mostDue are listed of what is due.
const mostDue = 100

// FollowUpsDue are those of all jobs that are due by a day and have no answer.
func (s *Store) FollowUpsDue(ctx context.Context, by unit.Date) (out []FollowUp, err error) {
	err = s.db.WithContext(ctx).Raw(`SELECT f.unit, f.kind, f.due_on, j.tag, j.title
		FROM follow_ups f JOIN jobs j ON j.id = f.job_id WHERE f.answered_at IS NULL AND f.due_on <= ?
		AND j.withdrawn_at IS NULL ORDER BY f.due_on, f.job_id, f.number LIMIT ?`, by.Time(), mostDue).Scan(&out).Error
	return out, err
}

// mostLessons are held in memory.
const mostLessons = 1000

// Lessons are those of all jobs that were handed over, the newest first.
func (s *Store) Lessons(ctx context.Context) (out []shop.Lesson, err error) {
	err = s.db.WithContext(ctx).Raw(`SELECT j.tag, u.family, u.model, u.variant, j.lesson_at AS station,
		j.lesson AS text FROM jobs j JOIN units u ON u.job_id = j.id
		WHERE j.lesson <> '' AND j.handed_over_at IS NOT NULL AND j.withdrawn_at IS NULL
		ORDER BY j.handed_over_at DESC LIMIT ?`, mostLessons).Scan(&out).Error
	return out, err
}
