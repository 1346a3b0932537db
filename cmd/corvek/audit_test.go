//go:build audit

package main

import (
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// These trials need root or much time; scripts/audit runs them.

// running starts the demo on a folder and gives a bench that is signed in.
func running(t *testing.T, dir string) (*bench, func()) {
	t.Helper()
	b := &bench{t: t, data: dir}
	b.begin()
	return b, func() {
		_ = b.cmd.Process.Signal(os.Interrupt)
		_ = b.cmd.Wait()
	}
}

// The disk fills up in the middle of work: nothing that was answered for is lost,
// what is refused is refused in words, and with room again work goes on by itself.
func TestFullDisk(t *testing.T) {
	dir := folder(t)
	require.NoError(t, exec.Command("mount", "-t", "tmpfs", "-o", "size=160m,mode=755", "tmpfs", dir).Run())
	defer func() { _ = exec.Command("umount", "-l", dir).Run() }()
	b, stop := running(t, dir)
	defer stop()
	was := b.caller()
	ballast := filepath.Join(dir, "ballast")
	fill := exec.Command("dd", "if=/dev/zero", "of="+ballast, "bs=64k")
	_ = fill.Run() // until there is no room

	long := strings.Repeat("no room. ", 40)
	refused, saved := 0, 0
	for i := 0; i < 4000 && refused < 20; i++ {
		is := fmt.Sprintf("%d %s", i, long)
		status, body := b.post("/jobs/T-0417/set", url.Values{"field": {"job/caller"}, "value": {is}, "base": {was}})
		switch status {
		case http.StatusOK:
			was = strings.TrimSpace(is)
			saved++
		case http.StatusServiceUnavailable, 0:
			refused++
			if status != 0 {
				assert.Regexp(t, "kept", body)
			}
		case http.StatusConflict:
			// The answer to the write before was lost and the write was not.
			was = strings.TrimSpace(is)
		default:
			t.Fatalf("%d %s", status, body)
		}
	}
	t.Logf("%d saved on a full disk before it was refused", saved)
	require.Positive(t, refused, "the disk was never full")
	require.NoError(t, os.Remove(ballast))
	stands := b.caller()
	b.save("job/caller", "there is room again", stands)
	assert.Equal(t, "there is room again", b.caller())
	stop()
	out, errs, code := run(t, "", []string{"CORVEK_DATA=" + dir, "DATABASE_URL="}, "verify")
	assert.Zero(t, code, errs)
	assert.Contains(t, out, "the record holds")
}

// Sixteen people look, type, search, print and work things out for a long time: no
// error, and the memory does not grow. CORVEK_LOAD says how long.
func TestSixteenMixedUsers(t *testing.T) {
	long, err := time.ParseDuration(os.Getenv("CORVEK_LOAD"))
	if err != nil {
		long = time.Minute
	}
	b, stop := running(t, folder(t))
	defer stop()
	var asked, saves atomic.Int64
	end := time.Now().Add(long)
	var users sync.WaitGroup
	for i := range 16 {
		users.Go(func() { mixed(t, b, i, end, &asked, &saves) })
	}
	var memory []float64
	for time.Now().Before(end) {
		time.Sleep(min(5*time.Second, long/20))
		memory = append(memory, resident(t, b.cmd.Process.Pid))
	}
	users.Wait()
	third := len(memory) / 3
	early, late := mean(memory[third:2*third]), mean(memory[2*third:])
	t.Logf("%d requests, %d of them saves, in %s; memory %.0f MB in the second third, %.0f MB in the last",
		asked.Load(), saves.Load(), long, early, late)
	t.Logf("memory over the time: %.0f", memory)
	assert.Less(t, late, early*1.15+20, "the memory grows")
}

func mixed(t *testing.T, b *bench, i int, end time.Time, asked, saves *atomic.Int64) {
	tags := []string{"T-0417", "T-0388", "T-0412", "T-0398", "T-0426", "T-0409"}
	looks := []string{"receive", "strip", "measure", "explain", "decide", "kit", "build", "prove", "handover", "record",
		"report", "dispute", "report.pdf", "start-up-card", "export", "pictures", "line.svg"}
	parts := []string{"seal_ring", "seal_outer", "seal_spacer", "seal_inner", "cover_bolts", "front_cover", "dowels",
		"front_gasket", "front_plate", "front_needles", "drive_gear", "driven_gear", "body", "shims", "rear_plate",
		"rear_needles"}
	field, stands := "u1/part/"+parts[i]+"/step/note", "" // nobody has fitted a part of it yet
	r := rand.New(rand.NewPCG(uint64(i), 7))
	for time.Now().Before(end) {
		asked.Add(1)
		var status int
		var body string
		switch r.IntN(10) {
		case 0:
			status, body = b.get("/jobs?find=" + []string{"pump", "T-04", "ostrey", "zzz"}[r.IntN(4)])
		case 1:
			status, body = b.get("/toolbox/cylinder?bore=63+mm&pressure=210+bar")
		case 2, 3:
			saves.Add(1)
			is := fmt.Sprintf("note %d", saves.Load())
			status, body = b.post("/jobs/T-0417/set", url.Values{"field": {field}, "base": {stands}, "value": {is}})
			if status == http.StatusOK {
				stands = is
			}
		default:
			status, body = b.get("/jobs/" + tags[r.IntN(len(tags))] + "/" + looks[r.IntN(len(looks))])
		}
		if status != http.StatusOK {
			t.Errorf("%d %.200s", status, body)
			return
		}
	}
}

func (b *bench) get(path string) (int, string) {
	answer, err := b.client.Get(b.base + path)
	if err != nil {
		return 0, err.Error()
	}
	defer answer.Body.Close()
	head := make([]byte, 200)
	n, _ := io.ReadFull(answer.Body, head)
	_, _ = io.Copy(io.Discard, answer.Body)
	return answer.StatusCode, string(head[:n])
}

// resident is the memory of a process, in MB.
func resident(t *testing.T, pid int) float64 {
	text, err := os.ReadFile(fmt.Sprintf("/proc/%d/status", pid))
	if err != nil {
		t.Error(err)
		return 0
	}
	_, rest, _ := strings.Cut(string(text), "VmRSS:")
	kb, _ := strconv.ParseFloat(strings.Fields(rest)[0], 64)
	return kb / 1024
}

func mean(list []float64) (m float64) {
	for _, v := range list {
		m += v / float64(len(list))
	}
	return m
}
