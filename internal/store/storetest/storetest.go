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

	template     sync.Once
	templateName = "migrated"
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
func URL(t testing.TB) string { return create(t, "template1") }

// create makes a database as a copy of another and gives its address.
func create(t testing.TB, like string) string {
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
	return database(t, fmt.Sprintf("test_%d", number.Add(1)), like)
}

func database(t testing.TB, name, like string) string {
	t.Helper()
	ctx := context.Background()
	conn, err := pgx.Connect(ctx, server.URL())
	if err != nil {
		t.Fatal(err)
	}
	defer conn.Close(ctx)
	if _, err := conn.Exec(ctx, "CREATE DATABASE "+name+" TEMPLATE "+like); err != nil {
		t.Fatal(err)
	}
	u, err := url.Parse(server.URL())
	if err != nil {
		t.Fatal(err)
	}
	u.Path = "/" + name
	return u.String()
}

// urls are the addresses of the stores that were given out.
var urls sync.Map

// URLOf is the address of a store that New gave.
func URLOf(s *store.Store) string {
	u, _ := urls.Load(s)
	text, _ := u.(string)
	return text
}

// New gives a migrated store on a fresh database. The schema is made once and
// then copied.
func New(t testing.TB) *store.Store {
	t.Helper()
	ctx := context.Background()
	template.Do(func() {
		URL(t) // starts the server
		s, err := store.Open(ctx, database(t, templateName, "template1"))
		if err != nil {
			t.Fatal(err)
		}
		defer s.Close()
		if err := s.Migrate(ctx); err != nil {
			t.Fatal(err)
		}
	})
	address := create(t, templateName)
	s, err := store.Open(ctx, address)
	if err != nil {
		t.Fatal(err)
	}
	urls.Store(s, address)
	t.Cleanup(s.Close)
	return s
}
