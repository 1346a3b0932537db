package shoppages

import (
	"fmt"
	"net/http"
	"path/filepath"
	"time"

	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// mostCopies are listed.
const mostCopies = 50

// StorePage is the shop's memory, for leads: when it was copied last, whether its
// record holds, and how much room there is.
type StorePage struct {
	site.Reader
	Last    time.Time // zero where there is no good copy
	Ago     string
	Late    bool
	Every   string
	Folder  string
	Copies  []CopyRow
	Holds   store.Verdict
	Guard   store.Guard
	Room    string // left on the disk of the copies
	Tight   bool
	Fault   string
	MayCopy bool
}

// CopyRow is a copy in the list.
type CopyRow struct {
	store.Copy
	Size string
}

func (s *Pages) storePage(c *echo.Context) error { return s.renderStore(c, http.StatusOK, "") }

func (s *Pages) renderStore(c *echo.Context, status int, fault string) error {
	ctx := c.Request().Context()
	v := StorePage{Reader: s.Reader(c), Folder: s.Copies.Folder, Every: span(s.Copies.Every), Fault: fault,
		MayCopy: s.Copies.Folder != ""}
	var err error
	if v.Last, err = s.Store.LastGoodCopy(ctx); err != nil {
		return err
	}
	v.Late = v.Last.IsZero() || v.MayCopy && time.Since(v.Last) > 2*s.Copies.Every
	if !v.Last.IsZero() {
		v.Ago = ago(time.Since(v.Last))
	}
	list, err := s.Store.Copies(ctx, mostCopies)
	if err != nil {
		return err
	}
	for _, k := range list {
		k.File = filepath.Base(k.File)
		v.Copies = append(v.Copies, CopyRow{k, bytesOf(uint64(k.Bytes))})
	}
	if v.Holds, err = s.Store.VerifyLines(ctx); err != nil {
		return err
	}
	if v.Guard, err = s.Store.Guard(ctx); err != nil {
		return err
	}
	if room, ok := site.RoomAt(s.Copies.Folder); ok {
		v.Room, v.Tight = bytesOf(room), room < site.LeastRoom
	}
	return s.Render(c, status, "store", "Store", v)
}

// ago says how long since.
func ago(d time.Duration) string {
	if d < time.Minute {
		return "just now"
	}
	return span(d) + " ago"
}

// span says a time in the largest unit that tells enough.
func span(d time.Duration) string {
	n, unit := int(d.Minutes()), "minute"
	switch {
	case d >= 48*time.Hour:
		n, unit = int(d.Hours()/24), "day"
	case d >= 2*time.Hour:
		n, unit = int(d.Hours()), "hour"
	}
	if n != 1 {
		unit += "s"
	}
	return fmt.Sprintf("%d %s", n, unit)
}

// bytesOf says a size in decimal units.
func bytesOf(n uint64) string {
	switch {
	case n >= 1e9:
		return fmt.Sprintf("%.1f GB", float64(n)/1e9)
	case n >= 1e6:
		return fmt.Sprintf("%.1f MB", float64(n)/1e6)
	}
	return fmt.Sprintf("%.0f kB", float64(n)/1e3)
}

func (s *Pages) copyNow(c *echo.Context) error {
	if _, err := s.Copies.Now(c.Request().Context()); err != nil {
		return s.renderStore(c, http.StatusUnprocessableEntity, err.Error())
	}
	return c.Redirect(http.StatusSeeOther, "/shop/store")
}
