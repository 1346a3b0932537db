package store_test

import (
	"archive/zip"
	"bytes"
	"context"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"
	"time"

	"corvek/core/shop"
	"corvek/core/unit"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// filled is a store with a job, its record and a picture, a person, an instrument,
// a family version.
func filled(t *testing.T) *store.Store {
	s, ctx := storetest.New(t), context.Background()
	require.NoError(t, s.FirstLead(ctx, "Quay Hydraulics", &store.Person{SignIn: "ada", Name: "Ada Lund",
		Initials: "AL", Role: "lead", PasswordHash: "h\\t\n\""}))
	require.NoError(t, s.SaveInstrument(ctx, &shop.Instrument{Name: "micrometer", Kind: "m", Resolution: "1 µm"}))
	require.NoError(t, s.SaveFamily(ctx, &store.FamilyVersion{Code: "x", Text: "a\tb\nc", ByName: "Ada",
		At: time.Now()}))
	j := sheet("T-0501")
	j.Pictures = []*unit.Picture{{Number: 1, Name: "a.jpg", MediaType: "image/jpeg"}}
	require.NoError(t, s.Create(ctx, &store.Change{Job: j,
		Entries:  []unit.Entry{{Who: "Ada", At: time.Now(), Action: "opened"}},
		Contents: map[int]store.Content{1: {Bytes: []byte{0, 1, 2, 255, '\\', '\n'}, Thumb: []byte{9}}}}))
	return s
}

// contents is what every table of a store holds, as text.
func contents(t *testing.T, conn *pgx.Conn) string {
	rows, err := conn.Query(t.Context(), "SELECT relname FROM pg_class WHERE relnamespace = 'public'::regnamespace "+
		"AND relkind = 'r' AND relname NOT IN ('goose_db_version', 'copies', 'sessions', 'open_pages') "+
		"ORDER BY relname")
	require.NoError(t, err)
	names, err := pgx.CollectRows(rows, pgx.RowTo[string])
	require.NoError(t, err)
	require.Greater(t, len(names), 20)
	var b bytes.Buffer
	for _, name := range names {
		fmt.Fprintln(&b, "==", name)
		_, err := conn.PgConn().
			CopyTo(t.Context(), &b, "COPY (SELECT * FROM "+name+" AS t ORDER BY t::text) TO STDOUT")
		require.NoError(t, err)
	}
	return b.String()
}

// What is copied and put back elsewhere is equal in every row, verifies to the same
// fingerprint, and is worked on further.
func TestBackupWipeRestore(t *testing.T) {
	s, ctx := filled(t), t.Context()
	file := filepath.Join(t.TempDir(), "copy.zip")
	c, err := s.Backup(ctx, file)
	require.NoError(t, err)
	assert.Empty(t, c.Fault)
	assert.Equal(t, int64(1), c.Lines)
	before, err := s.Verify(ctx)
	require.NoError(t, err)

	address := storetest.URL(t)
	m, err := store.Restore(ctx, address, storetest.Program, file)
	require.NoError(t, err)
	assert.Equal(t, before.Head, m.Head)
	there, err := store.Open(ctx, storetest.ProgramURL(address))
	require.NoError(t, err)
	defer there.Close()
	conn, err := pgx.Connect(ctx, address)
	require.NoError(t, err)
	defer conn.Close(ctx)
	assert.Equal(t, contents(t, storetest.Owner(t, s)), contents(t, conn))
	content, _, err := there.Picture(ctx, "T-0501", 1)
	require.NoError(t, err)
	assert.Equal(t, []byte{0, 1, 2, 255, '\\', '\n'}, content.Bytes)

	require.NoError(t, there.Create(ctx, &store.Change{Job: sheet(""),
		Entries: []unit.Entry{{Who: "Ada", At: time.Now(), Action: "opened"}}}))
	after, err := there.Verify(ctx)
	require.NoError(t, err)
	assert.Empty(t, after.Fault())
	assert.Equal(t, before.Lines+1, after.Lines)
	guard, err := there.Guard(ctx)
	require.NoError(t, err)
	assert.True(t, guard.Holds(), "the rights are set in the new place too")

	_, err = store.Restore(ctx, address, storetest.Program, file)
	assert.ErrorIs(t, err, store.ErrNotEmpty)
	last, err := s.LastGoodCopy(ctx)
	require.NoError(t, err)
	assert.WithinDuration(t, time.Now(), last, time.Minute)
}

// A copy made while others write holds one moment: its record fits and its jobs are
// those of its record.
func TestBackupWhileOthersWrite(t *testing.T) {
	s, ctx := filled(t), t.Context()
	stop := make(chan struct{})
	var wg sync.WaitGroup
	for w := range 4 {
		wg.Go(func() {
			for i := 0; ; i++ {
				select {
				case <-stop:
					return
				default:
				}
				err := s.Create(context.Background(), &store.Change{Job: sheet(fmt.Sprintf("W-%d-%d", w, i)),
					Entries: []unit.Entry{{Who: "Ada", At: time.Now(), Action: "opened"}}})
				if err != nil {
					t.Error(err)
					return
				}
			}
		})
	}
	for i := range 3 {
		file := filepath.Join(t.TempDir(), "copy.zip")
		c, err := s.Backup(ctx, file)
		require.NoError(t, err)
		assert.Empty(t, c.Fault)
		address := storetest.URL(t)
		m, err := store.Restore(ctx, address, storetest.Program, file)
		require.NoError(t, err, "copy %d", i)
		conn, err := pgx.Connect(ctx, address)
		require.NoError(t, err)
		var jobs int
		require.NoError(t, conn.QueryRow(ctx, "SELECT count(*) FROM jobs").Scan(&jobs))
		assert.Equal(t, m.Lines, jobs, "each job came with one line")
		_ = conn.Close(ctx)
	}
	close(stop)
	wg.Wait()
}

// A copy that was changed, cut short or is something else is refused, and the
// store stays empty.
func TestABadCopyIsRefused(t *testing.T) {
	s, ctx := filled(t), t.Context()
	dir := t.TempDir()
	file := filepath.Join(dir, "copy.zip")
	_, err := s.Backup(ctx, file)
	require.NoError(t, err)
	whole, err := os.ReadFile(file)
	require.NoError(t, err)
	for name, c := range map[string]struct {
		bytes []byte
		says  string
	}{
		"cut":        {whole[:len(whole)/2], "is no copy of a store"},
		"empty":      {nil, "is no copy of a store"},
		"another":    {[]byte("PK\x05\x06" + strings.Repeat("\x00", 18)), "is no copy of a store"},
		"changed":    {rezip(t, whole, "tables/jobs", bytes.ToUpper), "jobs is not as"},
		"taken out":  {rezip(t, whole, "tables/people", nil), "people is missing"},
		"newer":      {rezip(t, whole, "manifest.json", replaced(`"Schema": `, `"Schema": 9`)), "newer Corvek"},
		"no such":    {rezip(t, whole, "manifest.json", replaced(`"Name": "jobs"`, `"Name": "jobs; --"`)), "missing"},
		"other name": {rezip(t, whole, "manifest.json", replaced(`"title"`, `"title2"`)), "does not look as it did"},
	} {
		t.Run(name, func(t *testing.T) {
			bad := filepath.Join(dir, "bad.zip")
			require.NoError(t, os.WriteFile(bad, c.bytes, 0o600))
			address := storetest.URL(t)
			_, err := store.Restore(ctx, address, storetest.Program, bad)
			require.ErrorContains(t, err, c.says)
			there, err := store.Open(ctx, address)
			require.NoError(t, err)
			defer there.Close()
			if version, err := store.Version(ctx, address); err == nil && version > 0 {
				none, err := there.NoPeople(ctx)
				require.NoError(t, err)
				assert.True(t, none, "half a copy stayed")
			}
		})
	}
}

func replaced(old, with string) func([]byte) []byte {
	return func(b []byte) []byte { return bytes.ReplaceAll(b, []byte(old), []byte(with)) }
}

// rezip changes one file of a zip, or leaves it out where change is nil.
func rezip(t *testing.T, whole []byte, name string, change func([]byte) []byte) []byte {
	t.Helper()
	in, err := zip.NewReader(bytes.NewReader(whole), int64(len(whole)))
	require.NoError(t, err)
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	for _, f := range in.File {
		r, err := f.Open()
		require.NoError(t, err)
		content, err := io.ReadAll(r)
		require.NoError(t, err)
		if f.Name == name {
			if change == nil {
				continue
			}
			fresh := change(content)
			require.NotEqual(t, content, fresh)
			content = fresh
		}
		w, err := z.Create(f.Name)
		require.NoError(t, err)
		_, err = w.Write(content)
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return out.Bytes()
}

// A bent record is copied as it is, and the copy says that it is no good one.
func TestACopyOfABentRecordSaysSo(t *testing.T) {
	s, ctx := filled(t), t.Context()
	_, err := storetest.Owner(t, s).Exec(ctx, "ALTER TABLE record_entries DISABLE TRIGGER record_append_only; "+
		"UPDATE record_entries SET who = 'nobody'")
	require.NoError(t, err)
	c, err := s.Backup(ctx, filepath.Join(t.TempDir(), "copy.zip"))
	require.NoError(t, err)
	assert.Contains(t, c.Fault, "is not as it was written")
	last, err := s.LastGoodCopy(ctx)
	require.NoError(t, err)
	assert.True(t, last.IsZero())
}

func TestKeeperKeepsTheNewest(t *testing.T) {
	s, ctx := filled(t), t.Context()
	dir := filepath.Join(t.TempDir(), "copies")
	k := &store.Keeper{Store: s, Folder: dir, Every: time.Hour, Keep: 2}
	require.NoError(t, os.MkdirAll(dir, 0o700))
	for _, name := range []string{"corvek-20310101-000000.zip", "corvek-20310102-000000.zip", "mine.zip"} {
		require.NoError(t, os.WriteFile(filepath.Join(dir, name), nil, 0o600))
	}
	_, err := k.Now(ctx)
	require.NoError(t, err)
	left, err := filepath.Glob(filepath.Join(dir, "*.zip"))
	require.NoError(t, err)
	assert.Len(t, left, 3, "two copies and the file that is none")
	assert.FileExists(t, filepath.Join(dir, "mine.zip"))

	// A folder that cannot be written is told of and noted.
	blocked := filepath.Join(t.TempDir(), "file")
	require.NoError(t, os.WriteFile(blocked, nil, 0o600))
	bad := &store.Keeper{Store: s, Folder: filepath.Join(blocked, "x"), Every: time.Hour, Keep: 2}
	_, err = bad.Now(ctx)
	require.Error(t, err)
	copies, err := s.Copies(ctx, 10)
	require.NoError(t, err)
	require.Len(t, copies, 2)
	assert.NotEmpty(t, copies[0].Fault)
	assert.Empty(t, copies[1].Fault)
	_, err = (&store.Keeper{Store: s}).Now(ctx)
	assert.ErrorContains(t, err, "no folder")
}

// A copy in which a figure is another than its record says is put back nowhere: the store is as
// empty as before, and takes a good one.
func TestACopyThatDoesNotHoldIsTakenOutAgain(t *testing.T) {
	s, ctx := filled(t), t.Context()
	dir := t.TempDir()
	good, bent := filepath.Join(dir, "good.zip"), filepath.Join(dir, "bent.zip")
	_, err := s.Backup(ctx, good)
	require.NoError(t, err)
	_, err = storetest.Owner(t, s).Exec(ctx, "UPDATE units SET speed = '1800 rpm'")
	require.NoError(t, err)
	_, err = s.Backup(ctx, bent)
	require.NoError(t, err)

	address := storetest.URL(t)
	_, err = store.Restore(ctx, address, storetest.Program, bent)
	require.ErrorContains(t, err, "does not hold")
	require.ErrorContains(t, err, "Nothing of it was kept")
	m, err := store.Restore(ctx, address, storetest.Program, good)
	require.NoError(t, err)
	assert.EqualValues(t, 1, m.Lines)
}
