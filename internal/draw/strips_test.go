package draw_test

import (
	"math"
	"strings"
	"testing"
	"time"

	"corvek/core/trace"
	"corvek/internal/draw"

	"github.com/stretchr/testify/assert"
)

func TestStripsOverOneTime(t *testing.T) {
	day := time.Date(2031, 5, 20, 0, 0, 0, 0, time.UTC)
	s := draw.Strips{Names: []string{"Pressure, bar", "Torque, N·m", "Flow <L/min>"},
		Factor: []float64{1e5, 1, 1e-3 / 60}, Offset: make([]float64, 3)}
	for i := range 5 {
		from := day.Add(time.Duration(i) * 10 * time.Second)
		s.Outlines = append(s.Outlines, trace.Outline{From: from, To: from.Add(10 * time.Second),
			Low:  []float64{float64(i) * 1e6, math.NaN(), 7e-4},
			High: []float64{float64(i)*1e6 + 1e5, math.NaN(), 7e-4}})
	}
	s.Notes = []draw.StripNote{{At: day.Add(20 * time.Second), Text: "stopped: <by hand>"}}
	svg := s.SVG()
	assert.Equal(t, 2, strings.Count(svg, `class="st-b"`), "what was never read has no strip")
	assert.Contains(t, svg, "Flow &lt;L/min&gt;")
	assert.Contains(t, svg, "stopped: &lt;by hand&gt;")
	assert.NotContains(t, svg, "NaN")
	assert.Empty(t, draw.Strips{}.SVG())
}
