// Package practicepages is the room of practice: instruments that are read and questions that are answered without a
// unit on the bench. Nothing of it counts in the shop's figures.
package practicepages

import (
	"embed"

	"corvek/internal/casebook"
	"corvek/internal/web/site"
)

//go:embed templates css
var files embed.FS

// Pages are those of the room.
type Pages struct {
	*site.Site
	book *casebook.Book // nil where there is no bench of practice
}

// New makes the room.
func New(s *site.Site, book *casebook.Book) site.Room {
	p := &Pages{s, book}
	return site.Room{Files: files, Routes: []site.Route{
		site.Get("/practice", site.View, p.practice),
		site.Get("/practice/lesson/:code", site.View, p.lesson),
		site.Get("/practice/course", site.View, p.booklet),
		site.Get("/practice/course.pdf", site.View, p.booklet).Slow(),
		site.Post("/practice/cases", site.Work, p.begin),
		site.Post("/practice/week", site.Work, p.beginWeek),
		site.Post("/practice/set", site.Lead, p.setWeek),
		site.Post("/practice/share", site.Work, p.share),
		site.Get("/practice/reading/:code", site.View, p.shows(p.reading)),
		site.Post("/practice/reading/:code", site.View, p.judges(p.reading)),
		site.Get("/practice/drill/:code", site.View, p.shows(p.drill)),
		site.Post("/practice/drill/:code", site.View, p.judges(p.drill)),
	}}
}
