// Command corvek is the bench-side workbook of a hydraulic rebuild shop.
package main

import (
	"context"
	"errors"
	"fmt"
	"os"
	"os/signal"
	"syscall"

	"github.com/spf13/cobra"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	root := &cobra.Command{
		Use: "corvek", Short: "Workbook of a hydraulic rebuild shop", SilenceUsage: true, SilenceErrors: true,
	}
	root.AddCommand(
		serveCommand(),
		demoCommand(),
		rigCommand(),
		migrateCommand(),
		calcCommand(),
		explainCommand(),
		planCommand(),
		familyCommand(),
		exportCommand(),
		importCommand(),
		personCommand(),
		verifyCommand(),
		backupCommand(),
		restoreCommand(),
	)
	err := root.ExecuteContext(ctx)
	var answered answeredError
	switch {
	case err == nil:
	case errors.As(err, &answered):
		os.Exit(answered.code)
	default:
		fmt.Fprintln(os.Stderr, "corvek:", err)
		os.Exit(1)
	}
}

// answeredError ends the command with a code when everything was said already.
type answeredError struct{ code int }

func (answeredError) Error() string { return "answered" }
