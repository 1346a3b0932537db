package site

import (
	"cmp"
	"context"
	"net/http"
	"time"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"
)

// What one request may send, in bytes, and how long it may take: the store is
// given up after it, and the reader is told.
const (
	MostOpenBody = 512 << 10 // from who need not be known
	MostBody     = 2 << 20
	MostUpload   = 24 << 20 // a picture, or a job with its pictures

	LookTime  = 4 * time.Second
	writeTime = 15 * time.Second
	paperTime = time.Minute      // papers and job files are read and written whole
	liveTime  = 10 * time.Minute // a strip chart is sent on; then the page asks anew
)

// bounded limits what a request may send and how long the store may take over it.
// Its end is the request's own: nothing goes on for a reader who has left.
func (s *Site) bounded(next echo.HandlerFunc) echo.HandlerFunc {
	limits := map[int64]echo.HandlerFunc{}
	for _, most := range []int64{MostOpenBody, MostBody, MostUpload} {
		limits[most] = middleware.BodyLimit(most)(next)
	}
	return func(c *echo.Context) error {
		ctx, cancel := context.WithTimeout(c.Request().Context(), s.timeFor(c))
		defer cancel()
		c.SetRequest(c.Request().WithContext(ctx))
		return limits[s.bodyFor(c)](c)
	}
}

// bodyFor is how large what is sent may be.
func (s *Site) bodyFor(c *echo.Context) int64 {
	r, known := s.routeOf(c)
	switch {
	case known && r.Role == Open:
		return MostOpenBody
	case r.upload:
		return MostUpload
	}
	return MostBody
}

// timeFor is how long an answer may take.
func (s *Site) timeFor(c *echo.Context) time.Duration {
	r, _ := s.routeOf(c)
	switch {
	case r.patience != 0:
		return r.patience
	case c.Request().Method == http.MethodGet:
		return cmp.Or(s.config.LookTime, LookTime)
	}
	return writeTime
}
