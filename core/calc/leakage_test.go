package calc_test

import (
	"encoding/json"
	"testing"

	"corvek/core/calc"

	"pgregory.net/rapid"
)

func TestLeakGrowsWithClearance(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		gap := rapid.Float64Range(0.001, 0.5).Draw(t, "gap")
		more := gap * rapid.Float64Range(1.01, 3).Draw(t, "times")
		flow := func(g float64) float64 {
			body, _ := json.Marshal(map[string]any{"width": "25 mm", "length": "10 mm", "gap": jsonLength(g),
				"pressure_drop": "100 bar", "dynamic_viscosity": "40 cP"})
			out, err := calc.Run("plane_leak", body)
			if err != nil {
				t.Fatal(err)
			}
			v, _ := out.Value("flow")
			return v
		}
		if flow(more) <= flow(gap) {
			t.Fatalf("a wider gap leaked less: %v, %v", gap, more)
		}
	})
}

func jsonLength(mm float64) string {
	b, _ := json.Marshal(mm)
	return string(b) + " mm"
}
