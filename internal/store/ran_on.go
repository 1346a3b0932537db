package store

import (
	"context"
	"time"

	"corvek/core/unit"

	"gorm.io/gorm/clause"
)

// mostRan are the tests of a day that are looked through.
const mostRan = 50

// Ran is what a test is run on and read with.
type Ran struct {
	RanOn unit.RanOn `gorm:"embedded;embeddedPrefix:ran_on_"`

	PressureGauge, FlowMeter, Thermometer string
}

// RanSince is what was told last, since a moment, of what a test is run on: at this job, else by the same
// person, else by anybody where all ran on one stand; the zero one where nobody told it. How warm it is
// changes by the hour, and is left out. An exercise runs on nothing.
func (s *Store) RanSince(ctx context.Context, tag, who string, since time.Time) (Ran, error) {
	var list []struct {
		Ran
		Own bool // of this job, or by him
	}
	err := s.db.WithContext(ctx).Table("attempts AS a").Joins("JOIN jobs AS j ON j.id = a.job_id").
		Select("ran_on_stand, ran_on_oil, ran_on_viscosity, ran_on_clean, pressure_gauge, flow_meter, thermometer, "+
			"j.tag = ? OR a.by_name = ? AS own", tag, who).
		Where("a.at >= ? AND ran_on_oil <> '' AND source <> ?", since, unit.SourceSimulated).
		Order(clause.OrderBy{Expression: clause.Expr{SQL: "j.tag = ? DESC, a.by_name = ? DESC, a.at DESC",
			Vars: []any{tag, who}}}).
		Limit(mostRan).Scan(&list).Error
	if err != nil || len(list) == 0 {
		return Ran{}, err
	}
	first := list[0]
	for _, other := range list[1:] {
		if !first.Own && other.RanOn.Stand != first.RanOn.Stand {
			return Ran{}, nil
		}
	}
	return first.Ran, nil
}
