package store

import (
	"context"
	"errors"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// mostSites of one owner are kept.
const mostSites = 50

// site is a shop of an owner who has several.
type site struct {
	Name string `gorm:"primaryKey"`
}

// Sites are the shops of one owner by name; none where there is one shop alone.
func (s *Store) Sites(ctx context.Context) (names []string, err error) {
	err = s.db.WithContext(ctx).Model(&site{}).Order("name").Limit(mostSites).Pluck("name", &names).Error
	return names, err
}

// SiteOf is the shop in which a person works, "" for anywhere.
func (s *Store) SiteOf(ctx context.Context, person uint) (name string, err error) {
	err = s.db.WithContext(ctx).Table("hands").Where("person_id = ?", person).Limit(1).Pluck("site", &name).Error
	return name, err
}

// AddSite keeps a shop; one that is there stays.
func (s *Store) AddSite(ctx context.Context, name, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error {
		return db.Clauses(clause.OnConflict{DoNothing: true}).Create(&site{name}).Error
	})
}

// ErrSiteUsed says that jobs in hand are done in a shop.
var ErrSiteUsed = errors.New("jobs in hand are done there")

// DropSite forgets a shop in which no job is in hand. People, places and drawers that were there are anywhere.
func (s *Store) DropSite(ctx context.Context, name, by, action string) error {
	return s.onShop(ctx, by, action, func(db *gorm.DB) error {
		var used bool
		err := db.Raw(`SELECT EXISTS (SELECT FROM jobs WHERE site = ? AND handed_over_at IS NULL
			AND withdrawn_at IS NULL)`, name).Scan(&used).Error
		if err != nil {
			return err
		}
		if used {
			return ErrSiteUsed
		}
		for _, table := range []string{"hands", "places", "stock_items"} {
			if err := db.Table(table).Where("site = ?", name).Update("site", "").Error; err != nil {
				return err
			}
		}
		return db.Delete(&site{name}).Error
	})
}
