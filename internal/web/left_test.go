package web

import (
	"bytes"
	"context"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"testing"

	"github.com/stretchr/testify/assert"
)

// A reader who leaves while his page is made is no fault of ours: nothing is answered, and the log tells
// of it as what it is.
func TestAReaderWhoLeavesIsNoFault(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	var log bytes.Buffer
	was := slog.Default()
	slog.SetDefault(slog.New(slog.NewTextHandler(&log, nil)))
	t.Cleanup(func() { slog.SetDefault(was) })
	ctx, leave := context.WithCancel(t.Context())
	req := httptest.NewRequestWithContext(ctx, http.MethodGet, s.URL+"/jobs/T-0417/changes", nil)
	for _, c := range b.Jar.Cookies(req.URL) {
		req.AddCookie(c)
	}
	leave()
	answer := httptest.NewRecorder()
	s.Config.Handler.ServeHTTP(answer, req)
	assert.NotContains(t, log.String(), "level=ERROR")
	assert.NotContains(t, answer.Body.String(), "Something went wrong")
}
