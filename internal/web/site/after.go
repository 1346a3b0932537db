package site

import (
	"bytes"
	"encoding/json"
	"net/http"
	"net/url"
	"strings"

	"github.com/labstack/echo/v5"
)

// shown puts into the context how a page is drawn again after a write, for ok.
func (s *Site) shown(e *echo.Echo) echo.MiddlewareFunc {
	return func(next echo.HandlerFunc) echo.HandlerFunc {
		return func(c *echo.Context) error {
			if c.Request().Method == http.MethodPost && c.Request().Header.Get(PageHeader) != "" {
				c.Set("draw", func(address string) json.RawMessage { return s.draw(e, c, address) })
			}
			return next(c)
		}
	}
}

// pageAfter is what a write made of the page that the browser shows; nil where it shows
// none, or none that can be laid over. The browser then asks for it.
func pageAfter(c *echo.Context) json.RawMessage {
	draw, shows := c.Get("draw").(func(string) json.RawMessage)
	if !shows {
		return nil
	}
	return draw(c.Request().Header.Get(PageHeader))
}

// draw lays out the page at an address for the reader of a request, within that request.
func (s *Site) draw(e *echo.Echo, c *echo.Context, address string) json.RawMessage {
	to, err := url.Parse(OwnPath(address))
	if err != nil {
		return nil
	}
	r := c.Request().Clone(c.Request().Context())
	r.Method, r.URL, r.RequestURI, r.Body = http.MethodGet, to, to.RequestURI(), http.NoBody
	r.Form, r.PostForm, r.MultipartForm = nil, nil, nil
	w := &held{header: http.Header{}}
	page := e.NewContext(r, w)
	for _, key := range []string{"person", "csrf", practiceKey} {
		page.Set(key, c.Get(key))
	}
	handle := e.Router().Route(page)
	if err := s.requireRole(handle)(page); err != nil || w.status != http.StatusOK {
		return nil
	}
	if !strings.HasPrefix(w.header.Get(echo.HeaderContentType), echo.MIMEApplicationJSON) {
		return nil
	}
	return w.body.Bytes()
}

// held keeps a page that is drawn within another request.
type held struct {
	header http.Header
	status int
	body   bytes.Buffer
}

func (d *held) Header() http.Header { return d.header }

func (d *held) WriteHeader(status int) { d.status = status }

func (d *held) Write(b []byte) (int, error) {
	if d.status == 0 {
		d.status = http.StatusOK
	}
	return d.body.Write(b)
}
