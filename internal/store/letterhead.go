package store

import (
	"context"

	"corvek/core/shop"

	"gorm.io/gorm"
)

// Letterhead reads it.
func (s *Store) Letterhead(ctx context.Context) (h shop.Letterhead, err error) {
	err = s.db.WithContext(ctx).Table(shopTable).Take(&h).Error
	return h, err
}

// SaveLetterhead changes it, with a line of who did.
func (s *Store) SaveLetterhead(ctx context.Context, h shop.Letterhead, by string) error {
	return s.onShop(ctx, by, "changed the letterhead of "+h.Name, func(db *gorm.DB) error {
		return db.Table(shopTable).Where("one").Select("*").Updates(&h).Error
	})
}
