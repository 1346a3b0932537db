package main

import (
	"fmt"
	"io"
	"slices"
	"strings"

	"corvek/core/mount"
	"corvek/internal/rig"

	"github.com/spf13/cobra"
)

// mostOfAStand is how many bytes of memory a stand beside the demo may use.
const mostOfAStand = 768 << 20

func rigCommand() *cobra.Command {
	var addr string
	var faults []string
	var beside bool
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
			if beside {
				if err := boundMemory(mostOfAStand); err != nil {
					return err
				}
			}
			s, err := rig.Serve(cmd.Context(), addr, 1, faults...)
			if err != nil {
				return err
			}
			out := cmd.OutOrStdout()
			if beside {
				fmt.Fprintln(out, s.Endpoint)
				_, _ = io.Copy(io.Discard, cmd.InOrStdin()) // until who started it ends
				return nil
			}
			fmt.Fprintf(out, "Simulated stand at %s, an exercise whatever it shows. Its nodes:\n\n%s\n"+
				"Ctrl-C stops it.\n", s.Endpoint, rig.SimulatedNodes())
			<-cmd.Context().Done()
			return nil
		},
	}
	cmd.Flags().StringVar(&addr, "addr", "127.0.0.1:4840", "address on this machine")
	cmd.Flags().BoolVar(&beside, "beside", false, "end with the program that started it, and print the address alone")
	_ = cmd.Flags().MarkHidden("beside")
	cmd.Flags().StringSliceVar(&faults, "fault", nil, "what is wrong with stand or unit: "+
		strings.Join(mount.Faults, ", "))
	return cmd
}
