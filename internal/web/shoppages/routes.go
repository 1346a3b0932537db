package shoppages

import (
	"corvek/internal/web/site"
)

// routes are the addresses of this room.
func (s *Pages) routes() []site.Route {
	return []site.Route{
		site.Get("/shop", site.Lead, s.shop),
		site.Get("/shop/letterhead", site.Lead, s.letterhead),
		site.Post("/shop/letterhead", site.Lead, s.Signed(s.saveLetterhead)),
		site.Post("/shop/people", site.Lead, s.Signed(s.addPerson)),
		site.Get("/shop/store", site.Lead, s.storePage).Slow(),
		site.Post("/shop/store/copy", site.Lead, s.copyNow).Slow(),
		site.Get("/shop/people/:id", site.Lead, s.personPage),
		site.Post("/shop/people/:id", site.Lead, s.Signed(s.onPerson("who", s.changeOfPerson))),
		site.Post("/shop/people/:id/password", site.Lead, s.Signed(s.onPerson("password", s.passwordOfPerson))),
		site.Post("/shop/people/:id/quick", site.Lead, s.Signed(s.onPerson("quick", s.SetQuick))),
		site.Post("/shop/people/:id/lock", site.Lead, s.Signed(s.onPerson("who", s.lockPerson))),
		site.Get("/stands", site.Lead, s.stands),
		site.Post("/stands", site.Lead, s.Signed(s.saveStand)),
		site.Post("/stands/drop", site.Lead, s.Signed(s.dropStand)),
		site.Get("/instruments", site.View, s.instruments),
		site.Post("/instruments", site.Work, s.saveInstrument),
		site.Get("/instruments/:id", site.View, s.instrument),
		site.Post("/instruments/:id/calibrated", site.Work, s.Signed(s.calibrated)),
		site.Post("/instruments/:id/lost", site.Work, s.Signed(s.lost)),
		site.Post("/instruments/:id/found", site.Work, s.Signed(s.found)),
	}
}
