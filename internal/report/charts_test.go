package report

import (
	"strings"
	"testing"
	"time"

	"corvek/core/bench"
	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/proof"
	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// step makes a run of a step with the figures that were read.
func step(t *testing.T, name string, last bool, medium string, read map[string]string) run {
	t.Helper()
	p := bench.Point{Test: &family.Test{Hold: "25 min", Medium: medium}}
	p.Row = unit.Point{HoldFrom: time.Unix(1, 0), HoldTo: time.Unix(1501, 0)}
	for code, typed := range read {
		f, known := family.FigureByCode(code)
		require.True(t, known, code)
		q, err := quantity.Parse(typed, f.Dim)
		require.NoError(t, err)
		g := proof.Figured{Read: family.Read{Figure: code}, Q: q, Dim: f.Dim, Name: f.Name}
		if code == "pressure_end" {
			g.By = family.ByDecay
		}
		p.Figures = append(p.Figures, g)
	}
	return run{name, last, p}
}

func withHeat(r run, pascal float64) run {
	for i := range r.Figures {
		if r.Figures[i].By == family.ByDecay {
			r.Figures[i].Heat, r.Figures[i].Told = pascal, true
		}
	}
	return r
}

// 100 to 95 bar while it cooled: of the 5 bar temperature did 1.3, so 96.3 stands at the start
// temperature.
func TestDecayChartTellsTheThermalShare(t *testing.T) {
	r := step(t, "after the work", true, "dry gas", map[string]string{"pressure": "100 bar", "pressure_end": "95 bar",
		"temperature": "30 °C", "temperature_end": "26 °C"})
	c := decayChart([]run{withHeat(r, -1.3e5)}, quantity.Metric)
	for _, words := range []string{"after the work, as read", "temperature taken out", ">95.0 bar<", ">96.3 bar<",
		">time, min<"} {
		assert.Contains(t, c.SVG, words)
	}
	assert.Contains(t, c.Note, "Temperature did 1.3 bar of it")

	alone := step(t, "after the work", true, "dry gas", map[string]string{"pressure": "100 bar",
		"pressure_end": "95 bar"})
	for i := range alone.Figures {
		alone.Figures[i].Cooling = 3.4e5
	}
	bare := decayChart([]run{alone}, quantity.Metric)
	assert.Contains(t, bare.SVG, "cooling alone could do this")
	assert.NotContains(t, bare.SVG, "temperature taken out")
	// Where nothing was brought to one temperature, nothing is said of temperature.
	share := step(t, "after the work", true, "", map[string]string{"pressure": "100 bar", "pressure_end": "97 bar",
		"temperature": "30 °C", "temperature_end": "26 °C"})
	for i := range share.Figures {
		if f := &share.Figures[i]; f.Figure == "pressure_end" {
			f.By, f.Of, f.Dim, f.From = family.ByLimit, "start", quantity.Number, "guidance"
			f.Limits = metrology.Limits{Lower: 0.98, HasLower: true}
		}
	}
	plainly := decayChart([]run{share}, quantity.Metric)
	assert.Contains(t, plainly.SVG, "limit, guidance")
	assert.NotContains(t, plainly.SVG, "temperature taken out")
	assert.Empty(t, plainly.Note)
	assert.Empty(t, decayChart([]run{step(t, "x", true, "", map[string]string{"pressure": "100 bar"})},
		quantity.Metric).SVG, "one reading is no decay")
}

func TestDriftChartHasItsLimit(t *testing.T) {
	was := step(t, "as received", false, "", map[string]string{"drift": "9 mm"})
	is := step(t, "after the work", true, "", map[string]string{"drift": "0.5 mm"})
	is.Figures[0].Limits, is.Figures[0].From = metrology.Limits{Upper: 0.002, HasUpper: true}, "guidance"
	c := driftChart([]run{was, is}, quantity.Metric)
	nine := ">" + quantity.Show(0.009, quantity.Length, quantity.Metric) + "<"
	for _, words := range []string{"as received", "after the work", nine, "limit, guidance"} {
		assert.Contains(t, c.SVG, words)
	}
	assert.Empty(t, driftChart(nil, quantity.Metric).SVG)
}

// 22 gpm at 600 psi: by the root, 775 psi are where the curve meets 25.
func TestStandbyChartFollowsTheRoot(t *testing.T) {
	r := step(t, "after the work", true, "", map[string]string{"standby": "600 psi", "flow": "22 gpm"})
	c := standbyChart(0, []run{r}, quantity.Inch)
	assert.Contains(t, c.SVG, "after the work, 22")
	assert.Contains(t, c.Note, "not measured")
	assert.Equal(t, 1, strings.Count(c.SVG, `class="tr now"`))
	assert.Empty(t, standbyChart(0, []run{step(t, "x", true, "", map[string]string{"standby": "600 psi"})},
		quantity.Inch).SVG, "without a flow there is nothing to draw it against")
}
