package main

import (
	"context"
	"fmt"
	"log/slog"
	"net/url"
	"strings"

	"corvek/internal/casebook"
	"corvek/internal/job"
	"corvek/internal/people"
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

// bench is where the store of practice of a shop's store is.
func (p place) bench() (place, error) {
	owner, err := besides(p.owner)
	if err != nil {
		return place{}, err
	}
	program, err := besides(p.program)
	return place{program: program, owner: owner, shared: p.shared, leave: func() {}}, err
}

// makeBench makes the store of practice where it is not there yet, and brings it up to date.
func makeBench(ctx context.Context, p place) (place, error) {
	at, err := p.bench()
	if err != nil {
		return at, err
	}
	if err := store.MakeBeside(ctx, p.owner, at.owner); err != nil {
		return at, err
	}
	return at, current(ctx, at)
}

// practiceBench opens the store of practice, made the first time, with a stand to run its units on. Where the server
// does not let it be made there is none, and the shop is served all the same.
func practiceBench(ctx context.Context, p place, jobs *job.Service) (bench *job.Service, done func()) {
	none := func(err error) (*job.Service, func()) {
		slog.Warn("there is no bench of practice", "error", err)
		return nil, func() {}
	}
	at, err := makeBench(ctx, p)
	if err != nil {
		return none(err)
	}
	s, err := store.Open(ctx, at.program)
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

// demoCase is the case that everybody in the made-up shop is set: a pump that went out.
const demoCase = "T-0388"

// setDemoCase sets it, where none was set yet.
func setDemoCase(ctx context.Context, jobs, bench *job.Service) error {
	set, err := jobs.Store.PracticeSetNow(ctx)
	if err != nil || set != nil || bench == nil {
		return err
	}
	book, err := casebook.New(jobs, bench)
	if err != nil {
		return err
	}
	lead := people.Actor{Name: "Odd Renfeld", Role: people.RoleLead}
	return book.SetWritten(ctx, lead, demoCase, "a pump that went weak when it was hot")
}
