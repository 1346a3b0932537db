package store

import (
	"context"
	"time"

	"corvek/core/unit"

	"gorm.io/gorm/clause"
)

// RanToday is what was told last, since a moment, of what a test is run on: by the same person, else by
// anybody; the zero one where nobody told it. How warm it is changes by the hour, and is left out. An
// exercise runs on nothing.
func (s *Store) RanToday(ctx context.Context, who string, since time.Time) (unit.RanOn, error) {
	var list []unit.Attempt
	err := s.db.WithContext(ctx).Select("ran_on_stand", "ran_on_oil", "ran_on_viscosity", "ran_on_clean").
		Where("at >= ? AND ran_on_oil <> '' AND source <> ?", since, unit.SourceSimulated).
		Order(clause.Expr{SQL: "by_name = ? DESC, at DESC", Vars: []any{who}}).Limit(1).Find(&list).Error
	if err != nil || len(list) == 0 {
		return unit.RanOn{}, err
	}
	return list[0].RanOn, nil
}
