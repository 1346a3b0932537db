package web

import (
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"corvek/internal/web/site"

	"github.com/stretchr/testify/require"
)

// BenchmarkSetWithPage is one reading written and answered with what it made of the page.
func BenchmarkSetWithPage(b *testing.B) {
	slog.SetDefault(slog.New(slog.DiscardHandler))
	s := serve(b)
	iva := s.as("iva")
	field := "u1/part/rod/feature/diameter/found/r1c1"
	base := iva.state("T-0412", 1).ByCode["rod"].Features[0].Entry("found", "r1c1")
	n := 0
	for b.Loop() {
		n++
		value := fmt.Sprintf("49.9%02d mm", n%97)
		form := url.Values{"field": {field}, "value": {value}, "base": {base}, "unit": {"mm"}}
		r, err := http.NewRequest(http.MethodPost, s.URL+"/jobs/T-0412/set", strings.NewReader(form.Encode()))
		require.NoError(b, err)
		r.Header.Set("Content-Type", "application/x-www-form-urlencoded")
		r.Header.Set("X-Requested-With", "corvek")
		r.Header.Set("X-CSRF-Token", iva.csrf)
		r.Header.Set(site.PageHeader, "/jobs/T-0412/measure?part=rod&feature=diameter")
		r.Header.Set(site.HasHeader, "head:1")
		res, err := iva.Do(r)
		require.NoError(b, err)
		require.Equal(b, http.StatusOK, res.StatusCode)
		_, _ = io.Copy(io.Discard, res.Body)
		_ = res.Body.Close()
		base = value
	}
}
