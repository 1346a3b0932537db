// Package library is the room of families: what a kind of unit consists of, its limits, causes and
// tests, and the form in which a lead writes them.
package library

import (
	"embed"

	"corvek/internal/web/site"
)

//go:embed templates
var files embed.FS

// Pages are those of the room.
type Pages struct{ *site.Site }

// New makes the room.
func New(s *site.Site) site.Room {
	p := &Pages{s}
	return site.Room{Routes: p.routes(), Files: files, Funcs: formFuncs}
}
