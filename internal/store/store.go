// Package store keeps jobs in PostgreSQL through GORM, with the schema in
// versioned SQL migrations. It gives and takes the types of core/unit; rows and
// the database stay in here.
//
// Values are kept as text exactly as typed ("7 thou"). A job is loaded whole and
// held in memory by its version; a writer gets a copy, and only the rows that
// differ afterwards are written.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"strings"
	"sync/atomic"
	"time"

	"corvek/core/unit"

	lru "github.com/hashicorp/golang-lru/v2"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/jackc/pgx/v5/stdlib"
	"gorm.io/driver/postgres"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound says that there is no such thing here.
var ErrNotFound = errors.New("not found")

// Store is the one way to the database.
type Store struct {
	Pool *pgxpool.Pool
	sql  *sql.DB
	db   *gorm.DB

	cache  *lru.Cache[string, *unit.Job] // jobs as last seen, by tag
	months atomic.Pointer[closedMonths]
	stock  atomic.Pointer[heldStock]
}

// cached is how many jobs are held in memory.
const cached = 256

// connections at once, where the address does not say pool_max_conns.
const connections = 16

// How long a connection and a statement may take before the store counts as away.
const (
	connectTimeout   = 3 * time.Second
	statementTimeout = "15s"
)

// Open connects and waits a moment for a server that is still starting.
func Open(ctx context.Context, url string) (*Store, error) {
	pool, err := connect(ctx, url, statementTimeout)
	if err != nil {
		return nil, err
	}
	sqlDB := stdlib.OpenDBFromPool(pool)
	db, err := gorm.Open(postgres.New(postgres.Config{Conn: sqlDB}), &gorm.Config{
		Logger:                 logger.Discard,
		SkipDefaultTransaction: true,
		PrepareStmt:            true,
		QueryFields:            true, // what a row does not declare is not read
	})
	if err != nil {
		pool.Close()
		return nil, err
	}
	cache, err := lru.New[string, *unit.Job](cached)
	if err != nil {
		pool.Close()
		return nil, err
	}
	return &Store{Pool: pool, sql: sqlDB, db: db, cache: cache}, nil
}

// connect opens connections and asks for an answer. A statement is given up after
// so long, "0" never.
func connect(ctx context.Context, url, timeout string) (*pgxpool.Pool, error) {
	cfg, err := pgxpool.ParseConfig(url)
	if err != nil {
		return nil, fmt.Errorf("the database address is not readable: %w", err)
	}
	if !strings.Contains(url, "pool_max_conns") {
		cfg.MaxConns = connections
	}
	cfg.ConnConfig.ConnectTimeout = connectTimeout
	if cfg.ConnConfig.RuntimeParams["statement_timeout"] == "" {
		cfg.ConnConfig.RuntimeParams["statement_timeout"] = timeout
	}
	pool, err := pgxpool.NewWithConfig(ctx, cfg)
	if err != nil {
		return nil, err
	}
	for try := 0; ; try++ {
		if err = pool.Ping(ctx); err == nil {
			break
		}
		if try == 20 || ctx.Err() != nil {
			pool.Close()
			return nil, fmt.Errorf("the database does not answer: %w", err)
		}
		time.Sleep(150 * time.Millisecond)
	}
	return pool, nil
}

// Close lets go of all connections.
func (s *Store) Close() {
	_ = s.sql.Close()
	s.Pool.Close()
}

// Ping reports whether the database answers.
func (s *Store) Ping(ctx context.Context) error { return s.Pool.Ping(ctx) }
