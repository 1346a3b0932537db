// Package shoppages is the room of the shop itself: its people, letterhead, instruments, stands and
// the copies of its store.
package shoppages

import (
	"embed"

	"corvek/internal/stand"
	"corvek/internal/web/site"
)

//go:embed templates
var files embed.FS

// Pages are those of the room.
type Pages struct {
	*site.Site
	desk *stand.Desk
}

// New makes the room; desk holds the stands that run.
func New(s *site.Site, desk *stand.Desk) site.Room {
	p := &Pages{s, desk}
	return site.Room{Routes: p.routes(), Files: files}
}
