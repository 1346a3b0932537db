package web

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The switches of the measures rule headings, limits, torques, papers and calculators, and
// pressures have one of their own.
func TestTheSwitchesRule(t *testing.T) {
	t.Parallel()
	s := serve(t)
	b := s.as("iva")
	look := func(page string, cookies ...string) string {
		t.Helper()
		r, err := http.NewRequest(http.MethodGet, s.URL+page, nil)
		require.NoError(t, err)
		for i := 0; i < len(cookies); i += 2 {
			r.AddCookie(&http.Cookie{Name: cookies[i], Value: cookies[i+1]})
		}
		_, body := b.send(r)
		return plain(body)
	}
	inch := []string{"corvek_units", "in"}
	sheet := "/jobs/T-0417/measure?part=rear_plate&feature=side_clearance"
	for _, c := range []struct {
		page    string
		cookies []string
		has     string
		not     string
	}{
		{sheet, nil, "limit 0.076 to 0.178 mm", "limit 3"},
		{sheet, inch, "limit 3 to 7 thou", "limit 0.076"},
		{sheet, nil, "leakage at 175 bar", "2538 psi"},
		{sheet, inch, "leakage at 2538 psi", "175 bar"},
		{sheet, []string{"corvek_pressure", "psi"}, "leakage at 2538 psi", "at 175 bar"},
		{sheet, []string{"corvek_units", "in", "corvek_pressure", "bar"}, "leakage at 175 bar", "2538 psi"},
		{"/jobs/T-0417/measure", inch, "1.953 in3/rev", "32 cc/rev"},
		{"/jobs/T-0388/build?part=cover_bolts", inch, "27.9 lbf·ft 37.8 N·m", "37.8 N·m 27.9"},
		{"/jobs/T-0388/report", inch, "2538 psi, 1450 rpm, 1.953 in3/rev", "175 bar, 1450"},
		{"/library/external_gear_pump", nil, "may wear 0.030 mm", "may wear 1.2 thou"},
		{"/library/external_gear_pump", inch, "may wear 1.2 thou", "may wear 0.030 mm"},
		{"/toolbox/cylinder?bore=63+mm&pressure=210+bar", inch, " lbf ", "push force 65462 N"},
	} {
		text := look(c.page, c.cookies...)
		assert.Contains(t, text, c.has, c.page)
		if c.not != "" {
			assert.NotContains(t, text, c.not, c.page)
		}
	}
}
