package main

import (
	"bufio"
	"errors"
	"fmt"
	"os"
	"strings"
	"time"

	"corvek/core/field"
	"corvek/internal/people"

	"github.com/spf13/cobra"
)

func personCommand() *cobra.Command {
	var f people.Form
	cmd := &cobra.Command{
		Use: "person", Short: "Add a person or renew a password; the password is read from standard input",
		Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			line, _ := bufio.NewReader(os.Stdin).ReadString('\n')
			f.Password = strings.TrimSpace(line)
			jobs, done, err := database(cmd.Context())
			if err != nil {
				return err
			}
			defer done()
			service := people.Service{Store: jobs.Store, Now: time.Now}
			err = service.FromShell(cmd.Context(), f)
			var fe *field.Error
			if errors.As(err, &fe) {
				return fmt.Errorf("the %s %s", strings.ReplaceAll(fe.Field, "_", "-"), fe.Text)
			}
			if err != nil {
				return err
			}
			fmt.Fprintln(cmd.OutOrStdout(), "saved", people.SignInName(f.SignIn))
			return nil
		},
	}
	cmd.Flags().StringVar(&f.SignIn, "sign-in", "", "name to sign in with")
	cmd.Flags().StringVar(&f.Name, "name", "", "full name")
	cmd.Flags().StringVar(&f.Initials, "initials", "", "initials")
	cmd.Flags().StringVar(&f.Role, "role", "technician", "technician, lead or viewer")
	_ = cmd.MarkFlagRequired("sign-in")
	_ = cmd.MarkFlagRequired("name")
	return cmd
}
