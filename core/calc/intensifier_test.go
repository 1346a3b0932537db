package calc_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"strings"
	"testing"

	"corvek/core/calc"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// Whatever figure is quoted, each way out that is offered makes it true: the
// input, put in alone, gives the quoted figure.
func TestEveryWayOutOfAQuotedFigureLeadsThere(t *testing.T) {
	units := map[string]string{"ratio": "", "drive_force": "N", "output_pressure": "Pa", "ram_force": "N",
		"strokes_to_extend": "", "output_flow": "m3/s", "extend_time": "s", "volume_per_stroke": "m3"}
	inputs := map[string]string{"drive_bore": "m", "drive_pressure": "Pa", "plunger_diameter": "m", "stroke": "m",
		"ram_bore": "m", "ram_stroke": "m", "cycle_rate": "Hz", "return_spring_force": "N", "force_efficiency": ""}
	rapid.Check(t, func(t *rapid.T) {
		draw := func(name string, lo, hi float64) float64 { return rapid.Float64Range(lo, hi).Draw(t, name) }
		in := map[string]any{
			"drive_bore": with(draw("bore", 60, 400), "mm"), "drive_pressure": with(draw("air", 2, 10), "bar"),
			"plunger_diameter": with(draw("plunger", 10, 50), "mm"),
			"stroke":           with(draw("stroke", 30, 300), "mm"), "ram_bore": with(draw("ram", 40, 200), "mm"),
			"ram_stroke":          with(draw("travel", 20, 600), "mm"),
			"cycle_rate":          with(draw("rate", 5, 120), "/min"),
			"return_spring_force": with(draw("spring", 0, 300), "N"), "force_efficiency": draw("efficiency", .7, 1),
		}
		key := rapid.SampledFrom([]string{"ratio", "drive_force", "output_pressure", "ram_force",
			"strokes_to_extend", "output_flow", "extend_time", "volume_per_stroke"}).Draw(t, "key")
		quoted := value(t, "intensifier", key, in) * draw("off", .2, 5)
		asked := maps.Clone(in)
		asked["stated"] = map[string]any{key: fmt.Sprintf("%.15g %s", quoted, units[key])}
		body, err := json.Marshal(asked)
		if err != nil {
			t.Fatal(err)
		}
		out, err := calc.Run("intensifier", body)
		if err != nil {
			t.Fatal(err)
		}
		ways := out.Get("stated").(map[string]any)[key].(map[string]any)["would_need"].(map[string]any)
		if len(ways) == 0 {
			t.Fatalf("no way out of %s = %g", key, quoted)
		}
		for name, need := range ways {
			changed := maps.Clone(in)
			changed[name] = fmt.Sprintf("%.15g %s", need.(calc.Figure).Value, inputs[name])
			if got := value(t, "intensifier", key, changed); math.Abs(got-quoted) > 1e-9*quoted {
				t.Fatalf("%s = %v gives %s %g, quoted %g", name, changed[name], key, got, quoted)
			}
		}
	})
}

// Quoted 250 bar from 6 bar on 120:20 cannot be: each input alone is named with
// the value that would make it true.
func TestStatedFiguresAreHeldAgainstTheDimensions(t *testing.T) {
	out, err := calc.Run("intensifier", []byte(`{"drive_bore":"120 mm","drive_pressure":"6 bar",`+
		`"plunger_diameter":"20 mm","stated":{"output_pressure":"250 bar"}}`))
	require.NoError(t, err)
	row := out.Get("stated").(map[string]any)["output_pressure"].(map[string]any)
	assert.InDelta(t, 34e5, row["difference"].(calc.Figure).Value, 1)
	need := row["would_need"].(map[string]any)
	assert.InDelta(t, 250e5/36, need["drive_pressure"].(calc.Figure).Value, 1)
	assert.InDelta(t, 0.020*math.Sqrt(216.0/250), need["plunger_diameter"].(calc.Figure).Value, 1e-7)
	_, has := need["force_efficiency"]
	assert.False(t, has, "an efficiency above 1 is no way out")
}

// The working can be followed with a pocket calculator: every area stands there
// with its unit, and a quoted figure with its own.
func TestIntensifierWorkingCanBeFollowed(t *testing.T) {
	out, err := calc.Run("intensifier", []byte(`{"drive_bore":"71.12 mm","drive_pressure":"6 bar",`+
		`"plunger_diameter":"6.4 mm","stroke":"50 mm","stated":{"volume_per_stroke":"3 cc"}}`))
	require.NoError(t, err)
	working := strings.Join(out.Steps, "\n")
	for _, line := range []string{
		"A_drive = π/4·(71.12 mm)² = 39.73 cm²", "A_plunger = π/4·(6.400 mm)² = 0.3217 cm²",
		"39.73 cm² / 0.3217 cm² = 123.5", "volume_per_stroke: 3.0 ml stated, 1.6 ml worked out"} {
		assert.Contains(t, working, line)
	}
}
