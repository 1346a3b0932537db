package calc_test

import (
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"testing"

	"corvek/core/calc"

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
