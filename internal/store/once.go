package store

import (
	"context"
	"fmt"
	"time"

	"gorm.io/gorm"
	"gorm.io/gorm/clause"
)

// MostOnce is how long a form's token may be, in bytes.
const MostOnce = 64

type onceKey struct{}

// WithOnce makes the first write of a request happen one time for a token. Writes
// that come later with the same token fail with a *DoneBefore.
func WithOnce(ctx context.Context, token string) context.Context {
	return context.WithValue(ctx, onceKey{}, token)
}

// onceToken is the row that says that a form's work was done.
type onceToken struct {
	Token  string `gorm:"primaryKey"`
	At     time.Time
	Result string
}

// DoneBefore says that the work of a form was done when it was sent before.
type DoneBefore struct{ Result string } // the tag of a job that it opened, or ""

func (d *DoneBefore) Error() string { return "this was done already" }

// transaction is the one way to write in several steps. A form's token is taken in
// the same transaction as its work: two that come at once wait for each other, and
// a token is used up exactly when the work is done.
func (s *Store) transaction(ctx context.Context, f func(*gorm.DB) error) error {
	return s.db.WithContext(ctx).Transaction(func(db *gorm.DB) error {
		if err := takeToken(ctx, db); err != nil {
			return err
		}
		return f(db)
	})
}

func takeToken(ctx context.Context, db *gorm.DB) error {
	token, _ := ctx.Value(onceKey{}).(string)
	if token == "" {
		return nil
	}
	taken := db.Clauses(clause.OnConflict{DoNothing: true}).Omit("At").Create(&onceToken{Token: token})
	if taken.Error != nil || taken.RowsAffected > 0 {
		return taken.Error
	}
	done := &onceToken{Token: token}
	if err := db.Take(done).Error; err != nil {
		return err
	}
	return &DoneBefore{done.Result}
}

// noteResult keeps what came of a form's work, for one that is sent again.
func noteResult(ctx context.Context, db *gorm.DB, result string) error {
	token, _ := ctx.Value(onceKey{}).(string)
	if token == "" {
		return nil
	}
	if err := db.Model(&onceToken{Token: token}).Update("result", result).Error; err != nil {
		return fmt.Errorf("the form's token: %w", err)
	}
	return nil
}

// DropOldTokens forgets tokens of forms that nobody sends again.
func (s *Store) DropOldTokens(ctx context.Context) error {
	return s.db.WithContext(ctx).Where("at < now() - interval '7 days'").Delete(&onceToken{}).Error
}
