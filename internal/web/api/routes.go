package api

import (
	"corvek/internal/web/site"
)

const apiCalcPath = "/api/v1/calc/:name"

// routes are the addresses of this room.
func (s *Pages) routes() []site.Route {
	return []site.Route{
		site.Get("/healthz", site.Open, s.health),
		site.Get("/api/v1/calc", site.Open, s.calcList),
		site.Get("/api/v1/openapi.json", site.Open, s.openAPI),
		site.Post(apiCalcPath, site.Open, s.calc),
		site.Post(apiExplainPath, site.Open, s.explainCase),
	}
}
