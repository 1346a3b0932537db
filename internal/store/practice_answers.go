package store

import (
	"context"
	"time"
)

// PracticeAnswer is an answer to an instrument or a drill.
type PracticeAnswer struct {
	ID       int64
	PersonID uint
	Code     string // of the instrument or the drill
	WasRight bool
	At       time.Time
}

// AddPracticeAnswer keeps one.
func (s *Store) AddPracticeAnswer(ctx context.Context, a *PracticeAnswer) error {
	return s.db.WithContext(ctx).Create(a).Error
}

// From how many answers of somebody it is told that he can, and how many of them are right then.
const (
	fewestAnswers = 3
	surely        = 2.0 / 3
)

// Mastered tells of each instrument and drill that was tried since a time whether it is done for sure, by its code: by
// one person, or with 0 by anybody in the shop, of whom it names nobody.
func (s *Store) Mastered(ctx context.Context, person uint, since time.Time) (map[string]bool, error) {
	var rows []struct {
		Code string
		Can  bool
	}
	err := s.db.WithContext(ctx).Raw(`SELECT code, bool_or(can) AS can FROM (
			SELECT code, count(*) >= ? AND avg(was_right::int) >= ? AS can FROM practice_answers
			WHERE at >= ? AND ?::bigint IN (0, person_id) GROUP BY code, person_id) each GROUP BY code`,
		fewestAnswers, surely, since, person).Scan(&rows).Error
	out := map[string]bool{}
	for _, r := range rows {
		out[r.Code] = r.Can
	}
	return out, err
}
