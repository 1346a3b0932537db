package main

import (
	"context"
	"fmt"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"

	"corvek/internal/whole"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// held is how much a store holds; two that are equal were loaded alike.
type held struct{ Jobs, People, Instruments, Recordings, Samples, Signed int64 }

// holds counts what the private store of a folder, which runs, holds.
func holds(t *testing.T, data string) (h held) {
	t.Helper()
	pid, err := os.ReadFile(filepath.Join(data, "data", "postmaster.pid"))
	require.NoError(t, err)
	secret, err := os.ReadFile(filepath.Join(data, "secret"))
	require.NoError(t, err)
	conn, err := pgx.Connect(t.Context(), fmt.Sprintf("postgres://corvek:%s@127.0.0.1:%s/corvek", secret,
		strings.Split(string(pid), "\n")[3]))
	require.NoError(t, err)
	defer conn.Close(context.Background())
	require.NoError(t, conn.QueryRow(t.Context(), `SELECT (SELECT count(*) FROM jobs), (SELECT count(*) FROM people),
		(SELECT count(*) FROM instruments), (SELECT count(*) FROM recordings),
		(SELECT coalesce(sum(samples), 0) FROM recording_chunks),
		(SELECT count(*) FROM record_entries WHERE kind = 'signed_off' AND NOT brought)`).
		Scan(&h.Jobs, &h.People, &h.Instruments, &h.Recordings, &h.Samples, &h.Signed))
	return h
}

// A first start that is killed at any moment, also twice, is finished by the next: the shop is
// there whole, and nothing twice. CORVEK_FIRST_KILLS says how many moments of each second.
func TestAKilledFirstStartIsFinishedByTheNext(t *testing.T) {
	whole.Only(t)
	clean := folder(t)
	began := time.Now()
	_, stop := started(t, clean, "demo")
	took := time.Since(began)
	want := holds(t, clean)
	stop()
	require.Positive(t, want.Recordings*want.Signed*want.Samples)

	kills := 1
	if n, err := strconv.Atoi(os.Getenv("CORVEK_FIRST_KILLS")); err == nil {
		kills = n * int(took.Seconds()+1)
	}
	for i := range kills {
		// Spread over the whole start, each at a moment of its own.
		after := time.Duration((float64(i) + rand.Float64()) / float64(kills) * float64(took))
		t.Run(after.Round(time.Millisecond).String(), func(t *testing.T) {
			data := folder(t)
			for _, d := range []time.Duration{after, time.Duration(rand.Float64() * float64(after))} {
				cmd := exec.Command(binary, "demo", "--addr", "127.0.0.1:0")
				cmd.Env = append(os.Environ(), "CORVEK_DATA="+data, "DATABASE_URL=")
				require.NoError(t, cmd.Start())
				time.Sleep(d)
				_ = cmd.Process.Kill()
				_ = cmd.Wait()
			}
			said, stop := started(t, data, "demo")
			assert.Contains(t, said, "serves on")
			assert.Equal(t, want, holds(t, data))
			stop()
			_, errs, code := run(t, "", []string{"CORVEK_DATA=" + data, "DATABASE_URL="}, "verify")
			assert.Zero(t, code, errs)
		})
	}
}
