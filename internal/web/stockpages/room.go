// Package stockpages is the room of the shop's drawers: what lies there, what goes bad, what came and was taken, and
// the labels.
package stockpages

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
	return site.Room{Routes: p.routes(), Files: files}
}

// routes are the addresses of this room.
func (s *Pages) routes() []site.Route {
	return []site.Route{
		site.Get("/stock", site.View, s.stock),
		site.Get("/stock/lots/:code", site.View, s.lot),
		site.Get("/stock/labels", site.View, s.labels),
		site.Get("/stock/labels.pdf", site.View, s.labels),
		site.Get("/stock/order", site.View, s.order),
		site.Get("/stock/order.pdf", site.View, s.order),
		site.Get("/stock.csv", site.View, s.csv),
		site.Post("/stock/item", site.Work, s.Signed(s.saveItem)),
		site.Post("/stock/came", site.Work, s.Signed(s.came)),
		site.Post("/stock/count", site.Work, s.Signed(s.count)),
		site.Post("/stock/empty", site.Work, s.Signed(s.empty)),
		site.Post("/stock/list", site.Work, s.Signed(s.list)),
	}
}
