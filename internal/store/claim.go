package store

import (
	"context"
	"errors"
	"sync"

	"github.com/jackc/pgx/v5"
)

// ErrClaimed says that another instance holds a thing that one alone may work with.
var ErrClaimed = errors.New("another instance has it")

// Claim takes a thing for this instance until it is released, or the instance ends: nobody else
// gets it meanwhile. It costs a connection of its own.
func (s *Store) Claim(ctx context.Context, thing string) (release func(), err error) {
	conn, err := pgx.ConnectConfig(ctx, s.Pool.Config().ConnConfig)
	if err != nil {
		return nil, err
	}
	let := context.WithoutCancel(ctx)
	var ours bool
	const try = "SELECT pg_try_advisory_lock(hashtextextended($1, 0))"
	if err := conn.QueryRow(ctx, try, "claim "+thing).Scan(&ours); err != nil || !ours {
		_ = conn.Close(let)
		if err == nil {
			err = ErrClaimed
		}
		return nil, err
	}
	return sync.OnceFunc(func() { _ = conn.Close(let) }), nil
}
