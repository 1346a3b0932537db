// Package demotest gives tests the demo shop in a store of their own. It is loaded
// once a test binary and then copied.
package demotest

import (
	"context"
	"testing"

	"corvek/demo"
	"corvek/internal/job"
	"corvek/internal/store"
	"corvek/internal/store/storetest"
)

// Jobs gives the demo's jobs and people; password opens every sign-in.
func Jobs(t testing.TB, password string) *job.Service {
	t.Helper()
	s := storetest.Filled(t, "demo", func(ctx context.Context, s *store.Store) error {
		jobs, err := job.New(s)
		if err != nil {
			return err
		}
		_, err = demo.Load(ctx, jobs, password)
		return err
	})
	jobs, err := job.New(s)
	if err != nil {
		t.Fatal(err)
	}
	return jobs
}
