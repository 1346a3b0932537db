package store

import (
	"context"
	"fmt"
	"time"

	"corvek/core/sheet"
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

// PerhapsUnit finds other jobs of the same customer on a unit of this model, as people write it, where one of the
// two bears no serial: perhaps it is the same unit.
func (s *Store) PerhapsUnit(ctx context.Context, tag, maker, model, serial string, limit int) ([]Same, error) {
	var out []Same
	const plain = `regexp_replace(upper(%s), '[^[:alnum:]]', '', 'g')`
	err := s.db.WithContext(ctx).Raw(`SELECT j.tag, j.title, u.number AS unit, j.handed_over_at
		FROM units u JOIN jobs j ON j.id = u.job_id JOIN jobs own ON own.tag = ? AND own.customer_id = j.customer_id
		WHERE j.tag <> own.tag AND j.withdrawn_at IS NULL AND (u.serial = '' OR ? = '')
			AND `+fmt.Sprintf(plain, "u.model")+` = ? AND u.model <> ''
			AND (? = '' OR u.maker = '' OR `+fmt.Sprintf(plain, "u.maker")+` = ?)
		ORDER BY coalesce(j.handed_over_at, now()) DESC, j.id DESC LIMIT ?`,
		tag, serial, sheet.Plain(model), sheet.Plain(maker), sheet.Plain(maker), limit).Scan(&out).Error
	return out, err
}
