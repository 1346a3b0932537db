// Package storetest gives tests a real PostgreSQL: one private server a test
// binary, one fresh database a test.
package storetest

import (
	"context"
	"fmt"
	"net/url"
	"os"
	"sync"
	"sync/atomic"
	"testing"

	"corvek/internal/pgserver"
	"corvek/internal/store"

	"github.com/jackc/pgx/v5"
)

var (
	once   sync.Once
	server *pgserver.Server
	folder string
	fault  error
	number atomic.Int64
)

// Runner runs a package's tests; *testing.M is one.
type Runner interface{ Run() int }

// Main runs a package's tests and stops the server after them.
func Main(m Runner) {
	code := m.Run()
	if server != nil {
		server.Stop()
	}
	if folder != "" {
		_ = os.RemoveAll(folder)
	}
	os.Exit(code)
}

// URL gives the address of a fresh, empty database.
func URL(t testing.TB) string {
	t.Helper()
	ctx := context.Background()
	once.Do(func() {
		if folder, fault = os.MkdirTemp("", "corvek-test-"); fault == nil {
			server, fault = pgserver.Start(ctx, folder, true)
		}
	})
	if fault != nil {
		t.Fatalf("test database: %v", fault)
	}
	name := fmt.Sprintf("test_%d", number.Add(1))
	conn, err := pgx.Connect(ctx, server.URL())
	if err != nil {
		t.Fatal(err)
	}
	defer conn.Close(ctx)
	if _, err := conn.Exec(ctx, "CREATE DATABASE "+name); err != nil {
		t.Fatal(err)
	}
	u, err := url.Parse(server.URL())
	if err != nil {
		t.Fatal(err)
	}
	u.Path = "/" + name
	return u.String()
}

// New gives a migrated store on a fresh database.
func New(t testing.TB) *store.Store {
	t.Helper()
	ctx := context.Background()
	s, err := store.Open(ctx, URL(t))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(s.Close)
	if err := s.Migrate(ctx); err != nil {
		t.Fatal(err)
	}
	return s
}
