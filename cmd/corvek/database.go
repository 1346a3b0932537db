package main

import (
	"context"
	"errors"
	"fmt"
	"net/url"
	"os"
	"path/filepath"

	"corvek/internal/job"
	"corvek/internal/pgserver"
	"corvek/internal/store"
)

// dataFolder is where a private server keeps its data.
func dataFolder() string {
	if dir := os.Getenv("CORVEK_DATA"); dir != "" {
		return dir
	}
	if os.Geteuid() == 0 {
		return "/var/lib/corvek"
	}
	if dir := os.Getenv("XDG_DATA_HOME"); dir != "" {
		return filepath.Join(dir, "corvek")
	}
	home, err := os.UserHomeDir()
	if err != nil {
		return "corvek-data"
	}
	return filepath.Join(home, ".local", "share", "corvek")
}

// demoFolder is where the demo keeps its data: beside the shop's own, never in it.
func demoFolder() string {
	if os.Getenv("CORVEK_DATA") != "" {
		return dataFolder()
	}
	return dataFolder() + "-demo"
}

// place is where a store is: its address for the program, and for the role that
// owns it.
type place struct {
	program, owner string
	shared         bool // another Corvek is at work on it
	leave          func()
}

// role is the program's role, empty where the program owns the store.
func (p place) role() string {
	u, err := url.Parse(p.program)
	if err != nil || p.program == p.owner || u.User == nil {
		return ""
	}
	return u.User.Username()
}

// find gives the place of the store: DATABASE_URL when it is set, with
// CORVEK_OWNER_URL for the role that owns it, otherwise a private server on
// loopback. With share a server that another Corvek runs will do as well.
func find(ctx context.Context, folder string, share bool) (place, error) {
	if program := os.Getenv("DATABASE_URL"); program != "" {
		owner := os.Getenv("CORVEK_OWNER_URL")
		if owner == "" {
			owner = program
		}
		return place{program: program, owner: owner, leave: func() {}}, nil
	}
	server, err := pgserver.Start(ctx, folder, false)
	shared := share && errors.Is(err, pgserver.ErrInUse)
	if shared {
		server, err = pgserver.Reach(folder)
	}
	if err != nil {
		return place{}, err
	}
	return place{server.URL(), server.OwnerURL(), shared, server.Stop}, nil
}

// database opens the store for a command, also while Corvek serves it. The
// returned func puts everything away in order.
func database(ctx context.Context) (*job.Service, func(), error) {
	p, err := find(ctx, dataFolder(), true)
	if err != nil {
		return nil, nil, err
	}
	return open(ctx, p)
}

func open(ctx context.Context, p place) (*job.Service, func(), error) {
	if err := current(ctx, p); err != nil {
		p.leave()
		return nil, nil, err
	}
	s, err := store.Open(ctx, p.program)
	if err != nil {
		p.leave()
		return nil, nil, err
	}
	closeAll := func() {
		s.Close()
		p.leave()
	}
	jobs, err := job.New(s)
	if err != nil {
		closeAll()
		return nil, nil, err
	}
	return jobs, closeAll, nil
}

// current brings the schema up to date where that is ours to do.
func current(ctx context.Context, p place) error {
	version, err := store.Version(ctx, p.owner)
	switch {
	case err != nil:
		return err
	case version > store.Newest():
		return fmt.Errorf("the store was written by a newer Corvek (its schema is %d, this one knows %d); use that one",
			version, store.Newest())
	case version == store.Newest() && (p.shared || p.owner == p.program):
		return nil
	case p.shared:
		return fmt.Errorf("the Corvek that is running is another version; stop it first")
	}
	return store.Migrate(ctx, p.owner, p.role())
}
