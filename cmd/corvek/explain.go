package main

import (
	"encoding/json"
	"fmt"
	"io"
	"os"

	"corvek/core/explain"
	"corvek/core/family"
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
		"report what led, calibration and minutes")
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

// try draws thin cases of each family, as they come to a bench, from the knowledge as it is and from knowledge that
// is a little wrong, and tells how the engine did.
func try(w io.Writer, base explain.Base, families []string, cases int) error {
	lib, err := family.Shipped()
	if err != nil {
		return err
	}
	fmt.Fprintf(
		w,
		"%-28s %6s %6s %6s %9s %9s %7s %15s | falsified %6s %6s\n",
		"family",
		"first",
		"of 3",
		"led",
		"dangerous",
		"to 80 %",
		"reached",
		"guided / fixed",
		"first",
		"of 3",
	)
	for _, name := range families {
		k := base[name]
		if f := lib[name]; f != nil {
			k = k.Of(f.Has())
		}
		k = k.In(explain.Situation{Reached: explain.Stripped, MayRun: true})
		t, wrong := k.TryThin(cases, false, 1), k.TryThin(cases, true, 2)
		race := k.RaceOnce(max(1, cases/10), 1)
		fmt.Fprintf(w, "%-28s %5.1f%% %5.1f%% %6d %9d %5.0f min %6.0f%% %5.0f / %3.0f min | %16.1f%% %5.1f%%\n", name,
			100*t.First, 100*t.FirstThree, t.Led, t.Dangerous, t.Minutes, 100*t.Reached, race.Guided, race.Fixed,
			100*wrong.First, 100*wrong.FirstThree)
		for i, n := range t.InBin {
			if n >= leastInTenth {
				fmt.Fprintf(w, "    said %.2f, so %.2f ± %.2f of %d\n", t.Said[i], t.So[i], t.Within(i), n)
			}
		}
	}
	return nil
}

// leastInTenth is how many cases a tenth has before anything is told of it.
const leastInTenth = 400
