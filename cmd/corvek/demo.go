package main

import (
	"context"
	"fmt"
	"io"

	"corvek/demo"
	"corvek/internal/job"
	"corvek/internal/people"
	"corvek/internal/store"
)

func loadDemo(ctx context.Context, jobs *job.Service, out io.Writer) error {
	list, err := jobs.Store.People(ctx)
	if err != nil {
		return err
	}
	strangers, err := demo.Strangers(list)
	if err != nil {
		return err
	}
	if len(strangers) > 0 {
		return fmt.Errorf("this store is a shop's own, %s works in it; the demo does not touch it", strangers[0])
	}
	state, err := jobs.Store.Demo(ctx)
	if err != nil || state == store.DemoDone {
		return err
	}
	empty, err := jobs.Store.Empty(ctx)
	if err != nil {
		return err
	}
	if !empty && state == store.DemoNone { // loaded by an earlier version
		return jobs.Store.SaveDemo(ctx, store.DemoDone)
	}
	n, err := demo.Load(ctx, jobs, people.DemoPassword, people.Hash)
	if err != nil {
		return fmt.Errorf("the demo could not be loaded: %w", err)
	}
	fmt.Fprintf(out, "Loaded the demo shop with %d jobs.\n", n)
	return nil
}

// madeUp reports that a store is the demo's. One that an earlier version loaded has no note of
// it, but nobody works there who is not of the demo.
func madeUp(ctx context.Context, jobs *job.Service) (bool, error) {
	list, err := jobs.Store.People(ctx)
	if err != nil || len(list) == 0 {
		return false, err
	}
	strangers, err := demo.Strangers(list)
	return len(strangers) == 0, err
}

func tellSignIns(ctx context.Context, jobs *job.Service, out io.Writer) error {
	fmt.Fprintf(out, "Demo sign-ins, password %q, and the code for a quick change at a bench:\n", people.DemoPassword)
	list, err := jobs.Store.People(ctx)
	if err != nil {
		return err
	}
	codes, err := demo.Codes()
	if err != nil {
		return err
	}
	for _, p := range list {
		fmt.Fprintf(out, "  %-8s %-18s %-12s %s\n", p.SignIn, p.Name, p.Role, codes[p.SignIn])
	}
	return nil
}
