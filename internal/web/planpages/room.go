// Package planpages is the room of the plan: who does what when, what is late and why, and the shop that it rests on.
package planpages

import (
	"embed"

	"corvek/internal/planning"
	"corvek/internal/web/site"
)

//go:embed templates css
var files embed.FS

// Pages are those of the room.
type Pages struct {
	*site.Site
	plans *planning.Service
}

// New makes the room.
func New(s *site.Site, plans *planning.Service) site.Room {
	p := &Pages{s, plans}
	return site.Room{Routes: p.routes(), Files: files}
}

// routes are the addresses of this room.
func (s *Pages) routes() []site.Route {
	return []site.Route{
		site.Get("/plan", site.View, s.plan).Slow(),
		site.Get("/plan/today", site.View, s.todayPaper).Slow(),
		site.Get("/plan/today.pdf", site.View, s.todayPaper).Slow(),
		site.Post("/plan/pin", site.Work, s.Signed(s.pin)).Slow(),
		site.Post("/plan/move", site.Work, s.Signed(s.move)).Slow(),
		site.Post("/plan/free", site.Work, s.Signed(s.free)).Slow(),
		site.Post("/plan/promise", site.Work, s.Signed(s.promise)).Slow(),
		site.Post("/plan/told", site.Work, s.Signed(s.told)).Slow(),
		site.Post("/plan/undo", site.Work, s.Signed(s.undo)).Slow(),
		site.Get("/plan/shop", site.Lead, s.workshop),
		site.Post("/plan/hands", site.Lead, s.Signed(s.saveHands)),
		site.Post("/plan/away", site.Lead, s.Signed(s.addAway)),
		site.Post("/plan/back", site.Lead, s.Signed(s.dropAway)),
		site.Post("/plan/close", site.Lead, s.Signed(s.closeDay)),
		site.Post("/plan/open", site.Lead, s.Signed(s.openDay)),
		site.Get("/plan/partners", site.Lead, s.partners),
		site.Post("/plan/partner", site.Lead, s.Signed(s.savePartner)),
		site.Post("/plan/partner/drop", site.Lead, s.Signed(s.dropPartner)),
		site.Post("/plan/prices", site.Lead, s.Signed(s.savePrices)),
		site.Post("/plan/site", site.Lead, s.Signed(s.addSite)),
		site.Post("/plan/site/drop", site.Lead, s.Signed(s.dropSite)),
		site.Post("/plan/place", site.Lead, s.Signed(s.savePlace)),
		site.Post("/plan/place/drop", site.Lead, s.Signed(s.dropPlace)),
	}
}
