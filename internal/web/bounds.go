package web

import (
	"context"
	"net/http"
	"strings"
	"time"

	"github.com/labstack/echo/v5"
	"github.com/labstack/echo/v5/middleware"
)

// What one request may send, in bytes, and how long it may take: the store is
// given up after it, and the reader is told.
const (
	mostOpenBody = 512 << 10 // from who need not be known
	mostBody     = 2 << 20
	mostUpload   = 24 << 20 // a picture, or a job with its pictures

	lookTime  = 4 * time.Second
	writeTime = 15 * time.Second
	paperTime = time.Minute      // papers and job files are read and written whole
	liveTime  = 10 * time.Minute // a strip chart is sent on; then the page asks anew
)

// bounded limits what a request may send and how long the store may take over it.
// Its end is the request's own: nothing goes on for a reader who has left.
func (s *Server) bounded(next echo.HandlerFunc) echo.HandlerFunc {
	limits := map[int64]echo.HandlerFunc{}
	for _, most := range []int64{mostOpenBody, mostBody, mostUpload} {
		limits[most] = middleware.BodyLimit(most)(next)
	}
	return func(c *echo.Context) error {
		ctx, cancel := context.WithTimeout(c.Request().Context(), timeFor(c))
		defer cancel()
		c.SetRequest(c.Request().WithContext(ctx))
		return limits[s.bodyFor(c)](c)
	}
}

func (s *Server) bodyFor(c *echo.Context) int64 {
	role, known := s.roles[c.Request().Method+" "+c.Path()]
	switch {
	case known && role == "":
		return mostOpenBody
	case c.Path() == "/import", strings.HasSuffix(c.Path(), "/pictures"), strings.HasSuffix(c.Path(), "/prove/log"):
		return mostUpload
	}
	return mostBody
}

func timeFor(c *echo.Context) time.Duration {
	path := c.Path()
	switch {
	case strings.HasSuffix(path, "/stand/live"), strings.HasSuffix(path, "/changes"):
		return liveTime
	case path == "/import", strings.HasPrefix(path, "/shop/store"), strings.HasSuffix(path, "/export"),
		strings.HasSuffix(path, ".pdf"), strings.HasSuffix(path, "/hand-over"),
		strings.HasSuffix(path, "/report"), strings.HasSuffix(path, "/dispute"), strings.HasSuffix(path, "/pictures"),
		strings.HasSuffix(path, "/prove/log"), strings.HasSuffix(path, "/samples.csv"):
		return paperTime
	case c.Request().Method == http.MethodGet:
		return lookTime
	}
	return writeTime
}
