// Package pgserver runs a private PostgreSQL server from the Debian package's
// binaries: own data folder, loopback only, password from a file beside it.
//
// As root the server runs as the package's postgres account, as PostgreSQL
// demands; as anyone else it runs as that user.
package pgserver

import (
	"context"
	"crypto/rand"
	"encoding/hex"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"sort"
	"strconv"
	"strings"
	"syscall"
	"time"

	"github.com/jackc/pgx/v5"
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

// bin finds the newest version's folder; the binaries are usually not on PATH.
func bin() (string, error) {
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
	binDir, err := bin()
	if err != nil {
		return nil, err
	}
	dir, err = filepath.Abs(dir)
	if err != nil {
		return nil, err
	}
	cred, err := serverAccount()
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
	if port, alive := running(data); alive {
		s.port = port
	} else {
		_ = os.Remove(filepath.Join(data, "postmaster.pid"))
		if err := s.launch(binDir, data, cred, fast); err != nil {
			s.release()
			return nil, err
		}
	}
	if err := s.ready(ctx); err != nil {
		close(s.watched)
		s.Stop()
		return nil, err
	}
	go s.watch(binDir, data, cred)
	return s, nil
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
	if _, alive := running(data); !alive {
		_ = os.Remove(filepath.Join(data, "postmaster.pid"))
	}
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

// serverAccount is the account to drop to when we are root, nil otherwise.
func serverAccount() (*syscall.Credential, error) {
	if os.Geteuid() != 0 {
		return nil, nil
	}
	u, err := user.Lookup("postgres")
	if err != nil {
		return nil, fmt.Errorf("the postgres account is missing, which PostgreSQL needs when started by root: %w", err)
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

// newSecret makes a password and keeps it in a file that only its owner reads.
func newSecret(file string) (string, error) {
	secret := make([]byte, 18)
	if _, err := rand.Read(secret); err != nil {
		return "", err
	}
	text := hex.EncodeToString(secret)
	return text, os.WriteFile(file, []byte(text), 0o600)
}

// initialise makes the data folder under a temporary name, so that a run
// killed half-way leaves nothing that looks finished.
func initialise(ctx context.Context, binDir, dir string, cred *syscall.Credential) error {
	secretFile := filepath.Join(dir, ownerSecret)
	if _, err := newSecret(secretFile); err != nil {
		return err
	}
	if cred != nil {
		if err := os.Chown(secretFile, int(cred.Uid), int(cred.Gid)); err != nil {
			return err
		}
	}
	fresh := filepath.Join(dir, "data.new")
	if err := os.RemoveAll(fresh); err != nil {
		return err
	}
	cmd := exec.CommandContext(ctx, filepath.Join(binDir, "initdb"), "-D", fresh, "-U", account, "--pwfile="+secretFile,
		"--auth=scram-sha-256", "--locale=C.UTF-8", "--encoding=UTF8", "--no-sync")
	prepare(cmd, cred, dir)
	if out, err := cmd.CombinedOutput(); err != nil {
		return fmt.Errorf("the database folder could not be made: %w\n%s", err, out)
	}
	return os.Rename(fresh, filepath.Join(dir, "data"))
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
		args = append(args, "-c", "fsync=off", "-c", "synchronous_commit=off", "-c", "full_page_writes=off")
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

// ready waits until the server answers and makes the database on first use.
func (s *Server) ready(ctx context.Context) error {
	var last error
	for range 200 {
		if s.done != nil {
			select {
			case <-s.done:
				text, _ := os.ReadFile(filepath.Join(s.dir, "server.log"))
				return fmt.Errorf("the database server stopped at once:\n%s", text)
			default:
			}
		}
		conn, err := pgx.Connect(ctx, s.url(account, ownerSecret, "postgres"))
		if err != nil {
			last = err
			time.Sleep(50 * time.Millisecond)
			continue
		}
		defer conn.Close(ctx)
		return s.furnish(ctx, conn)
	}
	return fmt.Errorf("the database server did not answer in time: %w", last)
}

// furnish makes the database and the program's role where they are missing.
func (s *Server) furnish(ctx context.Context, conn *pgx.Conn) error {
	var exists, role bool
	err := conn.QueryRow(ctx, `SELECT EXISTS (SELECT FROM pg_database WHERE datname = 'corvek'),
		EXISTS (SELECT FROM pg_roles WHERE rolname = $1)`, Program).Scan(&exists, &role)
	if err != nil {
		return err
	}
	if !exists {
		if _, err := conn.Exec(ctx, "CREATE DATABASE corvek"); err != nil {
			return err
		}
	}
	file := filepath.Join(s.dir, programSecret)
	if _, err := os.Stat(file); err == nil && role {
		return nil
	}
	secret, err := newSecret(file)
	if err != nil {
		return err
	}
	verb := "CREATE"
	if role {
		verb = "ALTER"
	}
	// The password is of our own making, hexadecimal digits only.
	_, err = conn.Exec(ctx, verb+" ROLE "+Program+" LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE PASSWORD '"+secret+"'")
	return err
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
