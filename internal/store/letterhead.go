package store

import (
	"context"

	"gorm.io/gorm"
)

// Letterhead is what stands at the head of the papers, and how they are printed.
type Letterhead struct {
	Name    string
	Address string // lines
	Mark    []byte // a PNG or JPEG, nil for none
	Sheet   string // a4 or letter
	Site    string // where the pages are opened, for the code on the papers; "" where it is not said
}

// Letterhead reads it.
func (s *Store) Letterhead(ctx context.Context) (h Letterhead, err error) {
	err = s.db.WithContext(ctx).Raw("SELECT name, address, mark, sheet, site FROM shop").Scan(&h).Error
	return h, err
}

// SaveLetterhead changes it, with a line of who did.
func (s *Store) SaveLetterhead(ctx context.Context, h Letterhead, by string) error {
	return s.onShop(ctx, by, "changed the head of the papers of "+h.Name, func(db *gorm.DB) error {
		return db.Exec("UPDATE shop SET name = ?, address = ?, mark = ?, sheet = ?, site = ?", h.Name, h.Address,
			h.Mark, h.Sheet, h.Site).Error
	})
}
