// Package demotest gives tests the demo shop in a store of their own, and verifies it after each. It is loaded
// once a test binary and then copied.
package demotest

import (
	"context"
	"testing"

	"corvek/demo"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store"
	"corvek/internal/store/storetest"

	"golang.org/x/crypto/bcrypt"
)

// Jobs gives the demo's jobs and people; the demo's own password opens every sign-in.
func Jobs(t testing.TB) *job.Service {
	t.Helper()
	s := storetest.Filled(t, "demo", func(ctx context.Context, s *store.Store) error {
		jobs, err := job.New(s)
		if err != nil {
			return err
		}
		// A cheap hash: signing in is not what most tests are about.
		_, err = demo.Load(ctx, jobs, people.DemoPassword, func(secret string) (string, error) {
			h, err := bcrypt.GenerateFromPassword([]byte(secret), bcrypt.MinCost)
			return string(h), err
		})
		return err
	})
	jobs, err := job.New(s)
	if err != nil {
		t.Fatal(err)
	}
	// Whatever a test did, the record must tell what the jobs say afterwards.
	t.Cleanup(func() {
		if storetest.Bent(s) || s.Ping(context.Background()) != nil { // or closed
			return
		}
		v, err := jobs.Verify(context.Background())
		if err != nil {
			t.Errorf("the store cannot be verified: %v", err)
		}
		for _, f := range v.Faults {
			t.Errorf("after the test: %s", f.Words)
		}
	})
	return jobs
}
