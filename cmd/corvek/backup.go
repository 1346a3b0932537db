package main

import (
	"errors"
	"fmt"

	"corvek/internal/store"

	"github.com/spf13/cobra"
)

func backupCommand() *cobra.Command {
	return &cobra.Command{
		Use: "backup FILE", Short: "Copy the whole store into one file, also while it is served",
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			jobs, done, err := database(cmd.Context())
			if err != nil {
				return err
			}
			defer done()
			c, err := jobs.Store.Backup(cmd.Context(), args[0])
			if err != nil {
				return err
			}
			if c.Fault != "" {
				return fmt.Errorf("the copy is in %s, but the record in it does not hold: %s", args[0], c.Fault)
			}
			fmt.Fprintf(cmd.OutOrStdout(), "copied to %s: %d bytes, %d lines of the record, which holds\n", args[0],
				c.Bytes, c.Lines)
			return nil
		},
	}
}

func restoreCommand() *cobra.Command {
	return &cobra.Command{
		Use: "restore FILE", Short: "Put a copy back into an empty store", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			p, err := find(cmd.Context(), dataFolder(), false)
			if err != nil {
				return err
			}
			defer p.leave()
			m, err := store.Restore(cmd.Context(), p.owner, p.role(), args[0])
			if errors.Is(err, store.ErrNotEmpty) && p.owner != p.program {
				return fmt.Errorf("%w; set CORVEK_DATA to a new folder", err)
			}
			if err != nil {
				return err
			}
			fmt.Fprintf(cmd.OutOrStdout(), "put back the copy of %s: the record holds, %d lines, fingerprint %s\n",
				m.Made.Local().Format("2 Jan 2006 15:04"), m.Lines, m.Head)
			return nil
		},
	}
}
