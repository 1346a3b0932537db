package store

import (
	"context"
	"errors"
	"time"

	"github.com/alexedwards/scs/pgxstore"
	"github.com/jackc/pgx/v5"
)

// cleanEvery is how often sessions that have run out are dropped.
const cleanEvery = 30 * time.Minute

// Sessions keep who is signed in. The library's own store waits for the database
// whatever the request's deadline is; this one gives up with the request.
type Sessions struct {
	*pgxstore.PostgresStore
	store *Store
}

// Sessions gives the store of sessions.
func (s *Store) Sessions() *Sessions {
	return &Sessions{pgxstore.NewWithCleanupInterval(s.Pool, cleanEvery), s}
}

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
