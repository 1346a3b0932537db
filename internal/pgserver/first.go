package pgserver

import (
	"context"
	"crypto/rand"
	"encoding/hex"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"time"

	"github.com/jackc/pgx/v5"
)

// A start can be killed at any moment, and what it began goes on for a while without it: initdb
// fills its folder, the server ends a statement. So nothing here is taken for done by what a
// killed start left half done, and each step can be done again.

// unfinished is how a data folder is called until it is whole.
const unfinished = "data.new."

// initialise makes the data folder under a name that no start had before, and renames it when
// it is whole.
func initialise(ctx context.Context, binDir, dir string, cred *syscall.Credential) error {
	left, _ := filepath.Glob(filepath.Join(dir, "data.new*"))
	for _, folder := range left {
		_ = os.RemoveAll(folder) // what still writes there fails, and its folder goes at the next start
	}
	secretFile := filepath.Join(dir, ownerSecret)
	if _, err := newSecret(secretFile); err != nil {
		return err
	}
	if cred != nil {
		if err := os.Chown(secretFile, int(cred.Uid), int(cred.Gid)); err != nil {
			return err
		}
	}
	fresh := filepath.Join(dir, unfinished+rand.Text()[:8])
	cmd := exec.CommandContext(ctx, filepath.Join(binDir, "initdb"), "-D", fresh, "-U", account, "--pwfile="+secretFile,
		"--auth=scram-sha-256", "--locale=C.UTF-8", "--encoding=UTF8", "--no-sync")
	prepare(cmd, cred, dir)
	if out, err := cmd.CombinedOutput(); err != nil {
		return fmt.Errorf("the database folder could not be made: %w\n%s", err, out)
	}
	return os.Rename(fresh, filepath.Join(dir, "data"))
}

// newSecret makes a password and keeps it in a file that only its owner reads. The file is
// whole or not there.
func newSecret(file string) (string, error) {
	secret := make([]byte, 18)
	if _, err := rand.Read(secret); err != nil {
		return "", err
	}
	text := hex.EncodeToString(secret)
	if err := os.WriteFile(file+".new", []byte(text), 0o600); err != nil {
		return "", err
	}
	return text, os.Rename(file+".new", file)
}

// kept is the password that a file keeps, made anew where it keeps none.
func kept(file string) (string, error) {
	text, err := os.ReadFile(file)
	if secret := strings.TrimSpace(string(text)); err == nil && isSecret(secret) {
		return secret, nil
	}
	return newSecret(file)
}

// isSecret reports that a text is of digits only, as a password of our own making is.
func isSecret(text string) bool {
	_, err := hex.DecodeString(text)
	return err == nil && text != ""
}

// How often what can only be done once more is tried, and how long is waited between.
const (
	mostTries = 200
	between   = 50 * time.Millisecond
)

// ready waits until the server answers, with the database and the program's role in it.
func (s *Server) ready(ctx context.Context) error {
	var last error
	for range mostTries {
		if s.done != nil {
			select {
			case <-s.done:
				text, _ := os.ReadFile(filepath.Join(s.dir, "server.log"))
				return fmt.Errorf("%w:\n%s", errStopped, text)
			default:
			}
		}
		if last = s.answers(ctx); last == nil {
			return nil
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(between):
		}
	}
	return fmt.Errorf("the database server did not answer in time: %w", last)
}

func (s *Server) answers(ctx context.Context) error {
	conn, err := pgx.Connect(ctx, s.url(account, ownerSecret, "postgres"))
	if err != nil {
		return err
	}
	defer conn.Close(ctx)
	return s.ensureDatabase(ctx, conn)
}

// ensureDatabase makes the database where it is missing, and the program's role with the
// password that its file keeps.
func (s *Server) ensureDatabase(ctx context.Context, conn *pgx.Conn) error {
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
	secret, err := kept(filepath.Join(s.dir, programSecret))
	if err != nil {
		return err
	}
	verb := "CREATE"
	if role {
		verb = "ALTER"
	}
	_, err = conn.Exec(ctx, verb+" ROLE "+Program+" LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE PASSWORD '"+secret+"'")
	return err
}
