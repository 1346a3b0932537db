package store

import (
	"context"

	"gorm.io/gorm/clause"
)

// NewestFamily is the number of the newest family version, 0 when the shop
// wrote none.
func (s *Store) NewestFamily(ctx context.Context) (uint, error) {
	var id uint
	return id, s.db.WithContext(ctx).Raw("SELECT coalesce(max(id), 0) FROM family_versions").Scan(&id).Error
}

// FamiliesNow gives the newest version of each family the shop wrote.
func (s *Store) FamiliesNow(ctx context.Context) ([]FamilyVersion, error) {
	var out []FamilyVersion
	return out, s.db.WithContext(ctx).Raw("SELECT DISTINCT ON (code) * FROM family_versions ORDER BY code, id DESC").Scan(&out).Error
}

// FamilyHistory gives the versions of a family, newest first.
func (s *Store) FamilyHistory(ctx context.Context, code string) ([]FamilyVersion, error) {
	var out []FamilyVersion
	return out, s.db.WithContext(ctx).Where("code = ?", code).Order("id DESC").Find(&out).Error
}

// SaveFamily keeps a version; none is ever changed.
func (s *Store) SaveFamily(ctx context.Context, v *FamilyVersion) error {
	return s.db.WithContext(ctx).Create(v).Error
}

// Instruments lists the shop's measuring tools by name.
func (s *Store) Instruments(ctx context.Context) ([]Instrument, error) {
	var out []Instrument
	return out, s.db.WithContext(ctx).Order("name").Find(&out).Error
}

// SaveInstrument adds a tool, or renews one of the same name.
func (s *Store) SaveInstrument(ctx context.Context, i *Instrument) error {
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{Columns: []clause.Column{{Name: "name"}},
		DoUpdates: clause.AssignmentColumns([]string{"kind", "resolution", "due_on"})}).Create(i).Error
}
