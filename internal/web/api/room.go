// Package api answers programs: the calculators, written cases of causes, how the program is.
package api

import "corvek/internal/web/site"

// Pages answer it.
type Pages struct{ *site.Site }

// New makes the room, which shows no page.
func New(s *site.Site) site.Room {
	p := &Pages{s}
	return site.Room{Routes: p.routes()}
}
