package jobpages

import (
	"context"
	"crypto/rand"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"

	"corvek/core/unit"
	"corvek/core/wording"
	"corvek/internal/store"
	"corvek/internal/web/site"

	"github.com/labstack/echo/v5"
)

// openPage is a page of a job that a reader has before him, for the others to see. What of it cannot be kept or read
// is not told: nobody is kept from his work by it.
type openPage struct {
	store *store.Store
	page  store.OpenPage
}

// pageOf is the page of the job in the address that its reader says he has before him.
func (s *Pages) pageOf(c *echo.Context) *openPage {
	who, at := site.Who(c), c.QueryParam("at")
	if !slices.Contains(unit.Stations, at) {
		at = ""
	}
	if n := c.QueryParam("unit"); at != "" && len(n) < 3 && n != "" && n != "1" {
		at += " " + n
	}
	return &openPage{s.Store, store.OpenPage{Token: rand.Text(), Tag: c.Param("tag"), PersonID: who.ID,
		Person: who.Name, AtPage: at}}
}

// open notes the page and gives what is told first: who else is there.
func (p *openPage) open(ctx context.Context) string {
	_ = p.store.PageOpen(ctx, p.page, true)
	return p.others(ctx)
}

func (p *openPage) stays(ctx context.Context) { _ = p.store.PageOpen(ctx, p.page, false) }

// closing is how long it may take to say that a page is closed.
const closing = 2 * time.Second

func (p *openPage) close() {
	ctx, cancel := context.WithTimeout(context.Background(), closing)
	defer cancel()
	_ = p.store.PageClosed(ctx, p.page)
}

// others is the event that tells who else looks at the job, and where.
func (p *openPage) others(ctx context.Context) string {
	pages, err := p.store.PagesOf(ctx, p.page.Tag, p.page.PersonID)
	if err != nil {
		return ""
	}
	words, _ := json.Marshal(othersWords(pages)) // of a text, which is always one
	return fmt.Sprintf("event: others\ndata: %s\n\n", words)
}

// othersWords say who else looks at a job, each at each of his pages once.
func othersWords(pages []store.OpenPage) string {
	var all []string
	for _, p := range pages {
		words := p.Person
		if station, number, _ := strings.Cut(p.AtPage, " "); station != "" {
			words += " at " + wording.Stations[station]
			if number != "" {
				words += ", unit " + number
			}
		}
		if !slices.Contains(all, words) {
			all = append(all, words)
		}
	}
	if len(all) == 0 {
		return ""
	}
	return "+ " + strings.Join(all, "; ")
}
