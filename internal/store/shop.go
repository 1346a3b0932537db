package store

import (
	"context"
	"time"

	"corvek/core/shop"
	"corvek/core/unit"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// FamilyVersion is a family as the shop wrote it; the newest of a code holds.
type FamilyVersion struct {
	ID     uint
	Code   string
	Text   string
	Reason string
	ByName string
	At     time.Time
}

// shopTable has one row: the shop itself.
const shopTable = "shop"

// ShopVersion steps whenever people, tools, families or closed jobs change.
func (s *Store) ShopVersion(ctx context.Context) (version int64, err error) {
	err = s.db.WithContext(ctx).Table(shopTable).Select("version").Take(&version).Error
	return version, err
}

// FamiliesNow gives the newest version of each family the shop wrote.
func (s *Store) FamiliesNow(ctx context.Context) ([]FamilyVersion, error) {
	var out []FamilyVersion
	err := s.db.WithContext(ctx).Select("DISTINCT ON (code) *").Order("code, id DESC").Find(&out).Error
	return out, err
}

// mostVersions of one family are listed.
const mostVersions = 200

// FamilyHistory gives the versions of a family, newest first.
func (s *Store) FamilyHistory(ctx context.Context, code string) ([]FamilyVersion, error) {
	var out []FamilyVersion
	err := s.db.WithContext(ctx).Where("code = ?", code).Order("id DESC").Limit(mostVersions).Find(&out).Error
	return out, err
}

// SaveFamily keeps a version; none is ever changed.
func (s *Store) SaveFamily(ctx context.Context, v *FamilyVersion) error {
	return s.transaction(ctx, func(db *gorm.DB) error { return db.Create(v).Error })
}

// Instruments lists the shop's measuring tools by name.
func (s *Store) Instruments(ctx context.Context) ([]shop.Instrument, error) {
	var out []shop.Instrument
	err := s.db.WithContext(ctx).Order("name").Find(&out).Error
	return out, err
}

// SaveInstrument adds a tool, or renews one of the same name.
func (s *Store) SaveInstrument(ctx context.Context, i *shop.Instrument) error {
	return s.db.WithContext(ctx).Clauses(clause.OnConflict{
		Columns: []clause.Column{{Name: "name"}},
		DoUpdates: clause.AssignmentColumns(
			[]string{"kind", "resolution", "class", "full_scale", "permitted", "setting",
				"due_on"},
		),
	}).Create(i).Error
}

// ConcludedCauses counts the last conclusion of every unit that was handed over,
// by family and cause.
func (s *Store) ConcludedCauses(ctx context.Context) (map[string]map[string]int, error) {
	var rows []struct {
		Family, Cause string
		N             int
	}
	err := s.db.WithContext(ctx).Raw(`SELECT u.family, c.cause, count(*) AS n
		FROM units u JOIN jobs j ON j.id = u.job_id AND j.handed_over_at IS NOT NULL AND j.withdrawn_at IS NULL
		JOIN LATERAL (SELECT cause FROM conclusions WHERE job_id = u.job_id AND unit = u.number
			ORDER BY round DESC LIMIT 1) c ON c.cause <> ''
		GROUP BY u.family, c.cause`).Scan(&rows).Error
	out := map[string]map[string]int{}
	for _, r := range rows {
		if out[r.Family] == nil {
			out[r.Family] = map[string]int{}
		}
		out[r.Family][r.Cause] = r.N
	}
	return out, err
}

// mostCustomers are offered while a name is typed.
const mostCustomers = 8

// Customers finds customers by a part of their name.
func (s *Store) Customers(ctx context.Context, part string) ([]unit.Customer, error) {
	var out []unit.Customer
	err := s.db.WithContext(ctx).Where("strpos(lower(name), lower(?)) > 0", part).Order("name").
		Limit(mostCustomers).Find(&out).Error
	return out, err
}
