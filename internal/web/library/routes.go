package library

import (
	"corvek/internal/web/site"
)

// routes are the addresses of this room.
func (s *Pages) routes() []site.Route {
	return []site.Route{
		site.Get("/library", site.View, s.library),
		site.Get("/library/sheets", site.View, s.sheets),
		site.Post("/library/sheets", site.Work, s.readSheet),
		site.Get("/library/sheets/:id", site.View, s.sheet),
		site.Get("/library/sheets/:id/paper.pdf", site.View, s.sheetPaper),
		site.Get("/library/sheets/:id/file", site.View, s.sheetFile),
		site.Post("/library/sheets/:id/confirm", site.Lead, s.confirmSheet),
		site.Get("/library/:code", site.View, s.familyPage),
		site.Post("/library/:code", site.Lead, s.saveFamily),
		site.Get("/library/:code/form", site.Lead, s.familyForm),
		site.Post("/library/:code/form", site.Lead, s.writeFamily),
		site.Post("/library/:code/variant/:variant", site.Lead, s.saveVariant),
	}
}
