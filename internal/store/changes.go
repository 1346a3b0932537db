package store

import (
	"context"
	"strconv"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"
)

// listenAgain is how long after a broken line it is listened anew. After listenQuiet without a word the
// server is asked whether it is still there, and it has listenAnswer to say so: a machine that lost its
// power breaks no line.
const (
	listenAgain  = 300 * time.Millisecond
	listenQuiet  = 5 * time.Second
	listenAnswer = 3 * time.Second
)

// Heard is a change of which one hears: a job and its version. An empty tag says that some may have
// been missed, since it is listened only from now on: at first, and after the line was broken.
type Heard struct {
	Tag     string
	Version int64
	Pages   bool // not the job was written to, but other pages of it are open
}

// Listen tells of every write to a job, by whichever instance, until the context ends. It
// has a connection of its own.
func (s *Store) Listen(ctx context.Context, heard func(Heard)) {
	for ctx.Err() == nil {
		s.listen(ctx, heard)
		select {
		case <-ctx.Done():
		case <-time.After(listenAgain):
		}
	}
}

// listen hears until the line breaks.
func (s *Store) listen(ctx context.Context, heard func(Heard)) {
	conn, err := pgx.ConnectConfig(ctx, s.Pool.Config().ConnConfig)
	if err != nil {
		return
	}
	defer conn.Close(context.WithoutCancel(ctx))
	if _, err := conn.Exec(ctx, "LISTEN corvek_changes; LISTEN "+pagesChanged); err != nil {
		return
	}
	heard(Heard{}) // what was written until now was not heard
	for {
		n, err := hearOne(ctx, conn)
		if err != nil {
			return
		}
		if n.Channel == pagesChanged {
			heard(Heard{Tag: n.Payload, Pages: true})
			continue
		}
		number, tag, _ := strings.Cut(n.Payload, " ")
		version, err := strconv.ParseInt(number, 10, 64)
		if err == nil {
			heard(Heard{Tag: tag, Version: version})
		}
	}
}

// hearOne waits for the next word, and for a server that went away not for ever.
func hearOne(ctx context.Context, conn *pgx.Conn) (*pgconn.Notification, error) {
	for {
		quiet, stop := context.WithTimeout(ctx, listenQuiet)
		n, err := conn.WaitForNotification(quiet)
		stop()
		if err == nil || ctx.Err() != nil || !pgconn.Timeout(err) {
			return n, err
		}
		asked, stop := context.WithTimeout(ctx, listenAnswer)
		err = conn.Ping(asked)
		stop()
		if err != nil {
			return nil, err
		}
	}
}
