package store

import (
	"context"
	"time"

	"corvek/core/unit"
)

// FollowUp is something that is asked back after a hand-over.
type FollowUp struct {
	ID         int64
	Tag        string // of its job
	Title      string
	Unit       int
	Kind       string
	DueOn      time.Time
	AskedBy    string
	Result     string
	Note       string
	AnsweredBy string
	AnsweredAt *time.Time
}

// mostFollowUps of a job, and of those that are due, are listed.
const mostFollowUps = 100

const followUps = `SELECT f.*, j.tag, j.title FROM follow_ups f JOIN jobs j ON j.id = f.job_id `

// AddFollowUp asks something back of a job.
func (s *Store) AddFollowUp(ctx context.Context, tag string, f FollowUp) error {
	return s.db.WithContext(ctx).Exec(`INSERT INTO follow_ups (job_id, unit, kind, due_on, asked_by)
		SELECT id, ?, ?, ?, ? FROM jobs WHERE tag = ?
		AND (SELECT count(*) FROM follow_ups f WHERE f.job_id = jobs.id) < ?`,
		f.Unit, f.Kind, f.DueOn, f.AskedBy, tag, mostFollowUps).Error
}

// AnswerFollowUp writes what came back; ok is false where the job asks no such thing, or has
// its answer already.
func (s *Store) AnswerFollowUp(ctx context.Context, tag string, f FollowUp) (ok bool, err error) {
	tx := s.db.WithContext(ctx).Exec(`UPDATE follow_ups SET result = ?, note = ?, answered_by = ?, answered_at = ?
		WHERE id = ? AND answered_at IS NULL AND job_id = (SELECT id FROM jobs WHERE tag = ?)`,
		f.Result, f.Note, f.AnsweredBy, f.AnsweredAt, f.ID, tag)
	return tx.RowsAffected > 0, tx.Error
}

// FollowUps are those of a job, the first due first.
func (s *Store) FollowUps(ctx context.Context, tag string) (out []FollowUp, err error) {
	return out, s.db.WithContext(ctx).Raw(followUps+"WHERE j.tag = ? ORDER BY f.due_on, f.id LIMIT ?", tag,
		mostFollowUps).Scan(&out).Error
}

// FollowUpsDue are those of all jobs that are due by a day and have no answer.
func (s *Store) FollowUpsDue(ctx context.Context, by unit.Date) (out []FollowUp, err error) {
	return out, s.db.WithContext(ctx).Raw(followUps+`WHERE f.answered_at IS NULL AND f.due_on <= ?
		AND j.withdrawn_at IS NULL ORDER BY f.due_on, f.id LIMIT ?`, by.Time(), mostFollowUps).Scan(&out).Error
}

// Lesson is what a job that was handed over left for the next one of its variant.
type Lesson struct {
	Tag, Family, Model, Variant, Station, Text string
}

// mostLessons are held in memory.
const mostLessons = 1000

// Lessons are those of all jobs that were handed over, the newest first.
func (s *Store) Lessons(ctx context.Context) (out []Lesson, err error) {
	return out, s.db.WithContext(ctx).Raw(`SELECT j.tag, u.family, u.model, u.variant, j.lesson_at AS station,
		j.lesson AS text FROM jobs j JOIN units u ON u.job_id = j.id
		WHERE j.lesson <> '' AND j.handed_over_at IS NOT NULL AND j.withdrawn_at IS NULL
		ORDER BY j.handed_over_at DESC LIMIT ?`, mostLessons).Scan(&out).Error
}
