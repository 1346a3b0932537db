package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"runtime/debug"
	"syscall"
	"time"

	"corvek/demo"
	"corvek/internal/job"
	"corvek/internal/web"

	"github.com/spf13/cobra"
)

func serveCommand() *cobra.Command {
	var addr string
	var secure, verbose bool
	cmd := &cobra.Command{
		Use: "serve", Short: "Serve the workbook", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return serve(cmd.Context(), cmd.OutOrStdout(), addr, secure, false, verbose)
		},
	}
	serveFlags(cmd, &addr, &verbose)
	cmd.Flags().BoolVar(&secure, "secure", false, "cookies only over TLS; set it behind a TLS proxy")
	return cmd
}

func serveFlags(cmd *cobra.Command, addr *string, verbose *bool) {
	standard := os.Getenv("CORVEK_ADDR")
	if standard == "" {
		standard = "127.0.0.1:8093"
	}
	cmd.Flags().StringVar(addr, "addr", standard, "address to serve on (CORVEK_ADDR)")
	cmd.Flags().BoolVar(verbose, "log", false, "write a line a request")
}

func demoCommand() *cobra.Command {
	var addr string
	var verbose bool
	cmd := &cobra.Command{
		Use: "demo", Short: "Serve the made-up shop Tarnholm Hydraulics, loaded when the store is empty",
		Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return serve(cmd.Context(), cmd.OutOrStdout(), addr, false, true, verbose)
		},
	}
	serveFlags(cmd, &addr, &verbose)
	return cmd
}

// garbagePercent is how far the heap may grow before it is collected.
const garbagePercent = 400

func serve(ctx context.Context, out io.Writer, addr string, secure, withDemo, verbose bool) error {
	level := slog.LevelWarn
	if verbose {
		level = slog.LevelInfo
	}
	// Pages make much short-lived text over a small heap: collecting it less often
	// costs some megabytes and saves a fifth of the time.
	debug.SetGCPercent(garbagePercent)
	slog.SetDefault(slog.New(slog.NewJSONHandler(os.Stderr, &slog.HandlerOptions{Level: level})))
	// The port is taken first: finding it in use must not cost a database start.
	listener, err := net.Listen("tcp", addr)
	if errors.Is(err, syscall.EADDRINUSE) {
		return fmt.Errorf("%s is in use by another program; stop that, or choose another address with --addr or "+
			"CORVEK_ADDR", addr)
	}
	if err != nil {
		return fmt.Errorf("cannot serve on %s: %w", addr, err)
	}
	defer listener.Close()
	folder := dataFolder()
	if withDemo {
		folder = demoFolder()
	}
	place, err := find(ctx, folder, false)
	if err != nil {
		return err
	}
	jobs, done, err := open(ctx, place)
	if err != nil {
		return err
	}
	defer done()
	if withDemo {
		if err := loadDemo(ctx, jobs, out); err != nil {
			return err
		}
	}
	app, _, err := web.New(web.Config{Jobs: jobs, Demo: withDemo, Secure: secure})
	if err != nil {
		return err
	}
	fmt.Fprintf(out, "Corvek serves on http://%s\n", listener.Addr())
	if withDemo {
		fmt.Fprintf(out, "Demo sign-ins, password %q:\n", web.DemoPassword)
		people, err := jobs.Store.People(ctx)
		if err != nil {
			return err
		}
		for _, p := range people {
			fmt.Fprintf(out, "  %-8s %-18s %s\n", p.SignIn, p.Name, p.Role)
		}
	}
	fmt.Fprintln(out, "Ctrl-C stops it.")
	handler, err := web.Compressed(app)
	if err != nil {
		return err
	}
	server := &http.Server{Handler: handler, ReadHeaderTimeout: 10 * time.Second, ReadTimeout: 2 * time.Minute,
		WriteTimeout: 2 * time.Minute, IdleTimeout: 2 * time.Minute}
	failed := make(chan error, 1)
	go func() { failed <- server.Serve(listener) }()
	select {
	case err := <-failed:
		return err
	case <-ctx.Done():
	}
	fmt.Fprintln(out, "stopping")
	grace, cancel := context.WithTimeout(context.Background(), 5*time.Second)
	defer cancel()
	return server.Shutdown(grace)
}

func loadDemo(ctx context.Context, jobs *job.Service, out io.Writer) error {
	empty, err := jobs.Store.Empty(ctx)
	if err != nil || !empty {
		return err
	}
	hash, err := web.HashPassword(web.DemoPassword)
	if err != nil {
		return err
	}
	n, err := demo.Load(ctx, jobs, hash)
	if err != nil {
		return fmt.Errorf("the demo could not be loaded: %w", err)
	}
	fmt.Fprintf(out, "The store was empty: loaded the demo shop with %d jobs.\n", n)
	return nil
}

func migrateCommand() *cobra.Command {
	return &cobra.Command{
		Use: "migrate", Short: "Bring the database's schema up to date", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			_, done, err := database(cmd.Context())
			if err != nil {
				return err
			}
			done()
			fmt.Fprintln(cmd.OutOrStdout(), "The schema is up to date.")
			return nil
		},
	}
}
