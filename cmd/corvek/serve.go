package main

import (
	"context"
	"crypto/rand"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net"
	"net/http"
	"os"
	"path/filepath"
	"runtime/debug"
	"strings"
	"syscall"
	"time"

	"corvek/internal/job"
	"corvek/internal/planning"
	"corvek/internal/store"
	"corvek/internal/web"
	"corvek/internal/web/door"
	"corvek/internal/web/site"

	"github.com/spf13/cobra"
)

// serving is how the workbook is served.
type serving struct {
	addr    string
	secure  bool
	verbose bool
	demo    bool
	proxies []string
	copies  string        // folder of the copies; "" for beside the private store's data
	every   time.Duration // from one copy to the next
	keep    int           // copies
	metrics string        // address to serve figures on; "" for none
}

func serveCommand() *cobra.Command {
	var o serving
	cmd := &cobra.Command{
		Use: "serve", Short: "Serve the workbook", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error { return serve(cmd.Context(), cmd.OutOrStdout(), o) },
	}
	o.flags(cmd)
	cmd.Flags().BoolVar(&o.secure, "secure", false, "cookies only over TLS; set it behind a TLS proxy")
	cmd.Flags().StringSliceVar(&o.proxies, "trusted-proxy", nil,
		"network of a proxy that tells where requests come from, like 127.0.0.1/32; may be given again")
	return cmd
}

func (o *serving) flags(cmd *cobra.Command) {
	standard := os.Getenv("CORVEK_ADDR")
	if standard == "" {
		standard = "127.0.0.1:8093"
	}
	cmd.Flags().StringVar(&o.addr, "addr", standard, "address to serve on (CORVEK_ADDR)")
	cmd.Flags().BoolVar(&o.verbose, "log", false, "write a line a request")
	cmd.Flags().
		StringVar(&o.copies, "backups", "", "folder for copies of the store (beside the private store's data)")
	cmd.Flags().DurationVar(&o.every, "backup-every", 24*time.Hour, "from one copy to the next")
	cmd.Flags().StringVar(&o.metrics, "metrics", "", "address to serve figures on for watching, like 127.0.0.1:9093")
	cmd.Flags().IntVar(&o.keep, "backup-keep", 14, "how many copies are kept")
}

func demoCommand() *cobra.Command {
	o := serving{demo: true}
	cmd := &cobra.Command{
		Use: "demo", Short: "Serve the made-up shop Tarnholm Hydraulics, loaded when the store is empty",
		Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error { return serve(cmd.Context(), cmd.OutOrStdout(), o) },
	}
	o.flags(cmd)
	return cmd
}

// networks reads the proxies that are trusted.
func (o *serving) networks() ([]*net.IPNet, error) {
	var out []*net.IPNet
	for _, text := range o.proxies {
		_, network, err := net.ParseCIDR(strings.TrimSpace(text))
		if err != nil {
			return nil, fmt.Errorf("--trusted-proxy %s is no network like 10.0.0.5/32", text)
		}
		out = append(out, network)
	}
	return out, nil
}

// garbagePercent is how far the heap may grow before it is collected.
const garbagePercent = 400

func serve(ctx context.Context, out io.Writer, o serving) error {
	level := slog.LevelWarn
	if o.verbose {
		level = slog.LevelInfo
	}
	// Pages make much short-lived text over a small heap: collecting it less often
	// costs some megabytes and saves a fifth of the time.
	debug.SetGCPercent(garbagePercent)
	slog.SetDefault(slog.New(slog.NewJSONHandler(os.Stderr, &slog.HandlerOptions{Level: level})))
	proxies, err := o.networks()
	if err != nil {
		return err
	}
	// The port is taken first: finding it in use must not cost a database start.
	listener, err := net.Listen("tcp", o.addr)
	if errors.Is(err, syscall.EADDRINUSE) {
		return fmt.Errorf("%s is in use by another program; stop that, or choose another address with --addr or "+
			"CORVEK_ADDR", o.addr)
	}
	if err != nil {
		return fmt.Errorf("cannot serve on %s: %w", o.addr, err)
	}
	defer listener.Close()
	folder := dataFolder()
	if o.demo {
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
	keeper := &store.Keeper{Store: jobs.Store, Folder: o.copies, Every: o.every, Keep: o.keep}
	if keeper.Folder == "" && os.Getenv("DATABASE_URL") == "" {
		keeper.Folder = filepath.Join(folder, "backups")
	}
	cfg := web.Config{Jobs: jobs, Demo: o.demo, Secure: o.secure, Proxies: proxies, Copies: keeper,
		Plans: planning.New(jobs)}
	if o.demo {
		if err = loadDemo(ctx, jobs, out); err == nil {
			err = practise(ctx, jobs)
		}
	} else {
		cfg.First, err = realShop(ctx, jobs)
	}
	if err != nil {
		return err
	}
	bench, putAway := practiceBench(ctx, place, jobs)
	defer putAway()
	cfg.Bench = bench
	if o.demo {
		if err := setDemoCase(ctx, jobs, bench); err != nil {
			return err
		}
	}
	app, server, err := web.New(cfg)
	if err != nil {
		return err
	}
	defer server.Close() // a drive that is left running is let go
	fmt.Fprintf(out, "Corvek serves on http://%s\n", listener.Addr())
	switch {
	case o.demo:
		if err := tellSignIns(ctx, jobs, out); err != nil {
			return err
		}
	case cfg.First != nil:
		fmt.Fprintf(
			out,
			"Nobody can sign in yet. Open it in a browser and give this code, once: %s\n",
			cfg.First.Code,
		)
	}
	fmt.Fprintln(out, "Ctrl-C stops it.")
	handler, err := site.Compressed(app)
	if err != nil {
		return err
	}
	stopFigures, err := figures(o.metrics, server.Metrics())
	if err != nil {
		return err
	}
	defer stopFigures()
	site := &http.Server{Handler: handler, ReadHeaderTimeout: 10 * time.Second, ReadTimeout: 2 * time.Minute,
		WriteTimeout: 2 * time.Minute, IdleTimeout: 2 * time.Minute}
	stopKeeping := inBackground(ctx, jobs, keeper, cfg.Plans)
	defer stopKeeping()
	site.RegisterOnShutdown(server.Close) // pages that listen are let go, and so is a drive
	failed := make(chan error, 1)
	go func() { failed <- site.Serve(listener) }()
	select {
	case err := <-failed:
		return err
	case <-ctx.Done():
	}
	fmt.Fprintln(out, "stopping")
	grace, cancel := context.WithTimeout(context.Background(), 5*time.Second)
	defer cancel()
	return site.Shutdown(grace)
}

// realShop refuses the store of the made-up shop, and asks for the first lead where there is
// nobody.
func realShop(ctx context.Context, jobs *job.Service) (*door.FirstStart, error) {
	made, err := madeUp(ctx, jobs)
	if err != nil {
		return nil, err
	}
	if made {
		return nil, errors.New("this store is the demo's; serve it with \"corvek demo\", and a shop of your own " +
			"from another folder (CORVEK_DATA)")
	}
	none, err := jobs.Store.NoPeople(ctx)
	if err != nil || !none {
		return nil, err
	}
	return &door.FirstStart{Code: rand.Text()[:10]}, nil
}

func migrateCommand() *cobra.Command {
	return &cobra.Command{
		Use: "migrate", Short: "Bring the database's schema up to date", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			p, err := find(cmd.Context(), dataFolder(), true)
			if err != nil {
				return err
			}
			defer p.leave()
			if err := current(cmd.Context(), p); err != nil {
				return err
			}
			fmt.Fprintln(cmd.OutOrStdout(), "The schema is up to date.")
			if _, err := makeBench(cmd.Context(), p); err != nil {
				fmt.Fprintln(cmd.OutOrStdout(), "There will be no bench of practice:", err)
			}
			return nil
		},
	}
}
