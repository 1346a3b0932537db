package main

import (
	"bufio"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"syscall"
	"testing"

	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// folder is a data folder that the database's own account can reach.
func folder(t *testing.T) string {
	dir, err := os.MkdirTemp("", "corvek-cmd-")
	require.NoError(t, err)
	require.NoError(t, os.Chmod(dir, 0o755))
	t.Cleanup(func() { _ = os.RemoveAll(dir) })
	return dir
}

// started runs the program on a data folder until the line that says where.
func started(t *testing.T, data string, args ...string) (said string, stop func()) {
	t.Helper()
	cmd := exec.Command(binary, append(args, "--addr", "127.0.0.1:0")...)
	cmd.Env = append(os.Environ(), "CORVEK_DATA="+data, "DATABASE_URL=")
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	cmd.Stderr = os.Stderr
	require.NoError(t, cmd.Start())
	lines := bufio.NewScanner(out)
	for lines.Scan() && !strings.HasPrefix(lines.Text(), "Ctrl-C") {
		said += lines.Text() + "\n"
	}
	var ended bool
	stop = func() {
		if !ended {
			ended = true
			_ = cmd.Process.Signal(syscall.SIGTERM)
			_ = cmd.Wait()
		}
	}
	t.Cleanup(stop)
	return said, stop
}

// While the demo runs on its private store, every command works on it too; its
// copy, put back into an empty folder, verifies to the same fingerprint.
func TestCommandsWorkWhileThePrivateStoreRuns(t *testing.T) {
	whole.Only(t)
	data, other := folder(t), folder(t)
	here, there := []string{"CORVEK_DATA=" + data, "DATABASE_URL="}, []string{"CORVEK_DATA=" + other, "DATABASE_URL="}
	_, stop := started(t, data, "demo")
	stop()
	_, errs, code := run(t, "", here, "serve", "--addr", "127.0.0.1:0")
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "this store is the demo's")
	_, stop = started(t, data, "demo")
	files := t.TempDir()
	job, copied := filepath.Join(files, "job.zip"), filepath.Join(files, "store.zip")
	_, errs, code = run(t, "", here, "export", "T-0417", "-o", job)
	require.Zero(t, code, errs)
	_, errs, code = run(t, "", here, "import", job)
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "here already")
	_, errs, code = run(t, "long enough\n", here, "person", "--sign-in", "nia", "--name", "Nia Holt")
	require.Zero(t, code, errs)
	out, errs, code := run(t, "", here, "backup", copied)
	require.Zero(t, code, errs)
	assert.Contains(t, out, "the record, which holds")
	before, errs, code := run(t, "", here, "verify")
	require.Zero(t, code, errs)
	stop()

	out, errs, code = run(t, "", there, "restore", copied)
	require.Zero(t, code, errs)
	after, errs, code := run(t, "", there, "verify")
	require.Zero(t, code, errs)
	assert.Equal(t, before, after)
	assert.Contains(t, out, strings.TrimSpace(before[strings.LastIndex(before, " "):]), "the fingerprint is said")
	_, errs, code = run(t, "", there, "restore", copied)
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "not empty")

	// The demo now sees somebody who is not its own; to a shop it is one with a new person, and
	// the demo's password, which its other people have, opens nothing.
	_, errs, code = run(t, "", there, "demo", "--addr", "127.0.0.1:0")
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "Nia Holt works in it")
	said, stop := started(t, other, "serve")
	defer stop()
	assert.Contains(t, said, "serves on")
}

// An empty store is served with a code in the terminal, another one each time.
func TestServeOnAnEmptyStoreGivesACode(t *testing.T) {
	whole.Only(t)
	data := folder(t)
	code := regexp.MustCompile(`give this code, once: ([A-Z0-9]{10})`)
	said, stop := started(t, data, "serve")
	first := code.FindStringSubmatch(said)
	require.NotNil(t, first, said)
	stop()
	said, stop = started(t, data, "serve")
	second := code.FindStringSubmatch(said)
	require.NotNil(t, second, said)
	assert.NotEqual(t, first[1], second[1])
	stop()
	_, errs, exit := run(t, "long enough\n", []string{"CORVEK_DATA=" + data, "DATABASE_URL="}, "person", "--sign-in",
		"nia", "--name", "Nia Holt", "--role", "lead")
	require.Zero(t, exit, errs)
	said, _ = started(t, data, "serve")
	assert.NotContains(t, said, "once:")
}

func TestServeRefusesAProxyThatIsNone(t *testing.T) {
	_, errs, code := run(t, "", nil, "serve", "--addr", "127.0.0.1:0", "--trusted-proxy", "everybody")
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "is no network")
}
