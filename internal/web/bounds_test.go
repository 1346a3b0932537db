package web

import (
	"context"
	"io"
	"net"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"corvek/demo/demotest"
	"corvek/internal/job"
	"corvek/internal/store"
	"corvek/internal/store/storetest"
	"corvek/internal/web/site"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/crypto/bcrypt"
)

// Who may not come in is told so at once: of what he sends nothing is read.
func TestAnonymousUploadsAreNotRead(t *testing.T) {
	t.Parallel()
	b := serve(t).as("")
	for _, path := range []string{"/import", "/jobs/T-0417/pictures"} {
		unread, never := io.Pipe() // nothing is ever sent through it
		ctx, cancel := context.WithTimeout(context.Background(), 10*time.Second)
		req, err := http.NewRequestWithContext(ctx, http.MethodPost, b.site.URL+path, unread)
		require.NoError(t, err)
		req.ContentLength = 20 << 20
		req.Header.Set("Content-Type", "multipart/form-data; boundary=x")
		res, err := http.DefaultTransport.RoundTrip(req)
		if assert.NoError(t, err, path) {
			assert.Equal(t, http.StatusUnauthorized, res.StatusCode, path)
			require.NoError(t, res.Body.Close())
		}
		require.NoError(t, never.Close())
		cancel()
	}
}

// Bodies are bounded by what the route is for.
func TestBodiesAreBounded(t *testing.T) {
	s := serve(t)
	for _, c := range []struct {
		who, path string
		size      int
	}{{"", "/sign-in", site.MostOpenBody}, {"", "/api/v1/calc/cylinder", 256 << 10},
		{"", "/api/v1/explain", site.MostOpenBody},
		{"iva", "/jobs/T-0417/set", site.MostBody}, {"odd", "/import", site.MostUpload}} {
		b := s.as(c.who)
		res, body := b.post(c.path, url.Values{"value": {strings.Repeat("x", c.size+1)}})
		refused := []int{http.StatusRequestEntityTooLarge, http.StatusUnprocessableEntity}
		assert.Contains(t, refused, res.StatusCode, c.path)
		assert.NotContains(t, body, strings.Repeat("x", 1000), c.path)
	}
}

// stalling stands between the program and its database and passes nothing on
// while it is held.
type stalling struct{ held atomic.Bool }

func (p *stalling) serve(t *testing.T, target string) string {
	t.Helper()
	l, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	t.Cleanup(func() { _ = l.Close() })
	pass := func(from, to net.Conn) {
		defer to.Close()
		buffer := make([]byte, 32<<10)
		for {
			n, err := from.Read(buffer)
			for p.held.Load() {
				time.Sleep(5 * time.Millisecond)
			}
			if _, werr := to.Write(buffer[:n]); err != nil || werr != nil {
				return
			}
		}
	}
	go func() {
		for {
			near, err := l.Accept()
			if err != nil {
				return
			}
			far, err := net.Dial("tcp", target)
			if err != nil {
				_ = near.Close()
				continue
			}
			go pass(near, far)
			go pass(far, near)
		}
	}()
	return l.Addr().String()
}

// A store that hangs is told of in words within seconds; when it answers again
// the reader is still signed in.
func TestHungStoreIsToldInTime(t *testing.T) {
	behind := demotest.Jobs(t)
	address, err := url.Parse(storetest.URLOf(behind.Store))
	require.NoError(t, err)
	proxy := &stalling{}
	address.Host = proxy.serve(t, address.Host)
	st, err := store.Open(context.Background(), address.String())
	require.NoError(t, err)
	t.Cleanup(st.Close)
	jobs, err := job.New(st)
	require.NoError(t, err)
	app, server, err := New(Config{Jobs: jobs, Demo: true, HashCost: bcrypt.MinCost})
	require.NoError(t, err)
	s := &served{httptest.NewServer(app), server, t}
	t.Cleanup(s.Close)
	b := s.as("iva")
	proxy.held.Store(true)
	for _, path := range []string{"/jobs", "/jobs/T-0417/measure", "/healthz"} {
		began := time.Now()
		res, body := b.get(path)
		assert.Less(t, time.Since(began), site.LookTime+2*time.Second, path)
		assert.Equal(t, http.StatusServiceUnavailable, res.StatusCode, path)
		if path != "/healthz" {
			assert.Contains(t, body, site.StoreAway, path)
		}
	}
	proxy.held.Store(false)
	assert.Eventually(t, func() bool {
		res, body := b.get("/jobs/T-0417/measure")
		return res.StatusCode == http.StatusOK && strings.Contains(body, "Press feed pump")
	}, 20*time.Second, 100*time.Millisecond, "still signed in when it answers again")
}
