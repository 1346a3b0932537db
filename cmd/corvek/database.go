package main

import (
	"context"
	"fmt"
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

// database opens the store: DATABASE_URL when it is set, otherwise a private
// server on loopback. The returned func puts everything away in order.
func database(ctx context.Context) (*job.Service, func(), error) {
	url := os.Getenv("DATABASE_URL")
	done := func() {}
	if url == "" {
		server, err := pgserver.Start(ctx, dataFolder(), false)
		if err != nil {
			return nil, nil, err
		}
		url, done = server.URL(), server.Stop
	}
	s, err := store.Open(ctx, url)
	if err != nil {
		done()
		return nil, nil, err
	}
	closeAll := func() {
		s.Close()
		done()
	}
	if err := s.Migrate(ctx); err != nil {
		closeAll()
		return nil, nil, fmt.Errorf("the database could not be brought up to date: %w", err)
	}
	jobs, err := job.New(s)
	if err != nil {
		closeAll()
		return nil, nil, err
	}
	return jobs, closeAll, nil
}
