// Command movesgen writes the table of what each value moves into a file, behind its last line that
// begins with a table's mark.
package main

import (
	"fmt"
	"os"
	"strings"

	"corvek/core/entry"
)

func main() {
	if err := write(os.Args[1]); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func write(file string) error {
	text, err := os.ReadFile(file)
	if err != nil {
		return err
	}
	before, _, _ := strings.Cut(string(text), "| of | moves |")
	return os.WriteFile(file, []byte(before+entry.MovesTable()), 0o644)
}
