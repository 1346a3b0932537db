package main

import (
	"fmt"
	"io"
	"slices"
	"strings"
	"text/tabwriter"

	"corvek/core/explain"
	"corvek/core/family"
	"corvek/core/field"

	"github.com/spf13/cobra"
)

// familyCommand prints what a family comes to, put together from its assemblies, as a
// unit of one of its variants where that is named.
func familyCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "family [NAME [VARIANT]]",
		Short: "List the families, or print what one comes to: parts, figures, tests, variants, knowledge",
		Args:  cobra.MaximumNArgs(2),
		RunE: func(cmd *cobra.Command, args []string) error {
			lib, err := family.Shipped()
			if err != nil {
				return err
			}
			w := cmd.OutOrStdout()
			if len(args) == 0 {
				for _, f := range lib.List() {
					fmt.Fprintf(w, "%-28s %s\n", f.Code, f.Name)
				}
				return nil
			}
			f := lib[args[0]]
			if f == nil {
				return refuse(cmd, field.Errorf("family", "%q is not shipped; corvek family lists them", args[0]))
			}
			if len(args) == 2 {
				if f.VariantNamed(args[1]) == nil {
					return refuse(cmd, field.Errorf("variant", "%q is no variant of %s", args[1], f.Name))
				}
				if f, err = f.As(args[1], nil); err != nil {
					return err
				}
			}
			base, err := explain.Shipped()
			if err != nil {
				return err
			}
			return printFamily(w, f, base.For(f.Code))
		},
	}
}

func printFamily(w io.Writer, f *family.Family, k *explain.Knowledge) error {
	fmt.Fprintf(w, "%s (%s), acts as %s\n", f.Name, f.Code, f.Action)
	fmt.Fprintf(w, "\nassemblies\n")
	for _, in := range f.Instances {
		fmt.Fprintf(w, "  %-18s %-20s %s\n", in.Code, in.Assembly, strings.Join(in.Parts, ", "))
	}
	t := tabwriter.NewWriter(w, 0, 0, 2, ' ', 0)
	fmt.Fprintf(t, "\nparts, as they come off\n")
	for i := range f.Parts {
		p := &f.Parts[i]
		fmt.Fprintf(t, "  %s\t%d\t%s\t%s\t%s\n", p.Code, p.Count, p.Kind, p.Name, strings.Join(facts(p), "; "))
		for k := range p.Features {
			ft := &p.Features[k]
			fmt.Fprintf(t, "    .%s\t\t%s\t%s\t%s\n", ft.Code, ft.Method, ft.Name, limits(ft))
		}
	}
	fmt.Fprintf(t, "\nleaks\n")
	for _, l := range f.Leaks {
		fmt.Fprintf(t, "  %s\t%s\t%s\n", l.Name, l.Feature, l.Shape)
	}
	fmt.Fprintf(t, "\ntests\n")
	for _, s := range f.Tests {
		fmt.Fprintf(t, "  %s\t%s\t%s\t%s\n", s.Code, s.Name, reads(s), s.Hold)
	}
	fmt.Fprintf(t, "\nvariants\n")
	for i := range f.VariantRules {
		v := &f.VariantRules[i]
		fmt.Fprintf(t, "  %s\t%s\t%s\n", v.Code, v.Name, changes(v.Change))
	}
	if err := t.Flush(); err != nil {
		return err
	}
	fmt.Fprintf(w, "\nasked first: %s\nsymptoms: %s\ncautions: %s\n", strings.Join(f.Gauge, ", "),
		strings.Join(f.Symptoms, ", "), strings.Join(f.Cautions, ", "))
	fmt.Fprintf(w, "knowledge: %d root causes, %d marks\n", len(k.Causes), len(k.Evidence))
	return nil
}

// facts are what is said of a part besides its name.
func facts(p *family.Part) (out []string) {
	if p.Branch != "" {
		out = append(out, "on "+p.Branch)
	}
	if p.Renew {
		out = append(out, "renewed")
	}
	if p.Set != "" {
		out = append(out, "set: "+p.Set)
	}
	if p.Facing != "" {
		out = append(out, p.Facing)
	}
	if b := p.Bolt; b != nil {
		out = append(out, strings.TrimSpace("bolted "+b.Thread+" "+b.Class+" "+b.Torque))
	}
	return out
}

// limits says by which rule a feature is judged.
func limits(ft *family.Feature) string {
	r := ft.Rule
	if r == nil {
		r = ft.Mate
	}
	if r == nil {
		return ""
	}
	return "by rule, guidance: " + r.Basis
}

// changes says what a variant has another way.
func changes(c *family.Change) string {
	if c.Empty() {
		return "as the family"
	}
	var out []string
	if len(c.Without) > 0 {
		out = append(out, "without "+strings.Join(c.Without, ", "))
	}
	if len(c.With) > 0 {
		out = append(out, fmt.Sprintf("%d lines more", len(c.With)))
	}
	var other []string
	for code := range c.Parts {
		other = append(other, code)
	}
	slices.Sort(other)
	if len(other) > 0 {
		out = append(out, "another "+strings.Join(other, ", "))
	}
	return strings.Join(out, "; ")
}

// reads are the figures of a step by their codes.
func reads(t family.Test) string {
	var out []string
	for _, r := range t.Reads {
		out = append(out, r.Figure)
	}
	return strings.Join(out, " ")
}
