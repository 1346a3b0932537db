package store_test

import (
	"compress/gzip"
	"context"
	"io"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"corvek/core/unit"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// oldStore lays a store down that an older version of the program made, and gives its address
// for the role that owns it.
func oldStore(t *testing.T, file string) string {
	t.Helper()
	f, err := os.Open(file)
	require.NoError(t, err)
	defer f.Close()
	z, err := gzip.NewReader(f)
	require.NoError(t, err)
	text, err := io.ReadAll(z)
	require.NoError(t, err)
	address := storetest.URL(t)
	conn, err := pgx.Connect(t.Context(), address)
	require.NoError(t, err)
	defer conn.Close(context.Background())
	_, err = conn.PgConn().Exec(t.Context(), string(text)).ReadAll()
	require.NoError(t, err)
	return address
}

// Stores of five earlier versions, made by those versions (scripts/old-stores.sh), are brought up
// to date: every job is there and can be written, and the record holds.
func TestOldStoresComeUp(t *testing.T) {
	files, err := filepath.Glob("testdata/old/*.sql.gz")
	require.NoError(t, err)
	require.Len(t, files, 5)
	for _, file := range files {
		t.Run(filepath.Base(file), func(t *testing.T) {
			ctx, address := t.Context(), oldStore(t, file)
			was, err := store.Version(ctx, address)
			require.NoError(t, err)
			assert.Positive(t, was)
			assert.Less(t, was, store.Newest())
			require.NoError(t, storetest.Migrate(ctx, address))

			s, err := store.Open(ctx, storetest.ProgramURL(address))
			require.NoError(t, err)
			defer s.Close()
			var tags []string
			require.NoError(t, s.Pool.QueryRow(ctx, "SELECT array_agg(tag ORDER BY tag) FROM jobs").Scan(&tags))
			assert.GreaterOrEqual(t, len(tags), 6)
			for _, tag := range tags {
				err := s.Update(ctx, tag, func(j *unit.Job, _ store.History) (*store.Change, error) {
					assert.NotEmpty(t, j.Units, tag)
					assert.NotEmpty(t, j.Units[0].Family, tag)
					j.Lesson += " Read again."
					return &store.Change{Job: j, Entries: []unit.Entry{{Who: "Iva", Action: "set",
						Field: "job/lesson", After: j.Lesson}}}, nil
				})
				require.NoError(t, err, tag)
			}
			left, err := s.JobsOfEarlier(ctx, 100)
			require.NoError(t, err)
			assert.Empty(t, left, "each was written")
			if strings.Contains(file, "761e10c") {
				told, err := s.Events(ctx, "T-0388")
				require.NoError(t, err)
				require.Len(t, told, 1)
				assert.True(t, told[0].Is(unit.EventSignedOff), "the sign-off of before is data now")
				assert.Equal(t, "lead", told[0].Role)
				assert.False(t, told[0].Event.On.IsZero())
			}
			v, err := s.Verify(ctx)
			require.NoError(t, err)
			assert.Empty(t, v.Fault())
			assert.GreaterOrEqual(t, v.Lines, len(tags))
		})
	}
}
