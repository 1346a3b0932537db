package store

import (
	"context"
	"errors"
	"time"

	"github.com/jackc/pgx/v5"
)

// Sessions keep who is signed in, in the table of sessions, as scs asks for it. They give up with
// the request.
type Sessions struct{ store *Store }

// Sessions gives the store of sessions.
func (s *Store) Sessions() *Sessions { return &Sessions{s} }

// FindCtx gives what is kept under a token that has not run out.
func (s *Sessions) FindCtx(ctx context.Context, token string) (data []byte, found bool, err error) {
	row := s.store.Pool.QueryRow(ctx, `SELECT data FROM sessions
		WHERE token = $1 AND current_timestamp < expiry`, token)
	if err = row.Scan(&data); errors.Is(err, pgx.ErrNoRows) {
		return nil, false, nil
	}
	return data, err == nil, err
}

// CommitCtx keeps data under a token until it runs out.
func (s *Sessions) CommitCtx(ctx context.Context, token string, data []byte, expiry time.Time) error {
	_, err := s.store.Pool.Exec(ctx, `INSERT INTO sessions (token, data, expiry) VALUES ($1, $2, $3)
		ON CONFLICT (token) DO UPDATE SET data = EXCLUDED.data, expiry = EXCLUDED.expiry`, token, data, expiry)
	return err
}

// DeleteCtx ends a session.
func (s *Sessions) DeleteCtx(ctx context.Context, token string) error {
	_, err := s.store.Pool.Exec(ctx, "DELETE FROM sessions WHERE token = $1", token)
	return err
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
	return s.db.WithContext(ctx).Exec("DELETE FROM sessions WHERE expiry < now()").Error
}
