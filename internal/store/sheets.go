package store

import (
	"context"
	"errors"
	"time"

	"corvek/core/sheet"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// ModelSheet is the sheet of a model; its newest confirmed version holds.
type ModelSheet struct {
	ID       uint
	Family   string
	Maker    string
	Model    string
	HoldsOf  string         // of which units of the model, "" of all
	Plain    string         // maker and model as they are compared
	Versions []SheetVersion `gorm:"foreignKey:SheetID"`
}

// SheetVersion is what was known of a model at one time. None is ever changed, but for being confirmed.
type SheetVersion struct {
	ID          uint
	SheetID     uint
	Sheet       ModelSheet  `gorm:"foreignKey:SheetID"`
	Doc         sheet.Sheet `gorm:"serializer:json"`
	Reason      string
	ByName      string
	At          time.Time
	ConfirmedBy string
	ConfirmedAt *time.Time
}

// Proposed reports that no lead confirmed the version yet.
func (v *SheetVersion) Proposed() bool { return v.ConfirmedAt == nil }

// mostSheets are read at once.
const mostSheets = 5000

// SheetsNow gives the newest confirmed version of each sheet, by maker and model.
func (s *Store) SheetsNow(ctx context.Context) ([]SheetVersion, error) {
	var out []SheetVersion
	newest := s.db.Model(&SheetVersion{}).Select("max(id)").Where("confirmed_at IS NOT NULL").Group("sheet_id")
	err := s.db.WithContext(ctx).Joins("Sheet").Where("sheet_versions.id IN (?)", newest).
		Order(`"Sheet".maker, "Sheet".model, "Sheet".holds_of`).Limit(mostSheets).Find(&out).Error
	return out, err
}

// SheetsProposed gives the versions that wait for a lead, the oldest first.
func (s *Store) SheetsProposed(ctx context.Context) ([]SheetVersion, error) {
	var out []SheetVersion
	err := s.db.WithContext(ctx).Joins("Sheet").Where("confirmed_at IS NULL").Where(`NOT EXISTS (SELECT 1
		FROM sheet_versions n WHERE n.sheet_id = sheet_versions.sheet_id AND n.id > sheet_versions.id
		AND n.confirmed_at IS NOT NULL)`).Order("sheet_versions.id").Limit(mostSheets).Find(&out).Error
	return out, err
}

// SheetHistory gives a sheet with its versions, newest first.
func (s *Store) SheetHistory(ctx context.Context, id uint) (m ModelSheet, err error) {
	err = s.db.WithContext(ctx).Preload("Versions", func(db *gorm.DB) *gorm.DB {
		return db.Order("id DESC").Limit(mostVersions)
	}).Where("id = ?", id).Take(&m).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		err = ErrNotFound
	}
	return m, err
}

// SaveSheet keeps a version of a sheet, and the sheet where there is none yet.
func (s *Store) SaveSheet(ctx context.Context, m *ModelSheet, v *SheetVersion) error {
	return s.transaction(ctx, func(db *gorm.DB) error {
		m.Plain = sheet.Plain(m.Maker) + "/" + sheet.Plain(m.Model)
		err := db.Clauses(clause.OnConflict{
			Columns:   []clause.Column{{Name: "family"}, {Name: "plain"}, {Name: "holds_of"}},
			DoUpdates: clause.AssignmentColumns([]string{"maker", "model"}),
		}).Omit("Versions").Create(m).Error
		if err != nil {
			return err
		}
		v.SheetID = m.ID
		return db.Omit("Sheet").Create(v).Error
	})
}

// ConfirmSheet confirms a version that was proposed.
func (s *Store) ConfirmSheet(ctx context.Context, version uint, by string, at time.Time) error {
	r := s.db.WithContext(ctx).Model(&SheetVersion{}).Where("id = ? AND confirmed_at IS NULL", version).
		Updates(SheetVersion{ConfirmedBy: by, ConfirmedAt: &at})
	if r.Error == nil && r.RowsAffected == 0 {
		return ErrNotFound
	}
	return r.Error
}
