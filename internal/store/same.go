package store

import (
	"context"
	"time"
)

// Same is a job of the very same unit: of one model and serial number.
type Same struct {
	Tag          string
	Title        string
	Unit         int
	HandedOverAt *time.Time
}

// SameUnit finds other jobs of a unit, newest first; of the maker where both say one.
// Jobs that were withdrawn are passed over.
func (s *Store) SameUnit(ctx context.Context, tag, maker, model, serial string, limit int) ([]Same, error) {
	var out []Same
	err := s.db.WithContext(ctx).Raw(`SELECT j.tag, j.title, u.number AS unit, j.handed_over_at
		FROM units u JOIN jobs j ON j.id = u.job_id
		WHERE u.serial <> '' AND lower(u.serial) = lower(?) AND lower(u.model) = lower(?)
			AND j.tag <> ? AND j.withdrawn_at IS NULL
			AND (? = '' OR u.maker = '' OR lower(u.maker) = lower(?))
		ORDER BY coalesce(j.handed_over_at, now()) DESC, j.id DESC LIMIT ?`,
		serial, model, tag, maker, maker, limit).Scan(&out).Error
	return out, err
}
