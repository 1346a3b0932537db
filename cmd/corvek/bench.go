package main

import (
	"context"
	"fmt"
	"log/slog"
	"net/url"
	"strings"

	"corvek/internal/job"
	"corvek/internal/store"
)

// besides is the address of the store of practice: a database of its own on the same server, so that nothing done there
// can reach the shop's.
func besides(address string) (string, error) {
	u, err := url.Parse(address)
	if err != nil || strings.Trim(u.Path, "/") == "" {
		return "", fmt.Errorf("the database address names no database")
	}
	u.Path += "_practice"
	return u.String(), nil
}

// practiceBench opens the store of practice, made the first time, with a stand to run its units on. Where the server
// does not let it be made there is none, and the shop is served all the same.
func practiceBench(ctx context.Context, p place, jobs *job.Service) (bench *job.Service, done func()) {
	none := func(err error) (*job.Service, func()) {
		slog.Warn("there is no bench of practice", "error", err)
		return nil, func() {}
	}
	owner, err := besides(p.owner)
	if err != nil {
		return none(err)
	}
	program, err := besides(p.program)
	if err != nil {
		return none(err)
	}
	if err := store.MakeBeside(ctx, p.owner, owner); err != nil {
		return none(err)
	}
	if err := store.Migrate(ctx, owner, p.role()); err != nil {
		return none(err)
	}
	s, err := store.Open(ctx, program)
	if err != nil {
		return none(err)
	}
	if bench, err = job.Practice(s, jobs); err == nil {
		err = practise(ctx, bench)
	}
	if err != nil {
		s.Close()
		return none(err)
	}
	return bench, s.Close
}
