// Package jobpages is the room of the jobs: the board, each station of a job, its papers, pictures
// and recordings, and what is done there.
package jobpages

import (
	"embed"

	"corvek/internal/planning"
	"corvek/internal/stand"
	"corvek/internal/web/site"
)

//go:embed templates css
var files embed.FS

// Pages are those of the room.
type Pages struct {
	*site.Site
	desk     *stand.Desk
	plans    *planning.Service
	changes  *changes
	drawings *drawings
}

// New makes the room; desk holds the stands that run.
func New(s *site.Site, desk *stand.Desk, plans *planning.Service) (*Pages, error) {
	d, err := newDrawings()
	if err != nil {
		return nil, err
	}
	return &Pages{Site: s, desk: desk, plans: plans, changes: newChanges(s.Store), drawings: d}, nil
}

// Room is what the site is to serve of it.
func (s *Pages) Room() site.Room {
	return site.Room{Routes: s.routes(), Files: files, Funcs: jobFuncs}
}
