package site

import (
	"context"
	"net/http"
	"strconv"
	"time"

	"corvek/internal/store"

	"github.com/hashicorp/golang-lru/v2/expirable"
	"github.com/labstack/echo/v5"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"
)

// metrics are the figures by which somebody watches the program from outside.
type metrics struct {
	registry *prometheus.Registry
	requests *prometheus.CounterVec
	seconds  *prometheus.HistogramVec
	saves    *prometheus.CounterVec
	drafts   *expirable.LRU[string, int] // not yet saved, by browser
}

// What browsers say of values that wait in them to be saved.
const (
	draftsHeader   = "X-Corvek-Drafts"
	mostBrowsers   = 1000
	mostDrafts     = 10_000
	draftsForget   = 10 * time.Minute
	scrapePatience = time.Second
)

func newMetrics(st *store.Store, copies *store.Keeper) *metrics {
	m := &metrics{
		registry: prometheus.NewRegistry(),
		requests: prometheus.NewCounterVec(prometheus.CounterOpts{Name: "corvek_requests_total",
			Help: "Requests answered, by route and status."}, []string{"method", "route", "status"}),
		seconds: prometheus.NewHistogramVec(prometheus.HistogramOpts{Name: "corvek_request_seconds",
			Help:    "Time to an answer, by what it was.",
			Buckets: []float64{.001, .0025, .005, .01, .025, .05, .1, .25, 1, 5, 15}}, []string{"kind"}),
		saves: prometheus.NewCounterVec(prometheus.CounterOpts{Name: "corvek_saves_total",
			Help: "Single values sent to be saved, by what became of them."}, []string{"outcome"}),
		drafts: expirable.NewLRU[string, int](mostBrowsers, nil, draftsForget),
	}
	m.registry.MustRegister(m.requests, m.seconds, m.saves, collectors.NewGoCollector(),
		collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}))
	m.gauge("corvek_drafts_waiting", "Values that wait in browsers to be saved, as last heard.", m.waiting)
	m.gauge("corvek_store_up", "1 while the database answers.", func() float64 {
		ctx, cancel := context.WithTimeout(context.Background(), scrapePatience)
		defer cancel()
		if st.Ping(ctx) != nil {
			return 0
		}
		return 1
	})
	m.gauge("corvek_store_connections_in_use", "Connections to the database at work.", func() float64 {
		return float64(st.Pool.Stat().AcquiredConns())
	})
	m.gauge("corvek_store_connections_most", "Connections to the database at most.", func() float64 {
		return float64(st.Pool.Stat().MaxConns())
	})
	m.gauge("corvek_last_good_copy_seconds", "When the last good copy was made, in seconds of 1970; 0 for never.",
		func() float64 {
			ctx, cancel := context.WithTimeout(context.Background(), scrapePatience)
			defer cancel()
			last, err := st.LastGoodCopy(ctx)
			if err != nil || last.IsZero() {
				return 0
			}
			return float64(last.Unix())
		})
	m.gauge("corvek_copies_disk_free_bytes", "Room on the disk of the copies; -1 where there is none.", func() float64 {
		left, known := RoomAt(copies.Folder)
		if !known {
			return -1
		}
		return float64(left)
	})
	return m
}

func (m *metrics) gauge(name, help string, now func() float64) {
	m.registry.MustRegister(prometheus.NewGaugeFunc(prometheus.GaugeOpts{Name: name, Help: help}, now))
}

func (m *metrics) waiting() float64 {
	sum := 0
	for _, n := range m.drafts.Values() {
		sum += n
	}
	return float64(sum)
}

// Metrics serves the figures. They name no job and nobody; all the same they are
// for an address of their own, which only the shop's machines reach.
func (s *Site) Metrics() http.Handler {
	return promhttp.HandlerFor(s.metrics.registry, promhttp.HandlerOpts{})
}

// count notes what became of a request.
func (m *metrics) count(c *echo.Context, status int, took time.Duration) {
	route, method := c.Path(), c.Request().Method
	kind := "look"
	switch {
	case route == "/static/*":
		kind = "static"
	case route == "":
		route = "none"
	case method != http.MethodGet && method != http.MethodHead:
		kind = "write"
	}
	m.requests.WithLabelValues(known(method), route, strconv.Itoa(status)).Inc()
	m.seconds.WithLabelValues(kind).Observe(took.Seconds())
	if route == "/jobs/:tag/set" {
		m.saves.WithLabelValues(outcome(status)).Inc()
	}
	n, aerr := strconv.Atoi(c.Request().Header.Get(draftsHeader))
	if cookie, cerr := c.Cookie(sessionCookie); aerr == nil && cerr == nil && Who(c).ID != 0 {
		m.drafts.Add(cookie.Value, min(max(n, 0), mostDrafts))
	}
}

// known keeps invented methods from making figures of their own.
func known(method string) string {
	switch method {
	case http.MethodGet, http.MethodHead, http.MethodPost:
		return method
	}
	return "other"
}

func outcome(status int) string {
	switch {
	case status < 400:
		return "saved"
	case status == http.StatusConflict:
		return "conflict"
	case status >= 500:
		return "away"
	}
	return "refused"
}
