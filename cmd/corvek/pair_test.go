//go:build audit

package main

import (
	"context"
	"fmt"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"corvek/internal/pgserver"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// databaseServer is one PostgreSQL of a pair, as docs/running.md sets it up.
type databaseServer struct {
	t    *testing.T
	dir  string
	port int
	cmd  *exec.Cmd
}

func newDatabaseServer(t *testing.T) *databaseServer {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer l.Close()
	s := &databaseServer{t: t, dir: filepath.Join(folder(t), "data"), port: l.Addr().(*net.TCPAddr).Port}
	account, err := pgserver.Account()
	require.NoError(t, err)
	if account != nil {
		require.NoError(t, os.Chown(filepath.Dir(s.dir), int(account.Uid), int(account.Gid)))
	}
	t.Cleanup(s.kill)
	return s
}

// command is one of the server's own programs, as the account that it runs as.
func (s *databaseServer) command(name string, args ...string) *exec.Cmd {
	binaries, err := pgserver.Binaries()
	require.NoError(s.t, err)
	account, err := pgserver.Account()
	require.NoError(s.t, err)
	cmd := exec.Command(filepath.Join(binaries, name), args...)
	cmd.Dir = filepath.Dir(s.dir)
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: account}
	return cmd
}

func (s *databaseServer) must(name string, args ...string) {
	s.t.Helper()
	said, err := s.command(name, args...).CombinedOutput()
	require.NoError(s.t, err, "%s", said)
}

// begin makes an empty primary.
func (s *databaseServer) begin() {
	s.must(
		"initdb",
		"-D",
		s.dir,
		"-U",
		"postgres",
		"--auth=trust",
		"--encoding=UTF8",
		"--locale=C.UTF-8",
		"--no-sync",
	)
	s.start()
	for _, act := range []string{"CREATE ROLE corvek_owner LOGIN", "CREATE ROLE corvek_program LOGIN",
		"CREATE DATABASE corvek OWNER corvek_owner"} {
		s.exec("postgres", act)
	}
	s.exec("corvek", "CREATE EXTENSION pg_trgm")
}

// follow makes the server anew as the standby of another and has that one wait for it.
func (s *databaseServer) follow(primary *databaseServer) {
	require.NoError(s.t, os.RemoveAll(s.dir))
	s.must("pg_basebackup", "-D", s.dir, "-R", "-X", "stream", "--checkpoint=fast", "--no-sync", "-d",
		fmt.Sprintf("host=127.0.0.1 port=%d user=postgres", primary.port))
	s.start()
	primary.exec("postgres", "ALTER SYSTEM SET synchronous_standby_names = '*'")
	primary.exec("postgres", "SELECT pg_reload_conf()")
	require.Eventually(s.t, func() bool {
		return primary.says("SELECT count(*)::text FROM pg_stat_replication WHERE sync_state = 'sync'") == "1"
	}, time.Minute, 50*time.Millisecond)
}

// promote makes a standby the primary, which waits for nobody until it is followed.
func (s *databaseServer) promote() {
	s.exec("postgres", "ALTER SYSTEM SET synchronous_standby_names = ''")
	s.exec("postgres", "SELECT pg_reload_conf()")
	s.exec("postgres", "SELECT pg_promote()")
}

func (s *databaseServer) start() {
	s.cmd = s.command("postgres", "-D", s.dir, "-p", strconv.Itoa(s.port), "-c", "listen_addresses=127.0.0.1", "-c",
		"unix_socket_directories=")
	require.NoError(s.t, s.cmd.Start())
	require.Eventually(s.t, func() bool { return s.says("SELECT '1'") == "1" }, time.Minute, 50*time.Millisecond)
}

// kill ends the server and all its processes at once, as a machine that loses its power.
func (s *databaseServer) kill() {
	if s.cmd == nil {
		return
	}
	pid := s.cmd.Process.Pid
	all := []int{pid}
	stats, _ := filepath.Glob("/proc/[0-9]*/stat")
	for _, file := range stats {
		text, _ := os.ReadFile(file)
		_, rest, _ := strings.Cut(string(text), ") ")
		if f := strings.Fields(rest); len(f) > 1 && f[1] == strconv.Itoa(pid) {
			child, _ := strconv.Atoi(filepath.Base(filepath.Dir(file)))
			all = append(all, child)
		}
	}
	for _, one := range all {
		_ = syscall.Kill(one, syscall.SIGKILL)
	}
	_ = s.cmd.Wait()
	s.cmd = nil
}

func (s *databaseServer) address(role, database string) string {
	return fmt.Sprintf("postgres://%s@127.0.0.1:%d/%s?sslmode=disable", role, s.port, database)
}

func (s *databaseServer) exec(database, act string) {
	s.t.Helper()
	conn, err := pgx.Connect(context.Background(), s.address("postgres", database))
	require.NoError(s.t, err)
	defer conn.Close(context.Background())
	_, err = conn.Exec(context.Background(), act)
	require.NoError(s.t, err, act)
}

func (s *databaseServer) says(query string) (text string) {
	conn, err := pgx.Connect(context.Background(), s.address("postgres", "postgres"))
	if err != nil {
		return ""
	}
	defer conn.Close(context.Background())
	_ = conn.QueryRow(context.Background(), query).Scan(&text)
	return text
}

// both is the address of a pair for a role: whichever of the two takes writes.
func both(a, b *databaseServer, role string) string {
	return fmt.Sprintf(
		"postgres://%s@127.0.0.1:%d,127.0.0.1:%d/corvek?sslmode=disable&target_session_attrs=read-write",
		role,
		a.port,
		b.port,
	)
}

// The primary is killed in the middle of entry and its synchronous standby promoted, again and again: nothing
// that was answered for is lost, and the program serves on without a new start. CORVEK_KILLS sets how often.
func TestStandbyTakesOver(t *testing.T) {
	kills := 2
	if n, err := strconv.Atoi(os.Getenv("CORVEK_KILLS")); err == nil {
		kills = n
	}
	primary, standby := newDatabaseServer(t), newDatabaseServer(t)
	primary.begin()
	env := []string{"DATABASE_URL=" + both(primary, standby, "corvek_program"),
		"CORVEK_OWNER_URL=" + both(primary, standby, "corvek_owner")}
	_, errs, code := run(t, "", env, "migrate")
	require.Zero(t, code, errs)
	stockShop(t, env)
	standby.follow(primary)
	instances := []*instance{{t: t, env: env}, {t: t, env: env}}
	for _, i := range instances {
		i.begin()
		defer i.stop()
	}
	s := &shopOfBenches{t: t, base: front(t, instances), database: func() string {
		return primary.address("postgres", "corvek")
	}}
	var away time.Duration
	s.work(func() {
		for range kills {
			time.Sleep(4 * time.Second)
			killed := time.Now()
			primary.kill()
			primary, standby = standby, primary
			primary.promote()
			promoted := time.Now()
			before := s.words()
			require.Eventually(t, func() bool { return s.words() > before }, 30*time.Second, 10*time.Millisecond,
				"nothing is written any more")
			t.Logf(
				"promoted after %s, the next word answered for %s later",
				promoted.Sub(killed),
				time.Since(promoted),
			)
			away = max(away, time.Since(promoted))
			standby.follow(primary)
		}
		time.Sleep(3 * time.Second)
	})
	t.Logf(
		"%d words answered for, %d primaries killed; served again %s after a promotion at most; seen after %s at most",
		s.words(),
		kills,
		away,
		s.worst,
	)
	assert.Empty(t, s.lost())
	assert.Empty(t, s.unseen())
	out, errs, code := run(t, "", env, "verify")
	require.Zero(t, code, errs)
	assert.Contains(t, out, "the record holds")
}
