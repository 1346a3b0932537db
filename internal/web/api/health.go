package api

import (
	"context"
	"net/http"
	"time"

	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// Health is what the program says of itself to whoever watches it. Anybody may
// ask, so it names states and no figures.
type Health struct {
	Status string `json:"status"` // ok, warning, or down
	Store  string `json:"store"`
	Disk   string `json:"disk,omitempty"`
	Copies string `json:"copies,omitempty"`
}

// noRoom is so little that the store cannot go on, in bytes.
const noRoom = 64 << 20

// healthPatience is how long the store may take to answer.
const healthPatience = 2 * time.Second

func (s *Pages) health(c *echo.Context) error {
	ctx, cancel := context.WithTimeout(c.Request().Context(), healthPatience)
	defer cancel()
	h := s.HealthNow(ctx)
	status := http.StatusOK
	if h.Status == "down" {
		status = http.StatusServiceUnavailable
	}
	c.Response().Header().Set("Cache-Control", "no-store")
	return c.JSON(status, h)
}

// HealthNow asks the store, its disk and its copies how they are.
func (s *Pages) HealthNow(ctx context.Context) Health {
	h := Health{Status: "ok", Store: "ok"}
	if err := s.Store.Ping(ctx); err != nil {
		h.Status, h.Store = "down", "does not answer"
		return h
	}
	if left, known := site.RoomAt(s.Copies.Folder); known {
		h.Disk = "ok"
		switch {
		case left < noRoom:
			h.Status, h.Disk = "down", "full"
		case left < site.LeastRoom:
			h.Status, h.Disk = "warning", "nearly full"
		}
	}
	if s.Copies.Folder == "" {
		return h
	}
	h.Copies = "ok"
	last, err := s.Store.LastGoodCopy(ctx)
	if err == nil && time.Since(last) > 2*s.Copies.Every {
		h.Copies = "late"
		if h.Status == "ok" {
			h.Status = "warning"
		}
	}
	return h
}
