// Command testserver runs one database server for all test binaries of a run: it writes two lines
// for the shell to export, and ends with its standard input.
package main

import (
	"context"
	"fmt"
	"io"
	"os"

	"corvek/internal/pgserver"
	"corvek/internal/store/storetest"
)

func main() {
	if err := run(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run() error {
	folder, err := os.MkdirTemp("", "corvek-tests-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(folder)
	server, err := pgserver.Start(context.Background(), folder, true)
	if err != nil {
		return err
	}
	defer server.Stop()
	fmt.Printf("export %s='%s'\nexport %s='%s'\n", storetest.OwnerVariable, server.OwnerURL(),
		storetest.ProgramVariable, server.URL())
	if err := os.Stdout.Close(); err != nil {
		return err
	}
	_, err = io.Copy(io.Discard, os.Stdin)
	return err
}
