package pgserver

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"time"
)

// errStopped says that a server that was started ended at once.
var errStopped = errors.New("the database server stopped at once")

// How often a server is looked at, and how long a new start waits after one that
// failed: a killed server's own children must be gone first.
const (
	look  = 250 * time.Millisecond
	again = 500 * time.Millisecond
)

// watch starts the server again whenever it is gone, at the same address.
func (s *Server) watch(binDir, data string, cred *syscall.Credential) {
	defer close(s.watched)
	for s.lives(data) {
		slog.Warn("the database server is gone; starting it again", "folder", s.dir)
		for !s.revive(binDir, data, cred) {
			select {
			case <-s.stopping:
				return
			case <-time.After(again):
			}
		}
		slog.Warn("the database server is back")
	}
}

// lives waits until the server is gone; false says that it is to be.
func (s *Server) lives(data string) (gone bool) {
	if s.owned {
		select {
		case <-s.stopping:
			return false
		case <-s.done:
			return true
		}
	}
	for {
		select {
		case <-s.stopping:
			return false
		case <-time.After(look):
			if !processIsServer(postmasterPID(data), data) {
				return true
			}
		}
	}
}

// revive starts the server once more and reports whether it answers.
func (s *Server) revive(binDir, data string, cred *syscall.Credential) bool {
	dropStaleLock(data)
	if err := s.launch(binDir, data, cred, s.fast); err != nil {
		slog.Error("the database server did not start", "error", err)
		return false
	}
	ctx, cancel := context.WithTimeout(context.Background(), time.Minute)
	defer cancel()
	if err := s.ready(ctx); err != nil {
		slog.Error("the database server did not come back", "error", err)
		return false
	}
	return true
}

// prepare gives a server command its account, folder and a clean environment.
func prepare(cmd *exec.Cmd, cred *syscall.Credential, dir string) {
	cmd.Dir = dir
	for _, e := range os.Environ() {
		if !strings.HasPrefix(e, "PG") {
			cmd.Env = append(cmd.Env, e)
		}
	}
	// A group of its own: Ctrl-C must reach Corvek first, which then stops the server in order.
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: cred, Setpgid: true}
}

func (s *Server) launch(binDir, data string, cred *syscall.Credential, fast bool) error {
	if s.port == 0 { // a server that comes back keeps its address
		listener, err := net.Listen("tcp", "127.0.0.1:0")
		if err != nil {
			return err
		}
		s.port = listener.Addr().(*net.TCPAddr).Port
		_ = listener.Close()
	}
	args := []string{"-D", data, "-p", strconv.Itoa(s.port), "-c", "listen_addresses=127.0.0.1", "-c",
		"unix_socket_directories=",
		"-c", "logging_collector=off", "-c", "log_min_messages=warning"}
	if fast {
		args = append(args, "-c", "fsync=off", "-c", "synchronous_commit=off", "-c", "full_page_writes=off", "-c",
			"max_connections=500", "-c", "wal_level=minimal", "-c", "max_wal_senders=0", "-c", "wal_init_zero=off",
			"-c", "autovacuum=off", "-c", "jit=off")
	}
	log, err := os.OpenFile(filepath.Join(s.dir, "server.log"), os.O_CREATE|os.O_WRONLY|os.O_TRUNC, 0o600)
	if err != nil {
		return err
	}
	defer log.Close()
	s.cmd, s.owned = exec.Command(filepath.Join(binDir, "postgres"), args...), false
	prepare(s.cmd, cred, s.dir)
	s.cmd.Stdout, s.cmd.Stderr = log, log
	if err := s.cmd.Start(); err != nil {
		return fmt.Errorf("the database server did not start: %w", err)
	}
	s.owned = true
	done, cmd := make(chan struct{}), s.cmd
	s.done = done
	go func() {
		_ = cmd.Wait()
		close(done)
	}()
	return nil
}

// dropStaleLock removes the lock file of a server that is gone: another process can have its
// number by now, and then the server would not start. That of a server which is starting stays.
func dropStaleLock(data string) {
	file := filepath.Join(data, "postmaster.pid")
	if _, err := os.Stat(file); err == nil && !processIsServer(postmasterPID(data), data) {
		_ = os.Remove(file)
	}
}

// running looks behind postmaster.pid: a file alone proves nothing after a kill.
func running(data string) (port int, alive bool) {
	text, err := os.ReadFile(filepath.Join(data, "postmaster.pid"))
	if err != nil {
		return 0, false
	}
	lines := strings.Split(string(text), "\n")
	if len(lines) < 4 {
		return 0, false
	}
	port, err = strconv.Atoi(strings.TrimSpace(lines[3]))
	return port, err == nil && processIsServer(postmasterPID(data), data)
}

func postmasterPID(data string) int {
	text, err := os.ReadFile(filepath.Join(data, "postmaster.pid"))
	if err != nil {
		return 0
	}
	first, _, _ := strings.Cut(string(text), "\n")
	pid, _ := strconv.Atoi(strings.TrimSpace(first))
	return pid
}

// processIsServer reports that pid lives and is a server on this very folder.
func processIsServer(pid int, data string) bool {
	if pid <= 0 {
		return false
	}
	args, err := os.ReadFile(fmt.Sprintf("/proc/%d/cmdline", pid))
	return err == nil && strings.Contains(string(args), "postgres") && strings.Contains(string(args), data)
}
