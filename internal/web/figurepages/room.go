// Package figurepages is the room of the owner's figures: what the jobs that went out came to, drawn, as CSV and as a
// spreadsheet.
package figurepages

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
		site.Get("/figures", site.Lead, p.figures).Slow(),
		site.Get("/figures.csv", site.Lead, p.csv).Slow(),
		site.Get("/figures.xlsx", site.Lead, p.xlsx).Slow(),
	}}
}
