package main

import (
	"context"
	"corvek/internal/job"
	"corvek/internal/papers"
	"corvek/internal/planning"
	"corvek/internal/store"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"sync"
	"time"
)

// figures serves what watchers read, on an address of its own.
func figures(address string, handler http.Handler) (stop func(), err error) {
	if address == "" {
		return func() {}, nil
	}
	listener, err := net.Listen("tcp", address)
	if err != nil {
		return nil, fmt.Errorf("cannot serve figures on %s: %w", address, err)
	}
	mux := http.NewServeMux()
	mux.Handle("GET /metrics", handler)
	server := &http.Server{Handler: mux, ReadHeaderTimeout: 10 * time.Second}
	go func() { _ = server.Serve(listener) }()
	return func() { _ = server.Close() }, nil
}

// inBackground does what nobody asks for: copies of the store, papers of a
// hand-over that was cut short, and forgetting old tries to sign in and tokens of
// forms. The returned func waits for it to end.
func inBackground(ctx context.Context, jobs *job.Service, keeper *store.Keeper,
	plans *planning.Service) (stop func()) {
	ctx, cancel := context.WithCancel(ctx)
	var work sync.WaitGroup
	work.Go(func() { keeper.Run(ctx) })
	work.Go(func() { papers.Run(ctx, jobs) })
	work.Go(func() { jobs.TakeOverEarlier(ctx) })
	work.Go(func() {
		plans.Run(ctx, func(err error) { slog.Error("the plan of the day was not kept", "error", err) })
	})
	work.Go(func() {
		for {
			err := errors.Join(keeper.Store.DropOldTries(ctx), keeper.Store.DropOldTokens(ctx),
				keeper.Store.DropOldActs(ctx), keeper.Store.DropOldSessions(ctx))
			if err != nil && ctx.Err() == nil {
				slog.Error("old tries and tokens were not dropped", "error", err)
			}
			select {
			case <-ctx.Done():
				return
			case <-time.After(24 * time.Hour):
			}
		}
	})
	return func() {
		cancel()
		work.Wait()
	}
}
