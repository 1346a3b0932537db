package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"

	"corvek/core/calc"
	"corvek/core/field"

	"github.com/spf13/cobra"
)

// exitRefused is the exit code for input that cannot be computed.
const exitRefused = 2

func calcCommand() *cobra.Command {
	cmd := &cobra.Command{
		Use:   "calc [name]",
		Short: "List the calculators, or run one: JSON in on standard input, JSON out",
		Args:  cobra.MaximumNArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			if len(args) == 0 {
				for _, d := range calc.All() {
					fmt.Fprintf(cmd.OutOrStdout(), "%-20s %s\n", d.Name, d.Summary)
				}
				return nil
			}
			if _, err := calc.Find(args[0]); err != nil {
				return refuse(cmd, err)
			}
			body, err := io.ReadAll(io.LimitReader(os.Stdin, 1<<20))
			if err != nil {
				return err
			}
			out, err := calc.Run(args[0], body)
			if err != nil {
				return refuse(cmd, err)
			}
			return json.NewEncoder(cmd.OutOrStdout()).Encode(out)
		},
	}
	plain := cmd.HelpFunc()
	cmd.SetHelpFunc(func(c *cobra.Command, args []string) {
		for _, a := range c.Flags().Args() {
			if d, err := calc.Find(a); err == nil {
				helpFor(c.OutOrStdout(), d)
				return
			}
		}
		for _, a := range args {
			if d, err := calc.Find(a); err == nil {
				helpFor(c.OutOrStdout(), d)
				return
			}
		}
		plain(c, args)
	})
	return cmd
}

func refuse(cmd *cobra.Command, err error) error {
	var fe *field.Error
	if !errors.As(err, &fe) {
		return err
	}
	body := map[string]any{"error": map[string]string{"field": fe.Field, "text": fe.Text}}
	if err := json.NewEncoder(cmd.OutOrStdout()).Encode(body); err != nil {
		return err
	}
	return answeredError{exitRefused}
}

func helpFor(w io.Writer, d *calc.Def) {
	fmt.Fprintf(w, "%s: %s\n\nInputs (? optional):\n", d.Name, d.Summary)
	for _, in := range d.Inputs {
		mark := " "
		if in.Optional {
			mark = "?"
		}
		fmt.Fprintf(w, "  %-22s%s %s", in.Name, mark, in.Describe())
		if in.Bare != "" {
			fmt.Fprintf(w, ", a bare number in %s", in.Bare)
		}
		if in.Default != "" {
			fmt.Fprintf(w, " (default %s)", in.Default)
		}
		if in.Help != "" {
			fmt.Fprintf(w, "; %s", in.Help)
		}
		fmt.Fprintln(w)
	}
	fmt.Fprintf(w, "\nResults:\n")
	for _, r := range d.Results {
		fmt.Fprintf(w, "  %-28s %-6s %s\n", r.Name, r.Unit, r.Help)
	}
	fmt.Fprintf(w, "\nFormula:     %s\nSource:      %s\nAssumptions: %s\nExample:     %s\n", d.Formula, d.Source,
		d.Assumptions, d.Example)
}
