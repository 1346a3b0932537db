package measure_test

import (
	"testing"

	"corvek/core/family"
	"corvek/core/measure"
	"corvek/core/metrology"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
)

// An allowance of less than four times the uncertainty of what it was measured with is not judged.
func TestMeasureFiner(t *testing.T) {
	for _, c := range []struct {
		name  string
		s     measure.Spec
		in    string
		finer bool
	}{
		{"a vernier on twenty microns", measure.Spec{Method: family.MethodValue, New: point("20 mm"), Wears: "shaft",
			Lower: size("19.98 mm"), Resolution: size("0.02 mm"), Tool: metrology.Calipers}, "19.99 mm", true},
		{"a micrometer on twenty microns", measure.Spec{Method: family.MethodValue, New: point("20 mm"), Wears: "shaft",
			Lower: size("19.98 mm"), Resolution: size("0.001 mm"), Tool: metrology.Micrometer}, "19.99 mm", false},
		{"a micrometer on ten microns", measure.Spec{Method: family.MethodValue, New: point("20 mm"), Wears: "shaft",
			Lower: size("19.99 mm"), Resolution: size("0.001 mm"), Tool: metrology.Micrometer}, "19.999 mm", true},
		{"one that is certified to a micron", measure.Spec{Method: family.MethodValue, New: point("20 mm"),
			Wears: "shaft", Lower: size("19.99 mm"), Resolution: size("0.001 mm"), Tool: metrology.Micrometer,
			Permitted: size("0.001 mm")}, "19.999 mm", false},
		{"the same part warm from the wash", measure.Spec{Method: family.MethodValue, New: point("20 mm"),
			Wears: "shaft", Lower: size("19.99 mm"), Resolution: size("0.001 mm"), Permitted: size("0.001 mm"),
			Growth: metrology.Steel, Apart: 30}, "19.999 mm", true},
		{"a depth on its whole band", measure.Spec{Method: family.MethodDepth, Cols: 1, Lower: size("0.08 mm"),
			Upper: size("0.18 mm"), Resolution: size("0.01 mm"), Tool: metrology.DepthMic}, "0.12 mm", false},
		{"a depth gauge on it", measure.Spec{Method: family.MethodDepth, Cols: 1, Lower: size("0.08 mm"),
			Upper: size("0.18 mm"), Resolution: size("0.01 mm"), Tool: metrology.DepthGauge}, "0.12 mm", true},
		{"no limit", measure.Spec{Method: family.MethodValue, Wears: "shaft", Resolution: size("1 mm")}, "20 mm",
			false},
	} {
		r := measure.Evaluate(c.s, []*unit.Reading{entry("v1", c.in)})
		assert.Equal(t, c.finer, r.Finer, c.name)
		if c.finer {
			assert.Empty(t, r.Verdict, c.name)
			assert.Contains(t, r.Settle, "measure finer", c.name)
			assert.False(t, r.HasUsed, c.name)
		}
	}
	leaves := measure.Evaluate(
		measure.Spec{Method: family.MethodFeeler, Upper: size("1 thou"), Leaves: []string{"1 thou"},
			Resolution: size("1 thou"), Measured: "total", LimitFor: "total"},
		leaves("1 thou", "stops"),
	)
	assert.False(t, leaves.Finer, "leaves are judged by which of them go")
}
