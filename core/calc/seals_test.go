package calc_test

import (
	"testing"

	"corvek/core/calc"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestOringAndLipCandidates(t *testing.T) {
	first := func(name, in, list string) map[string]any {
		out, err := calc.Run(name, []byte(in))
		require.NoError(t, err)
		rows := out.Get(list).([]map[string]any)
		require.NotEmpty(t, rows)
		return rows[0]
	}
	assert.Equal(t, "-214", first("oring_find", `{"inside":"0.984 in","section":"0.139 in"}`, "candidates")["code"])
	assert.Equal(t, "23.6x3.55", first("oring_find", `{"inside":"24 mm","section":"3.5 mm"}`, "candidates")["code"])
	for in, near := range map[string]bool{`{"inside":"24 mm","section":"3.5 mm"}`: true,
		`{"inside":"25 mm","section":"9.9 mm"}`: false, `{"inside":"900 mm","section":"7 mm"}`: false} {
		out, err := calc.Run("oring_find", []byte(in))
		require.NoError(t, err)
		assert.Equal(t, near, len(out.Warnings) == 0, "%s: %v", in, out.Warnings)
	}
	lip := first("lip_seal_find", `{"shaft":"3/4 in","bore":"1-1/4 in"}`, "candidates")
	assert.InDelta(t, 0.01905, lip["shaft"].(calc.Figure).Value, 1e-9)
	assert.InDelta(t, 0.03175, lip["bore"].(calc.Figure).Value, 1e-9)
	from := first("lip_offset", `{"groove_from_face":"5 mm","groove_width":"0.8 mm","seal_width":"7 mm",`+
		`"lip_position":"4 mm","bore_depth":"12 mm","margin":"0.5 mm"}`, "press_depths")
	assert.InDelta(t, 0.5e-3, from["to"].(calc.Figure).Value, 1e-12)
	out, err := calc.Run("fill_plan", []byte(`{"capacity":"10 L","level":"8 L","step":"0.75 L","cap":"0.5 L"}`))
	require.NoError(t, err)
	assert.Len(t, out.Get("additions"), 4)
}
