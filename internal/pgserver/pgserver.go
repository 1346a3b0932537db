// Package pgserver runs a private PostgreSQL server from the Debian package's
// binaries: own data folder, loopback only, password from a file beside it.
//
// As root the server runs as the package's postgres account, as PostgreSQL
// demands; as anyone else it runs as that user.
package pgserver

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"sort"
	"strconv"
	"strings"
	"syscall"
	"time"
)

// The account that owns the server and all that is in it, and the one the program
// works as, which owns nothing.
const (
	account = "corvek"
	Program = "corvek_program"
)

// Server is a running private server.
type Server struct {
	dir     string
	port    int
	cmd     *exec.Cmd
	lock    *os.File
	owned   bool // started by us, so stopped by us
	reached bool // run by another program
	done    chan struct{}

	fast     bool
	stopping chan struct{} // closed by Stop
	watched  chan struct{} // closed when nobody looks after the server any more
}

// ErrNoBinaries says that PostgreSQL is not installed.
var ErrNoBinaries = errors.New("PostgreSQL is not installed; on Debian: apt-get install postgresql")

// Binaries finds the newest version's folder; the binaries are usually not on PATH.
func Binaries() (string, error) {
	found, _ := filepath.Glob("/usr/lib/postgresql/*/bin/postgres")
	sort.Slice(found, func(i, j int) bool { return version(found[i]) < version(found[j]) })
	if len(found) > 0 {
		return filepath.Dir(found[len(found)-1]), nil
	}
	if path, err := exec.LookPath("postgres"); err == nil {
		return filepath.Dir(path), nil
	}
	return "", ErrNoBinaries
}

func version(path string) int {
	n, _ := strconv.Atoi(filepath.Base(filepath.Dir(filepath.Dir(path))))
	return n
}

// Start runs the server on the data folder under dir, making it on first use.
// A server left behind by a killed run is taken over; a stale lock file is
// cleared. With fast the server may lose data at a power cut: for tests only.
func Start(ctx context.Context, dir string, fast bool) (*Server, error) {
	binDir, err := Binaries()
	if err != nil {
		return nil, err
	}
	dir, err = filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	cred, err := Account()
	if err != nil {
		return nil, err
	}
	if err := ownFolder(dir, cred); err != nil {
		return nil, err
	}
	s := &Server{dir: dir, fast: fast, stopping: make(chan struct{}), watched: make(chan struct{})}
	if err := s.takeLock(); err != nil {
		return nil, err
	}
	data := filepath.Join(dir, "data")
	if _, err := os.Stat(filepath.Join(data, "PG_VERSION")); err != nil {
		if err := initialise(ctx, binDir, dir, cred); err != nil {
			s.release()
			return nil, err
		}
	}
	if err := s.begin(ctx, binDir, data, cred); err != nil {
		close(s.watched)
		s.Stop()
		return nil, err
	}
	go s.watch(binDir, data, cred)
	return s, nil
}

// begin takes over a server that a killed run left behind, or starts one. Of a killed run that
// had only just started its own, ours finds the folder taken: then that one is taken over.
func (s *Server) begin(ctx context.Context, binDir, data string, cred *syscall.Credential) error {
	var err error
	for range 3 {
		if port, alive := running(data); alive {
			s.port, s.done = port, nil
		} else {
			dropStaleLock(data)
			s.port = 0
			if err = s.launch(binDir, data, cred, s.fast); err != nil {
				return err
			}
		}
		if err = s.ready(ctx); !errors.Is(err, errStopped) {
			return err
		}
		s.owned = false
		time.Sleep(again)
	}
	return err
}

// ErrInUse says that another program runs the server of this data folder.
var ErrInUse = errors.New("another Corvek is already running")

// Reach gives the server that another program runs on the data folder under dir.
// Stop leaves it alone.
func Reach(dir string) (*Server, error) {
	dir, err := filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	for range 50 { // it may be starting, or coming back
		if port, alive := running(filepath.Join(dir, "data")); alive {
			return &Server{dir: dir, port: port, reached: true}, nil
		}
		time.Sleep(100 * time.Millisecond)
	}
	return nil, fmt.Errorf("the database server on %s does not answer", dir)
}

// URL is the address of the database for the program.
func (s *Server) URL() string { return s.url(Program, programSecret, "corvek") }

// OwnerURL is the address of the database for the role that owns it.
func (s *Server) OwnerURL() string { return s.url(account, ownerSecret, "corvek") }

// Files of passwords, in the data folder.
const (
	ownerSecret   = "secret"
	programSecret = "secret.program"
)

func (s *Server) url(role, secretFile, database string) string {
	secret, _ := os.ReadFile(filepath.Join(s.dir, secretFile))
	return fmt.Sprintf("postgres://%s:%s@127.0.0.1:%d/%s?sslmode=disable", role,
		strings.TrimSpace(string(secret)), s.port, database)
}

// Stop shuts the server down cleanly and waits for it.
func (s *Server) Stop() {
	if s.reached {
		return
	}
	close(s.stopping)
	<-s.watched
	if s.owned && s.cmd != nil && s.cmd.Process != nil {
		_ = s.cmd.Process.Signal(syscall.SIGINT) // "fast": ends sessions, writes a checkpoint
		select {
		case <-s.done:
		case <-time.After(20 * time.Second):
			_ = s.cmd.Process.Kill()
		}
	} else if pid := postmasterPID(filepath.Join(s.dir, "data")); pid > 0 {
		_ = syscall.Kill(pid, syscall.SIGINT)
		for i := 0; i < 100 && processIsServer(pid, filepath.Join(s.dir, "data")); i++ {
			time.Sleep(50 * time.Millisecond)
		}
	}
	s.release()
}

func (s *Server) release() {
	if s.lock != nil {
		_ = s.lock.Close()
	}
}

// takeLock keeps two runs from using one data folder at once. The lock ends
// with the process, so a killed run leaves none behind.
func (s *Server) takeLock() error {
	f, err := os.OpenFile(filepath.Join(s.dir, "lock"), os.O_CREATE|os.O_RDWR|syscall.O_CLOEXEC, 0o600)
	if err != nil {
		return fmt.Errorf("the data folder %s cannot be used: %w", s.dir, err)
	}
	if err := syscall.Flock(int(f.Fd()), syscall.LOCK_EX|syscall.LOCK_NB); err != nil {
		_ = f.Close()
		return fmt.Errorf("%w on %s; stop it first, or set CORVEK_DATA to another folder", ErrInUse, s.dir)
	}
	s.lock = f
	return nil
}

// Account is the account to drop to when we are root, nil otherwise.
func Account() (*syscall.Credential, error) {
	if os.Geteuid() != 0 {
		return nil, nil
	}
	u, err := user.Lookup("postgres")
	if err != nil {
		return nil, fmt.Errorf(
			"the postgres account is missing, which PostgreSQL needs when started by root: %w",
			err,
		)
	}
	uid, _ := strconv.Atoi(u.Uid)
	gid, _ := strconv.Atoi(u.Gid)
	return &syscall.Credential{Uid: uint32(uid), Gid: uint32(gid)}, nil
}

func ownFolder(dir string, cred *syscall.Credential) error {
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return fmt.Errorf("the data folder cannot be made: %w", err)
	}
	if cred == nil {
		return nil
	}
	if err := os.Chmod(dir, 0o755); err != nil {
		return err
	}
	return os.Chown(dir, int(cred.Uid), int(cred.Gid))
}
