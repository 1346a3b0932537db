package main

import (
	"errors"
	"fmt"

	"github.com/spf13/cobra"
)

func verifyCommand() *cobra.Command {
	return &cobra.Command{
		Use: "verify", Short: "Check that no line of the record was changed, taken out or put in", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			jobs, done, err := database(cmd.Context())
			if err != nil {
				return err
			}
			defer done()
			v, err := jobs.Store.Verify(cmd.Context())
			if err != nil {
				return err
			}
			if v.Fault != "" {
				return errors.New("the record does not hold: " + v.Fault)
			}
			fmt.Fprintf(cmd.OutOrStdout(), "the record holds: %d lines, fingerprint %s\n", v.Lines, v.Head)
			return nil
		},
	}
}
