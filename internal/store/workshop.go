package store

import (
	"context"
	"time"

	"corvek/core/unit"
	"corvek/core/workshop"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// How much of each is kept and read.
const (
	mostAbsences   = 1000
	mostClosedDays = 400
	mostPlaces     = 200
	mostPins       = 2000
)

// WorkshopVersion steps whenever hands, places, closed days, pins or the plan that stands change.
func (s *Store) WorkshopVersion(ctx context.Context) (version int64, err error) {
	err = s.db.WithContext(ctx).Table(shopTable).Select("workshop_version").Take(&version).Error
	return version, err
}

// Workshop gives the shop behind the bench: everybody who may sign in and is not locked, with what he can do,
// absences that are not over on a day, closed days from it on, and places by name.
func (s *Store) Workshop(ctx context.Context, day unit.Date) (*workshop.Workshop, error) {
	w := &workshop.Workshop{}
	db := s.db.WithContext(ctx)
	var rows []struct {
		workshop.Hands
		PersonName string
	}
	err := db.Table("people").Select(`people.id AS person_id, people.name AS person_name,
		coalesce(hands.skills, '') AS skills, coalesce(hands.hours, '') AS hours, coalesce(hands.site, '') AS site`).
		Joins("LEFT JOIN hands ON hands.person_id = people.id").Where("people.locked_at IS NULL").
		Order("people.name, people.id").Limit(mostPeople).Scan(&rows).Error
	if err != nil {
		return nil, err
	}
	for _, r := range rows {
		r.Name = r.PersonName
		w.Hands = append(w.Hands, r.Hands)
	}
	if err := db.Where("to_day >= ?", day.Time()).Order("from_day, id").Limit(mostAbsences).
		Find(&w.Absences).Error; err != nil {
		return nil, err
	}
	if err := db.Where("day >= ?", day.Time()).Order("day").Limit(mostClosedDays).Find(&w.Closed).Error; err != nil {
		return nil, err
	}
	if w.Sites, err = s.Sites(ctx); err != nil {
		return nil, err
	}
	return w, db.Order("kind, name").Limit(mostPlaces).Find(&w.Places).Error
}

// SaveHands keeps what a person can do and when he is there, with a line of who said so.
func (s *Store) SaveHands(ctx context.Context, h *workshop.Hands, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error {
		return db.Clauses(clause.OnConflict{UpdateAll: true}).Create(h).Error
	})
}

// AddAbsence keeps when a person is not there.
func (s *Store) AddAbsence(ctx context.Context, a *workshop.Absence, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error { return db.Create(a).Error })
}

// DropAbsence forgets one.
func (s *Store) DropAbsence(ctx context.Context, id uint, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error { return db.Delete(&workshop.Absence{}, id).Error })
}

// CloseDay keeps a day on which nobody works; a name that it had is written over.
func (s *Store) CloseDay(ctx context.Context, d *workshop.ClosedDay, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error {
		return db.Clauses(clause.OnConflict{UpdateAll: true}).Create(d).Error
	})
}

// OpenDay forgets that a day is closed.
func (s *Store) OpenDay(ctx context.Context, day unit.Date, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error {
		return db.Where("day = ?", day.Time()).Delete(&workshop.ClosedDay{}).Error
	})
}

// SavePlace adds a place, or renews one of the same name.
func (s *Store) SavePlace(ctx context.Context, p *workshop.Place, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error {
		return db.Clauses(clause.OnConflict{Columns: []clause.Column{{Name: "name"}},
			DoUpdates: clause.AssignmentColumns(
				[]string{"kind", "hours", "pressure", "flow", "torque", "site"},
			)}).Create(p).Error
	})
}

// DropPlace forgets a place.
func (s *Store) DropPlace(ctx context.Context, id uint, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error { return db.Delete(&workshop.Place{}, id).Error })
}

// PlanPin is where a person put a task of the plan.
type PlanPin struct {
	workshop.Spot
	ByName string
	At     time.Time `gorm:"default:now()"`
}

// PlanPins are all of them.
func (s *Store) PlanPins(ctx context.Context) (out []PlanPin, err error) {
	err = s.db.WithContext(ctx).Order("tag, unit, code").Limit(mostPins).Find(&out).Error
	return out, err
}

// SavePin puts a task of the plan somewhere; where it was put before is written over.
func (s *Store) SavePin(ctx context.Context, p *PlanPin) error {
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{UpdateAll: true}).Create(p).Error
}

// DropPin leaves a task to the planner again.
func (s *Store) DropPin(ctx context.Context, k workshop.Key) error {
	return s.db.WithContext(ctx).Delete(&PlanPin{Spot: workshop.Spot{Key: k}}).Error
}

// PlanDay is the plan as it stood at the beginning of a day.
type PlanDay struct {
	Day    unit.Date       `gorm:"primaryKey;serializer:day"`
	Spots  []workshop.Spot `gorm:"serializer:json"`
	MadeAt time.Time       `gorm:"default:now()"`
}

// PlanBefore is the last plan that was kept before a day; nil where none was.
func (s *Store) PlanBefore(ctx context.Context, day unit.Date) (*PlanDay, error) {
	var out []PlanDay
	err := s.db.WithContext(ctx).Where("day < ?", day.Time()).Order("day DESC").Limit(1).Find(&out).Error
	if err != nil || len(out) == 0 {
		return nil, err
	}
	return &out[0], nil
}

// KeepPlan keeps the plan of a day, if none is kept of it yet, and tells whether it did.
func (s *Store) KeepPlan(ctx context.Context, p *PlanDay) (kept bool, err error) {
	done := s.db.WithContext(ctx).Clauses(clause.OnConflict{DoNothing: true}).Create(p)
	return done.RowsAffected > 0, done.Error
}

// InHandTags are the tags of the jobs that are not handed over, with their versions, by tag.
func (s *Store) InHandTags(ctx context.Context, limit int) (tags []string, versions []int64, err error) {
	var rows []struct {
		Tag     string
		Version int64
	}
	err = s.db.WithContext(ctx).Table("jobs").Select("tag, version").
		Where("handed_over_at IS NULL AND withdrawn_at IS NULL").Order("tag").Limit(limit).Scan(&rows).Error
	for _, r := range rows {
		tags, versions = append(tags, r.Tag), append(versions, r.Version)
	}
	return tags, versions, err
}
