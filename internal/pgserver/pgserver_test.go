package pgserver_test

import (
	"context"
	"fmt"
	"os"
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

func count(t *testing.T, url string) (n int) {
	ctx := context.Background()
	conn, err := pgx.Connect(ctx, url)
	require.NoError(t, err)
	defer conn.Close(ctx)
	_, err = conn.Exec(ctx, "CREATE TABLE IF NOT EXISTS visits (id int)")
	require.NoError(t, err)
	_, err = conn.Exec(ctx, "INSERT INTO visits VALUES (1)")
	require.NoError(t, err)
	require.NoError(t, conn.QueryRow(ctx, "SELECT count(*) FROM visits").Scan(&n))
	return n
}

func TestKeepsDataOverAStaleLockFileAndRefusesTwoRuns(t *testing.T) {
	ctx := context.Background()
	dir, err := os.MkdirTemp("", "corvek-pg-")
	require.NoError(t, err)
	defer os.RemoveAll(dir)

	s, err := pgserver.Start(ctx, dir, true)
	require.NoError(t, err)
	assert.Equal(t, 1, count(t, s.OwnerURL()))
	_, err = pgserver.Start(ctx, dir, true)
	require.ErrorIs(t, err, pgserver.ErrInUse)
	// A command reaches the server that is running, and leaves it running.
	reached, err := pgserver.Reach(dir)
	require.NoError(t, err)
	assert.Equal(t, s.URL(), reached.URL())
	reached.Stop()
	conn, err := pgx.Connect(ctx, reached.URL())
	require.NoError(t, err)
	_, err = conn.Exec(ctx, "CREATE TABLE mine (id int)")
	require.ErrorContains(t, err, "permission denied", "the program's role owns nothing")
	require.NoError(t, conn.Close(ctx))
	s.Stop()

	// What a killed server leaves: a pid file that names a process of somebody else.
	stale := filepath.Join(dir, "data", "postmaster.pid")
	require.NoError(t, os.WriteFile(stale, []byte("1\n"+dir+"\n0\n5432\n"), 0o600))
	s, err = pgserver.Start(ctx, dir, true)
	require.NoError(t, err)
	defer s.Stop()
	assert.Equal(t, 2, count(t, s.OwnerURL()))
}

// A killed server is started again at the same address, by itself and every
// time, and what was committed is there.
func TestKilledServerComesBack(t *testing.T) {
	ctx := context.Background()
	dir, err := os.MkdirTemp("", "corvek-pg-")
	require.NoError(t, err)
	defer os.RemoveAll(dir)
	s, err := pgserver.Start(ctx, dir, false)
	require.NoError(t, err)
	defer s.Stop()
	address := s.OwnerURL()
	for kill := range 3 {
		assert.Equal(t, kill+1, count(t, address))
		text, err := os.ReadFile(filepath.Join(dir, "data", "postmaster.pid"))
		require.NoError(t, err)
		first, _, _ := strings.Cut(string(text), "\n")
		pid, err := strconv.Atoi(first)
		require.NoError(t, err)
		require.NoError(t, syscall.Kill(pid, syscall.SIGKILL))
		require.Eventually(t, func() bool {
			conn, err := pgx.Connect(ctx, address)
			if err != nil {
				return false
			}
			defer conn.Close(ctx)
			return conn.Ping(ctx) == nil && !pidLives(pid)
		}, 30*time.Second, 50*time.Millisecond)
		assert.Equal(t, address, s.OwnerURL())
	}
}

// pidLives tells a process from one that is dead and not yet reaped.
func pidLives(pid int) bool {
	stat, err := os.ReadFile(fmt.Sprintf("/proc/%d/stat", pid))
	return err == nil && !strings.Contains(string(stat), ") Z ")
}
