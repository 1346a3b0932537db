package main

import (
	"fmt"
	"os"
	"time"

	"corvek/core/field"
	"corvek/core/plan"

	"github.com/spf13/cobra"
)

// benchEffort lets a published instance of ten jobs on ten machines be searched for some seconds.
const benchEffort = 60_000_000

// planCommand holds what the planner does in the shell.
func planCommand() *cobra.Command {
	cmd := &cobra.Command{Use: "plan", Short: "The planner, held against published instances"}
	cmd.AddCommand(planBenchCommand())
	return cmd
}

// planBenchCommand plans an instance of the job shop with the entry that the Plan page uses.
func planBenchCommand() *cobra.Command {
	var seed uint64
	var effort, hands int
	cmd := &cobra.Command{
		Use:   "bench FILE",
		Short: "Plan an instance of the job shop in the usual text format; prints its makespan",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			file, err := os.Open(args[0])
			if err != nil {
				return refuse(cmd, field.Errorf("file", "cannot be read: %s", err))
			}
			defer file.Close()
			p, err := plan.JobShop(file)
			if err != nil {
				return refuse(cmd, field.Errorf("file", "%s", err))
			}
			began := time.Now()
			out, err := plan.Make(p, plan.Options{Seed: seed, Effort: effort, Hands: hands})
			if err != nil {
				return err
			}
			proved := "not proved"
			if out.Proved {
				proved = "proved: nothing shorter is possible"
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "%d operations on %d machines\nmakespan %d, %s\n%.2f s\n",
				len(p.Tasks), len(p.Resources), out.Cost.Late, proved, time.Since(began).Seconds())
			return err
		},
	}
	cmd.Flags().Uint64Var(&seed, "seed", 1, "of the search")
	cmd.Flags().IntVar(&effort, "effort", benchEffort, "operations that each search may lay out")
	cmd.Flags().IntVar(&hands, "hands", 2, "searches beside each other")
	return cmd
}
