package store

import (
	"context"
	_ "embed"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
	"github.com/jackc/pgx/v5/pgxpool"
	"github.com/jackc/pgx/v5/stdlib"
	"github.com/pressly/goose/v3"
	"github.com/pressly/goose/v3/lock"
)

//go:embed grants.sql
var grants string

// Migrate brings the schema to the newest version, as the role that owns it, and
// tells the database what the program's own role may do. program is empty where
// the owner and the program are one.
func Migrate(ctx context.Context, ownerURL, program string) error {
	return MigrateTo(ctx, ownerURL, program, goose.MaxVersion)
}

// MigrateTo brings the schema up to a version; a store that is put back starts
// from the version it was copied at.
func MigrateTo(ctx context.Context, ownerURL, program string, version int64) error {
	pool, err := connect(ctx, ownerURL, "0")
	if err != nil {
		return err
	}
	defer pool.Close()
	if err := up(ctx, pool, version); err != nil {
		return fmt.Errorf("the schema could not be brought up to date: %w", err)
	}
	owner := pool.Config().ConnConfig.User
	if program == "" || program == owner || version != goose.MaxVersion {
		return nil
	}
	role := pgx.Identifier{program}.Sanitize()
	if _, err := pool.Exec(ctx, strings.ReplaceAll(grants, "{role}", role)); err != nil {
		return fmt.Errorf("the rights of %s could not be set: %w", program, err)
	}
	return nil
}

func up(ctx context.Context, pool *pgxpool.Pool, version int64) error {
	db := stdlib.OpenDBFromPool(pool)
	defer db.Close()
	dir, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	// One at a time: a start that was killed may have left a session that is still at a step.
	oneAtATime, err := lock.NewPostgresSessionLocker(lock.WithLockTimeout(1, 300))
	if err != nil {
		return err
	}
	provider, err := goose.NewProvider(goose.DialectPostgres, db, dir, goose.WithSessionLocker(oneAtATime))
	if err != nil {
		return err
	}
	results, err := provider.UpTo(ctx, version)
	for _, r := range results {
		slog.Info("migrated", "version", r.Source.Version, "took", r.Duration.Round(time.Millisecond))
	}
	return err
}

// Newest is the version of the schema that this program needs.
func Newest() int64 {
	files, _ := fs.Glob(migrations, "migrations/*.sql")
	return int64(len(files))
}

// Version is the version of a store's schema, 0 where there is none. It is asked as the role that
// owns the store: stores of earlier versions gave the program's role no right to know.
func Version(ctx context.Context, ownerURL string) (version int64, err error) {
	pool, err := connect(ctx, ownerURL, statementTimeout)
	if err != nil {
		return 0, err
	}
	defer pool.Close()
	return versionOf(ctx, pool)
}

func versionOf(ctx context.Context, pool *pgxpool.Pool) (version int64, err error) {
	var there bool
	err = pool.QueryRow(ctx, "SELECT to_regclass('goose_db_version') IS NOT NULL").Scan(&there)
	if err != nil || !there {
		return 0, err
	}
	err = pool.QueryRow(ctx, schemaVersion).Scan(&version)
	return version, err
}

const schemaVersion = "SELECT coalesce(max(version_id), 0) FROM goose_db_version WHERE is_applied"

// Guard is what the database itself keeps the program from.
type Guard struct {
	Role  string
	Super bool // may do everything, whatever else is said
	Owns  bool // owns the record's table, and can give itself any right to it
	Bends bool // may change, delete or empty it, or put a line in beside the function
}

// Holds reports that the program's role cannot bend the record.
func (g Guard) Holds() bool { return !g.Super && !g.Owns && !g.Bends }

// Guard asks the database what the program's role may do to the record.
func (s *Store) Guard(ctx context.Context) (g Guard, err error) {
	err = s.Pool.QueryRow(ctx, `SELECT current_user, r.rolsuper, pg_has_role(current_user, c.relowner, 'MEMBER'),
			has_table_privilege(c.oid, 'INSERT, UPDATE, DELETE, TRUNCATE, TRIGGER')
				OR has_parameter_privilege('session_replication_role', 'SET')
		FROM pg_roles r, pg_class c
		WHERE r.rolname = current_user AND c.oid = 'record_entries'::regclass`).
		Scan(&g.Role, &g.Super, &g.Owns, &g.Bends)
	return g, err
}

// MakeBeside makes an empty database on the server of another, where it is not there yet. Both addresses are for the
// role that owns them.
func MakeBeside(ctx context.Context, ownerURL, address string) error {
	cfg, err := pgx.ParseConfig(address)
	if err != nil {
		return fmt.Errorf("the database address is not readable: %w", err)
	}
	pool, err := connect(ctx, ownerURL, "0")
	if err != nil {
		return err
	}
	defer pool.Close()
	var there bool
	if err := pool.QueryRow(ctx, "SELECT EXISTS (SELECT FROM pg_database WHERE datname = $1)",
		cfg.Database).Scan(&there); err != nil || there {
		return err
	}
	_, err = pool.Exec(ctx, "CREATE DATABASE "+pgx.Identifier{cfg.Database}.Sanitize())
	const duplicate = "42P04" // PostgreSQL, appendix A: another instance was quicker
	var fault *pgconn.PgError
	if errors.As(err, &fault) && fault.Code == duplicate {
		return nil
	}
	return err
}
