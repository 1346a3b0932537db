package main

import (
	"fmt"
	"slices"
	"strings"

	"corvek/core/mount"
	"corvek/internal/rig"

	"github.com/spf13/cobra"
)

// practice is what the simulated stand of the demo is called.
const practice = "practice stand"

func rigCommand() *cobra.Command {
	var addr string
	var faults []string
	cmd := &cobra.Command{
		Use: "rig", Short: "Run a simulated test stand behind OPC UA, on this machine only", Args: cobra.NoArgs,
		Long: "Run a simulated test stand behind OPC UA. A lead sets it up under Stands by the address and the " +
			"nodes that are printed. Whatever it shows is an exercise and proves nothing.",
		RunE: func(cmd *cobra.Command, _ []string) error {
			for _, f := range faults {
				if !slices.Contains(mount.Faults, f) {
					return fmt.Errorf("--fault %s is not one of %s", f, strings.Join(mount.Faults, ", "))
				}
			}
			s, err := rig.Serve(cmd.Context(), addr, 1, faults...)
			if err != nil {
				return err
			}
			out := cmd.OutOrStdout()
			fmt.Fprintf(out, "Simulated stand at %s, an exercise whatever it shows. Its nodes:\n\n%s\n"+
				"Ctrl-C stops it.\n", s.Endpoint, rig.SimulatedNodes())
			<-cmd.Context().Done()
			return nil
		},
	}
	cmd.Flags().StringVar(&addr, "addr", "127.0.0.1:4840", "address on this machine")
	cmd.Flags().StringSliceVar(&faults, "fault", nil, "what is wrong with stand or unit: "+
		strings.Join(mount.Faults, ", "))
	return cmd
}
