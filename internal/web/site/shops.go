package site

import (
	"net/http"
	"net/url"
	"slices"

	"github.com/labstack/echo/v5"
)

// AllShops asks for what all shops of one owner have.
const AllShops = "all"

// shopCookie keeps which shop the reader looks at.
const shopCookie = "corvek_shop"

// Shops are the shops of one owner, with which of them the reader looks at: none where there is one shop alone.
type Shops struct {
	Sites []string
	Site  string // "" for all
	Path  string // of the page that shows them
}

// Shops finds which shop the reader looks at: the one in the address, which is kept, else the one he looked at last,
// else the one in which he works.
func (s *Site) Shops(c *echo.Context, path string) (out Shops, err error) {
	ctx := c.Request().Context()
	out.Path = path
	if out.Sites, err = s.Store.Sites(ctx); err != nil || len(out.Sites) == 0 {
		return out, err
	}
	known := func(name string) bool { return name == AllShops || slices.Contains(out.Sites, name) }
	kept, _ := url.QueryUnescape(chosen(c, shopCookie))
	asked := c.QueryParam("site")
	switch {
	case known(asked):
		out.Site = asked
		c.SetCookie(&http.Cookie{Name: shopCookie, Value: url.QueryEscape(asked), Path: "/", MaxAge: 31536000,
			HttpOnly: true, SameSite: http.SameSiteLaxMode})
	case known(kept):
		out.Site = kept
	default:
		out.Site, err = s.Store.SiteOf(ctx, Who(c).ID)
	}
	if out.Site == AllShops {
		out.Site = ""
	}
	return out, err
}
