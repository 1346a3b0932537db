package main

import (
	"archive/zip"
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"corvek/internal/people"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// bench is somebody at a browser, typing readings into the demo while it is killed.
type bench struct {
	t      *testing.T
	data   string
	cmd    *exec.Cmd
	base   string
	client *http.Client
	csrf   string
}

var servesOn = regexp.MustCompile(`Corvek serves on (http://[^/\s]+)`)

// begin starts the demo on a free port and signs in.
func (b *bench) begin() {
	b.t.Helper()
	b.cmd = exec.Command(binary, "demo", "--addr", "127.0.0.1:0")
	b.cmd.Env = append(os.Environ(), "CORVEK_DATA="+b.data, "DATABASE_URL=")
	out, err := b.cmd.StdoutPipe()
	require.NoError(b.t, err)
	var errs bytes.Buffer
	b.cmd.Stderr = &errs
	require.NoError(b.t, b.cmd.Start())
	b.base = ""
	lines := bufio.NewScanner(out)
	for b.base == "" && lines.Scan() {
		if m := servesOn.FindStringSubmatch(lines.Text()); m != nil {
			b.base = m[1]
		}
	}
	require.NotEmpty(b.t, b.base, "the demo did not start: %s", errs.String())
	go func() { _, _ = io.Copy(io.Discard, out) }()

	jar, err := cookiejar.New(nil)
	require.NoError(b.t, err)
	b.client = &http.Client{Jar: jar, Timeout: 20 * time.Second}
	status, _ := b.post("/sign-in", url.Values{"sign_in": {"iva"}, "password": {people.DemoPassword}})
	require.Equal(b.t, http.StatusOK, status)
	b.csrf = b.token("/jobs/T-0417/receive")
}

var csrfField = regexp.MustCompile(`name="csrf" value="([^"]+)"`)

func (b *bench) token(path string) string {
	b.t.Helper()
	answer, err := b.client.Get(b.base + path)
	require.NoError(b.t, err)
	defer answer.Body.Close()
	page, err := io.ReadAll(answer.Body)
	require.NoError(b.t, err)
	m := csrfField.FindSubmatch(page)
	require.NotNil(b.t, m, "%s has no form: %.200s", path, page)
	return string(m[1])
}

// post gives status 0 where nobody answers.
func (b *bench) post(path string, form url.Values) (int, string) {
	form.Set("csrf", b.csrf)
	answer, err := b.client.PostForm(b.base+path, form)
	if err != nil {
		return 0, err.Error()
	}
	defer answer.Body.Close()
	body, _ := io.ReadAll(answer.Body)
	return answer.StatusCode, string(body)
}

// save writes a value as the page would: over what stood there, again until it
// is answered for. A store that is coming back is no answer.
func (b *bench) save(field, value, base string) {
	b.t.Helper()
	require.Eventually(b.t, func() bool {
		status, text := b.post("/jobs/T-0417/set", url.Values{"field": {field}, "value": {value}, "base": {base}})
		switch status {
		case http.StatusOK:
			return true
		case http.StatusConflict:
			// An earlier try was written and its answer lost.
			return strings.Contains(text, value)
		case 0, http.StatusServiceUnavailable:
			return false
		}
		require.Failf(b.t, "refused", "%d %s", status, text)
		return false
	}, time.Minute, 30*time.Millisecond)
}

// caller gives what stands in the field that is written to. While the database
// comes back the program says so, and the same is asked again.
func (b *bench) caller() (stands string) {
	b.t.Helper()
	require.Eventually(b.t, func() (ok bool) {
		stands, ok = b.exported()
		return ok
	}, time.Minute, 30*time.Millisecond)
	return stands
}

// exported reads the field from the job's file; ok is false for a file that does
// not come or breaks off.
func (b *bench) exported() (stands string, ok bool) {
	answer, err := b.client.Get(b.base + "/jobs/T-0417/export")
	if err != nil {
		return "", false
	}
	defer answer.Body.Close()
	content, err := io.ReadAll(answer.Body)
	if err != nil || answer.StatusCode != http.StatusOK {
		return "", false
	}
	files, err := zip.NewReader(bytes.NewReader(content), int64(len(content)))
	if err != nil {
		return "", false
	}
	f, err := files.Open("job.json")
	if err != nil {
		return "", false
	}
	defer f.Close()
	var doc struct {
		Caller string
	}
	err = json.NewDecoder(f).Decode(&doc)
	return doc.Caller, err == nil
}

func (b *bench) killServer() {
	_ = b.cmd.Process.Kill()
	_ = b.cmd.Wait()
	b.begin()
}

func (b *bench) killDatabase() {
	b.t.Helper()
	text, err := os.ReadFile(filepath.Join(b.data, "data", "postmaster.pid"))
	require.NoError(b.t, err)
	first, _, _ := strings.Cut(string(text), "\n")
	pid, err := strconv.Atoi(first)
	require.NoError(b.t, err)
	require.NoError(b.t, syscall.Kill(pid, syscall.SIGKILL))
}

// Whatever is killed in the middle of work, the program or its database, what
// was answered for is kept. CORVEK_KILLS sets how often; 20 is the full trial.
func TestNothingAnsweredForIsLost(t *testing.T) {
	kills := 4
	if testing.Short() {
		kills = 2
	}
	if n, err := strconv.Atoi(os.Getenv("CORVEK_KILLS")); err == nil {
		kills = n
	}
	dir, err := os.MkdirTemp("", "corvek-kill-")
	require.NoError(t, err)
	b := &bench{t: t, data: dir}
	b.begin()
	stopped := false
	stop := func() {
		if !stopped {
			_ = b.cmd.Process.Signal(syscall.SIGTERM)
			_ = b.cmd.Wait()
		}
		stopped = true
	}
	defer func() {
		stop()
		_ = os.RemoveAll(dir)
	}()
	was := b.caller()
	for kill := range kills {
		for word := range 3 {
			is := fmt.Sprintf("word %d before kill %d", word, kill)
			b.save("job/caller", is, was)
			was = is
		}
		if kill%2 == 0 {
			b.killServer()
		} else {
			b.killDatabase()
			is := fmt.Sprintf("written after kill %d", kill)
			b.save("job/caller", is, was)
			was = is
		}
		assert.Equal(t, was, b.caller(), "after kill %d", kill)
	}
	// And every line of the record fits those before it.
	stop()
	verify := exec.Command(binary, "verify")
	verify.Env = append(os.Environ(), "CORVEK_DATA="+dir, "DATABASE_URL=")
	said, err := verify.CombinedOutput()
	require.NoError(t, err, "%s", said)
	assert.Contains(t, string(said), "the record holds")
}
