package store

import (
	"context"

	"corvek/core/partner"
	"corvek/core/quantity"
	"corvek/core/workshop"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// Prices are what the shop takes as a rule, in its own money: of an hour, and of a test on the stand where that is
// not in the hours. Zero where it takes none.
type Prices struct {
	HourPrice quantity.Quantity `gorm:"serializer:number"`
	TestPrice quantity.Quantity `gorm:"serializer:number"`
}

// Prices reads the price list.
func (s *Store) Prices(ctx context.Context) (p Prices, err error) {
	err = s.db.WithContext(ctx).Table(shopTable).Take(&p).Error
	return p, err
}

// SavePrices changes it.
func (s *Store) SavePrices(ctx context.Context, p Prices, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error {
		return db.Table(shopTable).Where("one").Select("*").Updates(&p).Error
	})
}

// mostPartners of a shop are kept.
const mostPartners = 500

// Partners are whom the shop waits for, by name.
func (s *Store) Partners(ctx context.Context) (out partner.Partners, err error) {
	err = s.db.WithContext(ctx).Order("name").Limit(mostPartners).Find(&out).Error
	return out, err
}

// SavePartner adds one, or renews the one of the same name.
func (s *Store) SavePartner(ctx context.Context, p *partner.Partner, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error {
		return db.Clauses(clause.OnConflict{Columns: []clause.Column{{Name: "name"}},
			DoUpdates: clause.AssignmentColumns([]string{"works", "days", "most", "price"})}).Create(p).Error
	})
}

// DropPartner forgets one.
func (s *Store) DropPartner(ctx context.Context, id uint, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error { return db.Delete(&partner.Partner{}, id).Error })
}

// Waited is how long the shop waited for others of late.
func (s *Store) Waited(ctx context.Context) (*workshop.Over, error) {
	db, o := s.db.WithContext(ctx), &workshop.Over{}
	err := db.Raw(`SELECT r.route, (r.back - r.sent)::float8 AS days FROM reworks r
		WHERE r.sent IS NOT NULL AND r.back >= r.sent ORDER BY r.back DESC LIMIT ?`, mostPast).Scan(&o.Away).Error
	if err != nil {
		return nil, err
	}
	err = db.Raw(`SELECT order_supplier AS supplier, order_days::float8 AS said,
			(order_came - order_placed)::float8 AS days FROM parts
		WHERE order_came >= order_placed ORDER BY order_came DESC LIMIT ?`, mostPast).Scan(&o.Orders).Error
	if err != nil {
		return nil, err
	}
	err = db.Raw(`SELECT (answer_on - quoted_on)::float8 FROM jobs WHERE quoted_on IS NOT NULL
		AND answer_on >= quoted_on
		ORDER BY answer_on DESC LIMIT ?`, mostPast).
		Scan(&o.Words).
		Error
	return o, err
}
