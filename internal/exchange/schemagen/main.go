// Schemagen writes the schema of job documents to the file named.
package main

import (
	"log"
	"os"

	"corvek/internal/exchange"
)

func main() {
	if len(os.Args) != 2 {
		log.Fatal("name the file to write")
	}
	if err := os.WriteFile(os.Args[1], exchange.Schema(), 0o644); err != nil {
		log.Fatal(err)
	}
}
