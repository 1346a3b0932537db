package door

import (
	"corvek/internal/web/site"
)

// routes are the addresses of this room.
func (s *Pages) routes() []site.Route {
	return []site.Route{
		site.Get("/sign-in", site.Open, s.signInPage),
		site.Post("/sign-in", site.Open, s.signIn),
		site.Post("/sign-out", site.View, s.signOut),
		site.Get("/first", site.Open, s.firstPage),
		site.Post("/first", site.Open, s.begin),
		site.Get("/change", site.View, s.changePage),
		site.Post("/change", site.View, s.changePerson),
		site.Post("/confirm", site.View, s.Confirm),
		site.Get("/me", site.View, s.mePage),
		site.Post("/me/password", site.View, s.ownPassword),
		site.Post("/me/quick", site.View, s.Signed(s.ownQuick)),
		site.Get("/", site.View, s.home),
	}
}
