package jobpages

import (
	"context"
	"fmt"
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
	watch map[*watcher]bool
}

// watcher is an open page that hears.
type watcher struct {
	tag      string
	versions chan int64    // of its job, the newest that was not heard yet
	pages    chan struct{} // others opened or closed a page of it
}

func newChanges(s *store.Store) *changes {
	c := &changes{store: s, watch: map[*watcher]bool{}}
	c.ctx, c.stop = context.WithCancel(context.Background())
	return c
}

// of hears of a job as it is written. A reader who is slow gets the newest.
func (c *changes) of(tag string) (w *watcher, done func()) {
	c.once.Do(func() { go c.store.Listen(c.ctx, c.tell) })
	w = &watcher{tag: tag, versions: make(chan int64, 1), pages: make(chan struct{}, 1)}
	c.Lock()
	defer c.Unlock()
	c.watch[w] = true
	return w, func() {
		c.Lock()
		defer c.Unlock()
		delete(c.watch, w)
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
	for w := range c.watch {
		if h.Tag != "" && w.tag != h.Tag && w.tag != everyJob {
			continue
		}
		if h.Pages {
			select {
			case w.pages <- struct{}{}:
			default: // it will look anyway
			}
			continue
		}
		select {
		case <-w.versions: // what was not heard yet is older
		default:
		}
		w.versions <- version
	}
}

// beat is how often a silent line is used, so that one that nobody hears any more is let go.
const beat = 25 * time.Second

// listenAgain has a browser whose line broke listen anew after half a second.
const listenAgain = "retry: 500\n\n"

// hear sends the versions of a job as server-sent events, the one it is at first: what was
// written while a line was broken is heard when it stands again. Beside them it tells who else
// looks at the job.
func (s *Pages) hear(c *echo.Context) error {
	w, done := s.changes.of(c.Param("tag"))
	defer done()
	ctx := c.Request().Context()
	j, err := s.Store.Job(ctx, c.Param("tag"))
	if err != nil {
		return err
	}
	here := s.pageOf(c)
	defer here.close()
	return s.stream(c, w, versionEvent(j.Version)+here.open(ctx), told{
		wrote: func(v int64) (string, error) {
			if v == missed {
				// A page that is up to date is not asked for again: hands act on it already.
				j, err := s.Store.Job(ctx, c.Param("tag"))
				if err != nil {
					return "", err // the reader listens anew
				}
				v = j.Version
			}
			return versionEvent(v), nil
		},
		pages: func() string { return here.others(ctx) },
		beat:  func() { here.stays(ctx) },
	})
}

// hearAll tells a board that a job was written to or looked at, whichever it was; what it shows is then asked for
// again.
func (s *Pages) hearAll(c *echo.Context) error {
	w, done := s.changes.of(everyJob)
	defer done()
	heard := int64(0)
	again := func() string {
		heard++
		return versionEvent(heard)
	}
	return s.stream(c, w, ": listens\n\n", told{
		wrote: func(int64) (string, error) { return again(), nil },
		pages: again,
		beat:  func() {},
	})
}

// told is what is sent of what is heard.
type told struct {
	wrote func(version int64) (string, error)
	pages func() string
	beat  func() // what is done while nothing is heard
}

// stream sends what is heard, until the reader leaves or the server does. What is first is sent at once.
func (s *Pages) stream(c *echo.Context, w *watcher, first string, l told) error {
	out := c.Response()
	control := eventStream(out)
	tick := time.NewTicker(beat)
	defer tick.Stop()
	for text := listenAgain + first; ; {
		if _, err := fmt.Fprint(out, text); err != nil || control.Flush() != nil {
			return nil // the reader has left
		}
		select {
		case <-c.Request().Context().Done():
			return nil
		case <-s.changes.ctx.Done():
			return nil
		case <-tick.C:
			l.beat()
			text = ": still here\n\n"
		case <-w.pages:
			text = l.pages()
		case v := <-w.versions:
			var err error
			if text, err = l.wrote(v); err != nil {
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
