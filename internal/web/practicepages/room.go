// Package practicepages is the room of practice: instruments that are read without a unit on the bench. Nothing of
// it counts in the shop's figures.
package practicepages

import (
	"embed"

	"corvek/internal/web/site"
)

//go:embed templates css
var files embed.FS

// Pages are those of the room.
type Pages struct{ *site.Site }

// New makes the room.
func New(s *site.Site) site.Room {
	p := &Pages{s}
	return site.Room{Files: files, Routes: []site.Route{
		site.Get("/practice", site.View, p.practice),
		site.Get("/practice/reading/:kind", site.View, p.reading),
		site.Post("/practice/reading/:kind", site.View, p.answer),
	}}
}
