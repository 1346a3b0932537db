// Package toolbox is the room of the calculators, each on a page of its own.
package toolbox

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
	return site.Room{Routes: p.routes(), Files: files}
}
