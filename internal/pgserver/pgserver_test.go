package pgserver_test

import (
	"context"
	"os"
	"path/filepath"
	"testing"

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
	assert.Equal(t, 1, count(t, s.URL()))
	_, err = pgserver.Start(ctx, dir, true)
	assert.ErrorContains(t, err, "already running")
	s.Stop()

	// What a killed server leaves: a pid file that names a process of somebody else.
	stale := filepath.Join(dir, "data", "postmaster.pid")
	require.NoError(t, os.WriteFile(stale, []byte("1\n"+dir+"\n0\n5432\n"), 0o600))
	s, err = pgserver.Start(ctx, dir, true)
	require.NoError(t, err)
	defer s.Stop()
	assert.Equal(t, 2, count(t, s.URL()))
}
