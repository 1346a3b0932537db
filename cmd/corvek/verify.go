package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"strings"

	"corvek/core/field"
	"corvek/core/wording"
	"corvek/internal/job"
	"corvek/internal/store"

	"github.com/spf13/cobra"
)

func verifyCommand() *cobra.Command {
	var paper string
	cmd := &cobra.Command{
		Use:   "verify",
		Short: "Check the record, the jobs and the kept papers against one another",
		Long: "Follows the record line by line, holds what every job says against the end of its own record, and " +
			"every kept paper against its fingerprint. With --paper it tells what stood when a paper was printed.",
		Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			jobs, done, err := database(cmd.Context())
			if err != nil {
				return err
			}
			defer done()
			if paper != "" {
				return tellPaper(cmd.Context(), cmd.OutOrStdout(), jobs, paper)
			}
			v, err := jobs.Verify(cmd.Context())
			if err != nil {
				return err
			}
			return tellVerdict(cmd.OutOrStdout(), v)
		},
	}
	cmd.Flags().StringVar(&paper, "paper", "", "a fingerprint as it is printed on a paper, or its first eight digits")
	return cmd
}

func tellVerdict(out io.Writer, v store.Verdict) error {
	if !v.Holds() {
		words := make([]string, len(v.Faults))
		for i, f := range v.Faults {
			words[i] = f.Words
		}
		return errors.New("it does not hold: " + strings.Join(words, "\n  and "))
	}
	fmt.Fprintf(out, "the record holds: %d lines, fingerprint %s\n", v.Lines, v.Head)
	if v.Earlier > 0 {
		fmt.Fprintf(out, "%d jobs were last written by an earlier version; what they say is not fingerprinted yet\n",
			v.Earlier)
	}
	return nil
}

// tellPaper says what a fingerprint on a paper leads to.
func tellPaper(ctx context.Context, out io.Writer, jobs *job.Service, digits string) error {
	s, err := jobs.Stood(ctx, digits)
	var bad *field.Error
	switch {
	case errors.Is(err, store.ErrNotFound):
		return fmt.Errorf("no line of this store's record has the fingerprint %s", digits)
	case errors.As(err, &bad):
		return fmt.Errorf("--paper %s", bad.Text)
	case err != nil:
		return err
	}
	at := s.At.Format("2 January 2006 15:04")
	if s.Paper != nil {
		fmt.Fprintf(
			out,
			"%s of job %s, hand-over %d, kept on %s by %s: %d bytes, as they were that day\n",
			s.Paper.Name,
			s.Tag,
			s.Paper.HandOver,
			at,
			s.Who,
			len(s.Paper.Content),
		)
	} else {
		fmt.Fprintf(
			out,
			"job %s, line %d of its record, %s by %s: %s %s\n",
			s.Tag,
			s.Number,
			at,
			s.Who,
			s.Action,
			s.Field,
		)
	}
	fmt.Fprintf(out, "the record of the job has %d lines now\n", s.Holds.Lines)
	if len(s.Since) == 0 {
		fmt.Fprintln(out, "no value that was set by then is another now")
	}
	for _, o := range s.Since {
		fmt.Fprintf(
			out,
			"  %s was %s then, and is %s now\n",
			o.What,
			wording.OrNothing(o.After),
			wording.OrNothing(o.Now),
		)
	}
	if !s.Holds.Holds() {
		return errors.New("the record does not hold: " + s.Holds.Fault())
	}
	return nil
}
