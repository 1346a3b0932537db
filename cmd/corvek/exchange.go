package main

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"

	"corvek/internal/exchange"

	"github.com/spf13/cobra"
)

func exportCommand() *cobra.Command {
	var out string
	cmd := &cobra.Command{
		Use: "export JOB", Short: "Write a job as a zip of job.json and its pictures", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			jobs, done, err := database(cmd.Context())
			if err != nil {
				return err
			}
			defer done()
			if out == "" {
				out = args[0] + ".zip"
			}
			f, err := os.Create(out)
			if err != nil {
				return err
			}
			if err := exchange.Write(cmd.Context(), jobs.Store, args[0], f); err != nil {
				_ = f.Close()
				_ = os.Remove(out)
				return fmt.Errorf("%s: %w", args[0], err)
			}
			if err := f.Close(); err != nil {
				return err
			}
			fmt.Fprintln(cmd.OutOrStdout(), "wrote", out)
			return nil
		},
	}
	cmd.Flags().StringVarP(&out, "output", "o", "", "file to write (default JOB.zip)")
	return cmd
}

func importCommand() *cobra.Command {
	return &cobra.Command{
		Use: "import FILE...", Short: "Read jobs from exported zips or from job.json documents",
		Args: cobra.MinimumNArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			jobs, done, err := database(cmd.Context())
			if err != nil {
				return err
			}
			defer done()
			for _, name := range args {
				d, files, err := read(name)
				if err != nil {
					return fmt.Errorf("%s: %w", name, err)
				}
				if err := exchange.Import(cmd.Context(), jobs, d, files, "import"); err != nil {
					return fmt.Errorf("%s: %w", name, err)
				}
				fmt.Fprintln(cmd.OutOrStdout(), "brought in", d.Tag())
			}
			return nil
		},
	}
}

// read opens a zip, or a bare document with its files beside it.
func read(name string) (*exchange.Document, exchange.Files, error) {
	if strings.HasSuffix(name, ".json") {
		text, err := os.ReadFile(name)
		if err != nil {
			return nil, nil, err
		}
		d, err := exchange.Parse(text)
		root, rerr := os.OpenRoot(filepath.Dir(name))
		if rerr != nil {
			return nil, nil, rerr
		}
		return d, func(file string) ([]byte, error) { return root.ReadFile(file) }, err
	}
	f, err := os.Open(name)
	if err != nil {
		return nil, nil, err
	}
	info, err := f.Stat()
	if err != nil {
		return nil, nil, err
	}
	return exchange.OpenZip(f, info.Size())
}
