// Package door is the room where people come in: first start, signing in, changing who is at the
// bench, and what each may change of himself.
package door

import (
	"embed"

	"corvek/internal/web/site"
)

//go:embed templates
var files embed.FS

// Pages are those of the room.
type Pages struct {
	*site.Site
	first *FirstStart
}

// New makes the room; first lets somebody in where nobody can sign in yet.
func New(s *site.Site, first *FirstStart) site.Room {
	p := &Pages{s, first}
	return site.Room{Routes: p.routes(), Files: files}
}
