// Package storetest gives tests a real PostgreSQL: one private server a test
// binary, one fresh database a test.
package storetest

import (
	"context"
	"fmt"
	"net/url"
	"os"
	"strings"
	"sync"
	"sync/atomic"
	"testing"

	"corvek/core/unit"
	"corvek/internal/pgserver"
	"corvek/internal/store"

	"github.com/jackc/pgx/v5"
)

var (
	once   sync.Once
	server *host
	fault  error
	number atomic.Int64

	patterns sync.Map // made once and copied for each test, by name
)

// pattern is a database that others are copies of.
type pattern struct {
	once  sync.Once
	fault error
}

// Runner runs a package's tests; *testing.M is one.
type Runner interface{ Run() int }

// Main runs a package's tests and stops the server after them.
func Main(m Runner) {
	code := m.Run()
	if server != nil {
		server.stop()
	}
	os.Exit(code)
}

// URL gives the address of a fresh, empty database, for the role that owns it.
func URL(t testing.TB) string { return create(t, "template1") }

// create makes a database as a copy of another and gives its address.
func create(t testing.TB, like string) string {
	t.Helper()
	ctx := context.Background()
	once.Do(func() { server, fault = begin(ctx) })
	if fault != nil {
		t.Fatalf("test database: %v", fault)
	}
	name := fmt.Sprintf("test_%d_%d", os.Getpid(), number.Add(1))
	t.Cleanup(func() { drop(name) })
	return database(t, name, like)
}

func database(t testing.TB, name, like string) string {
	t.Helper()
	ctx := context.Background()
	conn, err := pgx.Connect(ctx, server.owner)
	if err != nil {
		t.Fatal(err)
	}
	defer conn.Close(ctx)
	if _, err := conn.Exec(ctx, "CREATE DATABASE "+name+" TEMPLATE "+like+" STRATEGY file_copy"); err != nil {
		t.Fatal(err)
	}
	return on(server.owner, name)
}

// drop takes a database away, whoever is still connected: a run of many binaries makes hundreds.
func drop(name string) {
	ctx := context.Background()
	conn, err := pgx.Connect(ctx, server.owner)
	if err != nil {
		return // the server is gone, and its databases with it
	}
	defer conn.Close(ctx)
	_, _ = conn.Exec(ctx, "DROP DATABASE IF EXISTS "+name+" WITH (FORCE)")
}

// on is an address of the server with another database.
func on(address, name string) string {
	u, err := url.Parse(address)
	if err != nil {
		panic(err) // the server gave it
	}
	u.Path = "/" + name
	return u.String()
}

// ProgramURL is the address of a database that URL gave, for the program's role.
func ProgramURL(owner string) string {
	u, err := url.Parse(owner)
	if err != nil {
		panic(err)
	}
	return on(server.program, strings.TrimPrefix(u.Path, "/"))
}

// Program is the role of the program.
const Program = pgserver.Program

// Migrate brings a database that URL gave to the newest schema.
func Migrate(ctx context.Context, owner string) error {
	return store.Migrate(ctx, owner, pgserver.Program)
}

// urls are the owner's addresses of the stores that were given out.
var urls sync.Map

// URLOf is the address, for the program, of a store that New gave.
func URLOf(s *store.Store) string { return ProgramURL(OwnerURLOf(s)) }

// OwnerURLOf is the address of a store that New gave, for the role that owns it.
func OwnerURLOf(s *store.Store) string {
	u, _ := urls.Load(s)
	text, _ := u.(string)
	return text
}

// bent are stores that a test went round the program of.
var bent sync.Map

// Bent reports that a test went round the program: its record need not hold any more.
func Bent(s *store.Store) bool {
	_, is := bent.Load(s)
	return is
}

// Bend says that a test goes round the program: what is in memory and in the tables need not
// agree any more, nor the record with either.
func Bend(s *store.Store) { bent.Store(s, true) }

// Owner connects to a store that New gave as the role that owns it: what somebody
// can do who goes round the program.
func Owner(t testing.TB, s *store.Store) *pgx.Conn {
	t.Helper()
	Bend(s)
	conn, err := pgx.Connect(context.Background(), OwnerURLOf(s))
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = conn.Close(context.Background()) })
	return conn
}

// New gives a migrated store on a fresh database.
func New(t testing.TB) *store.Store {
	t.Helper()
	migrated(t)
	return open(t, create(t, "migrated"))
}

// Filled gives a store that was filled once, under a name, and then copied for
// each test.
func Filled(t testing.TB, name string, fill func(context.Context, *store.Store) error) *store.Store {
	t.Helper()
	migrated(t)
	prepare(t, name, "migrated", fill)
	return open(t, create(t, name))
}

func migrated(t testing.TB) {
	t.Helper()
	prepare(t, "migrated", "template1", nil)
}

// prepare makes a pattern as a copy of another one, the first time it is asked for: by this
// binary, or by another one of the run that takes turns with it.
func prepare(t testing.TB, name, like string, fill func(context.Context, *store.Store) error) {
	t.Helper()
	known, _ := patterns.LoadOrStore(name, &pattern{})
	p := known.(*pattern)
	p.once.Do(func() {
		URL(t) // starts the server
		p.fault = makePattern(t, name, like, fill)
	})
	if p.fault != nil {
		t.Fatal(p.fault)
	}
}

func makePattern(t testing.TB, name, like string, fill func(context.Context, *store.Store) error) error {
	t.Helper()
	ctx := context.Background()
	conn, err := pgx.Connect(ctx, server.owner)
	if err != nil {
		return err
	}
	defer conn.Close(ctx) // ends the turn
	if _, err := conn.Exec(ctx, "SELECT pg_advisory_lock(hashtextextended($1, 0))", name); err != nil {
		return err
	}
	var there bool
	if err := conn.QueryRow(ctx, "SELECT EXISTS (SELECT FROM pg_database WHERE datname = $1)",
		name).Scan(&there); err != nil || there {
		return err
	}
	half := fmt.Sprintf("half_%d_%d", os.Getpid(), number.Add(1))
	address := database(t, half, like)
	if err := fillIn(ctx, address, fill); err != nil {
		return err
	}
	_, err = conn.Exec(ctx, "ALTER DATABASE "+half+" RENAME TO "+name)
	return err
}

// fillIn migrates an empty database, or fills one that is migrated.
func fillIn(ctx context.Context, address string, fill func(context.Context, *store.Store) error) error {
	if fill == nil {
		return Migrate(ctx, address)
	}
	s, err := store.Open(ctx, ProgramURL(address))
	if err != nil {
		return err
	}
	defer s.Close()
	return fill(ctx, s)
}

func open(t testing.TB, address string) *store.Store {
	t.Helper()
	s, err := store.Open(context.Background(), ProgramURL(address))
	if err != nil {
		t.Fatal(err)
	}
	urls.Store(s, address)
	t.Cleanup(func() { // before its database goes
		held(t, s)
		s.Close()
	})
	return s
}

// mostHeld is how many jobs are looked at, those last used: each is read whole.
const mostHeld = 4

// held requires the jobs in memory to be those that were written: whoever reads a job, or what
// was worked out of it, never changes it.
func held(t testing.TB, s *store.Store) {
	ctx := context.Background()
	if t.Failed() || Bent(s) || s.Ping(ctx) != nil { // or closed
		return
	}
	jobs := s.Held()
	for _, j := range jobs[max(0, len(jobs)-mostHeld):] {
		kept, err := s.Read(ctx, j.Tag)
		if err != nil || kept.Version != j.Version { // written by another instance
			continue
		}
		is, err := j.Sections()
		if err != nil {
			t.Errorf("%s: %v", j.Tag, err)
		}
		was, err := kept.Sections()
		if err != nil {
			t.Errorf("%s: %v", j.Tag, err)
		}
		if others := unit.Differ(is, was); len(others) > 0 {
			t.Errorf("%s is held in memory as nobody wrote it: somebody who only read it changed %q", j.Tag, others)
		}
	}
}
