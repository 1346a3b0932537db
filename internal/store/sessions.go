package store

import (
	"context"
	"time"

	"gorm.io/gorm/clause"
)

// Sessions keep who is signed in, in the table of sessions, as scs asks for it. They give up with
// the request.
type Sessions struct{ store *Store }

// session is the row that keeps one.
type session struct {
	Token  string `gorm:"primaryKey"`
	Data   []byte
	Expiry time.Time
}

// Sessions gives the store of sessions.
func (s *Store) Sessions() *Sessions { return &Sessions{s} }

// FindCtx gives what is kept under a token that has not run out.
func (s *Sessions) FindCtx(ctx context.Context, token string) (data []byte, found bool, err error) {
	var rows []session
	err = s.store.db.WithContext(ctx).Where("token = ? AND current_timestamp < expiry", token).Limit(1).
		Find(&rows).Error
	if err != nil || len(rows) == 0 {
		return nil, false, err
	}
	return rows[0].Data, true, nil
}

// CommitCtx keeps data under a token until it runs out.
func (s *Sessions) CommitCtx(ctx context.Context, token string, data []byte, expiry time.Time) error {
	return s.store.db.WithContext(ctx).Clauses(clause.OnConflict{UpdateAll: true}).
		Create(&session{token, data, expiry}).Error
}

// DeleteCtx ends a session.
func (s *Sessions) DeleteCtx(ctx context.Context, token string) error {
	return s.store.db.WithContext(ctx).Where("token = ?", token).Delete(&session{}).Error
}

// Find is FindCtx without a request.
func (s *Sessions) Find(token string) ([]byte, bool, error) {
	return s.FindCtx(context.Background(), token)
}

// Commit is CommitCtx without a request.
func (s *Sessions) Commit(token string, data []byte, expiry time.Time) error {
	return s.CommitCtx(context.Background(), token, data, expiry)
}

// Delete is DeleteCtx without a request.
func (s *Sessions) Delete(token string) error { return s.DeleteCtx(context.Background(), token) }

// DropOldSessions forgets those that have run out.
func (s *Store) DropOldSessions(ctx context.Context) error {
	return s.db.WithContext(ctx).Where("expiry < now()").Delete(&session{}).Error
}
