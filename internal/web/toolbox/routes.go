package toolbox

import (
	"corvek/internal/web/site"
)

// routes are the addresses of this room.
func (s *Pages) routes() []site.Route {
	return []site.Route{
		site.Get("/toolbox", site.View, s.toolbox),
		site.Get("/toolbox/:name", site.View, s.tool),
		site.Post("/toolbox/:name/put", site.Work, s.putFigure),
	}
}
