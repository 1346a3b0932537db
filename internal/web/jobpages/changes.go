package jobpages

import (
	"context"
	"fmt"
	"maps"
	"net/http"
	"sync"
	"time"

	"corvek/internal/store"

	"github.com/klauspost/compress/gzhttp"
	"github.com/labstack/echo/v5"
)

// changes tells open pages what is written to their jobs. It begins to listen when the
// first page asks.
type changes struct {
	store *store.Store
	once  sync.Once
	ctx   context.Context
	stop  context.CancelFunc

	sync.Mutex
	watch map[chan int64]string // the tag that each looks at
}

func newChanges(s *store.Store) *changes {
	c := &changes{store: s, watch: map[chan int64]string{}}
	c.ctx, c.stop = context.WithCancel(context.Background())
	return c
}

// of gives the versions of a job as they are written. A reader who is slow gets the newest.
func (c *changes) of(tag string) (versions <-chan int64, done func()) {
	c.once.Do(func() { go c.store.Listen(c.ctx, c.tell) })
	ch := make(chan int64, 1)
	c.Lock()
	defer c.Unlock()
	c.watch[ch] = tag
	return ch, func() {
		c.Lock()
		defer c.Unlock()
		delete(c.watch, ch)
	}
}

// everyJob is looked at by a board.
const everyJob = ""

// missed is told where changes may have been missed: the version is to be asked for.
const missed = 0

func (c *changes) tell(h store.Heard) {
	c.Lock()
	defer c.Unlock()
	version := h.Version
	if h.Tag == "" {
		version = missed
	}
	for ch := range maps.Keys(c.watch) {
		if h.Tag != "" && c.watch[ch] != h.Tag && c.watch[ch] != everyJob {
			continue
		}
		select {
		case <-ch: // what was not heard yet is older
		default:
		}
		ch <- version
	}
}

// beat is how often a silent line is used, so that one that nobody hears any more is let go.
const beat = 25 * time.Second

// again has a browser whose line broke listen anew after half a second.
const again = "retry: 500\n\n"

// hear sends the versions of a job as server-sent events, the one it is at first: what was
// written while a line was broken is heard when it stands again.
func (s *Pages) hear(c *echo.Context) error {
	versions, done := s.changes.of(c.Param("tag"))
	defer done()
	j, err := s.Store.Job(c.Request().Context(), c.Param("tag"))
	if err != nil {
		return err
	}
	return s.stream(c, versions, versionEvent(j.Version), func(v int64) (string, error) {
		if v == missed {
			// A page that is up to date is not asked for again: hands act on it already.
			j, err := s.Store.Job(c.Request().Context(), c.Param("tag"))
			if err != nil {
				return "", err // the reader listens anew
			}
			v = j.Version
		}
		return versionEvent(v), nil
	})
}

// hearAll tells a board that a job was written to, whichever it was; what it shows is then asked for again.
func (s *Pages) hearAll(c *echo.Context) error {
	versions, done := s.changes.of(everyJob)
	defer done()
	heard := int64(0)
	return s.stream(c, versions, ": listens\n\n", func(int64) (string, error) {
		heard++
		return versionEvent(heard), nil
	})
}

// stream sends what becomes of each version that is heard, until the reader leaves or the server does. What is
// first is sent at once.
func (s *Pages) stream(c *echo.Context, versions <-chan int64, first string, next func(int64) (string, error)) error {
	out := c.Response()
	control := eventStream(out)
	tick := time.NewTicker(beat)
	defer tick.Stop()
	for text := again + first; ; {
		if _, err := fmt.Fprint(out, text); err != nil || control.Flush() != nil {
			return nil // the reader has left
		}
		select {
		case <-c.Request().Context().Done():
			return nil
		case <-s.changes.ctx.Done():
			return nil
		case <-tick.C:
			text = ": still here\n\n"
		case v := <-versions:
			var err error
			if text, err = next(v); err != nil {
				return nil
			}
		}
	}
}

// Close lets the pages go that listen, and all stands.
func (s *Pages) Close() {
	s.changes.stop()
	s.desk.Close()
}

func versionEvent(version int64) string { return fmt.Sprintf("data: %d\n\n", version) }

// eventStream begins an answer that is sent on as things happen.
func eventStream(out http.ResponseWriter) *http.ResponseController {
	h := out.Header()
	h.Set("Content-Type", "text/event-stream")
	h.Set("Cache-Control", "no-store")
	h.Set(gzhttp.HeaderNoCompression, "1")
	control := http.NewResponseController(out)
	_ = control.SetWriteDeadline(time.Time{}) // its end is the request's own
	return control
}
