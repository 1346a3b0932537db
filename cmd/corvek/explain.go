package main

import (
	"encoding/json"
	"fmt"
	"io"
	"os"

	"corvek/core/explain"
	"corvek/core/field"

	"github.com/spf13/cobra"
)

// explainCommand weighs a written case, lists codes, or proves the engine on
// cases drawn from its own knowledge.
func explainCommand() *cobra.Command {
	var codes string
	var trial int
	cmd := &cobra.Command{
		Use:   "explain [CASE.json]  |  explain --trial N [FAMILY]",
		Short: "Weigh the evidence of a case: JSON in from a file or standard input, JSON out",
		Args:  cobra.MaximumNArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			base, err := explain.Shipped()
			if err != nil {
				return err
			}
			switch {
			case codes != "":
				return listCodes(cmd, base, codes)
			case trial > 0:
				families := base.Families()
				if len(args) == 1 {
					if base[args[0]] == nil {
						return refuse(cmd, field.Errorf("family", "%q is not known; it is one of %v", args[0],
							families))
					}
					families = args
				}
				return try(cmd.OutOrStdout(), base, families, trial)
			}
			in := io.Reader(os.Stdin)
			if len(args) == 1 {
				f, err := os.Open(args[0])
				if err != nil {
					return refuse(cmd, field.Errorf("case", "cannot be read: %s", err))
				}
				defer f.Close()
				in = f
			}
			body, err := io.ReadAll(io.LimitReader(in, 1<<20))
			if err != nil {
				return err
			}
			answer, err := base.Answer(body)
			if err != nil {
				return refuse(cmd, err)
			}
			enc := json.NewEncoder(cmd.OutOrStdout())
			enc.SetIndent("", "  ")
			enc.SetEscapeHTML(false)
			return enc.Encode(answer)
		},
	}
	cmd.Flags().StringVar(&codes, "codes", "", "list the causes and the evidence of a family")
	cmd.Flags().IntVar(&trial, "trial", 0, "draw so many cases of the family, or of each, from the knowledge, and "+
		"report accuracy, calibration and minutes")
	return cmd
}

func listCodes(cmd *cobra.Command, base explain.Base, family string) error {
	k := base[family]
	if k == nil {
		return refuse(cmd, field.Errorf("family", "%q is not known; it is one of %v", family, base.Families()))
	}
	w := cmd.OutOrStdout()
	fmt.Fprintf(w, "causes of %s\n", family)
	for _, c := range k.Causes {
		fmt.Fprintf(w, "  %-22s %-9s %s\n", c.Code, c.Where, c.Name)
	}
	fmt.Fprintf(w, "evidence\n")
	for _, e := range k.Evidence {
		fmt.Fprintf(w, "  %-22s %-8s %4.0f min  %s\n", e.Code, e.Onset, e.Minutes, e.Text)
	}
	return nil
}

// Of the drawn cases a third of the checks is hidden, and the eye slips on two
// in a hundred.
const hidden, slips = 0.34, 0.02

func try(w io.Writer, base explain.Base, families []string, cases int) error {
	fmt.Fprintf(w, "%-28s %7s %7s %7s %9s %9s\n", "family", "first", "of 3", "off by", "guided", "fixed")
	for _, name := range families {
		k := base[name]
		t := k.Try(cases, hidden, slips, 1)
		r := k.RaceOnce(max(1, cases/10), 1)
		fmt.Fprintf(w, "%-28s %6.1f%% %6.1f%% %7.3f %5.0f min %5.0f min\n", name, 100*t.Top1, 100*t.Top3,
			t.Calibrated, r.Guided, r.Fixed)
	}
	return nil
}
