package proof

import (
	"testing"

	"corvek/core/family"
	"corvek/core/metrology"
	"corvek/core/quantity"
	"corvek/core/unit"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func pointOf(t *testing.T, read map[string]string) *unit.Point {
	t.Helper()
	p := &unit.Point{}
	for code, typed := range read {
		g, known := family.FigureByCode(code)
		require.True(t, known)
		q, err := quantity.Parse(typed, g.Dim)
		require.NoError(t, err)
		p.Put(code, q)
	}
	return p
}

func torqueOf(t *testing.T, step *family.Test, read map[string]string) *Figured {
	t.Helper()
	j := JudgeStep(step, pointOf(t, read), Rules{})
	return j.Figure("torque")
}

// 200 bar at 40 L/min are 13.33 kW; 98 N·m at 1450 rpm are 14.88 kW. As a pump 89.6 %; a motor
// would give back more than it takes. Without a limit it is a figure and no verdict.
func TestOverallEfficiency(t *testing.T) {
	read := map[string]string{"pressure": "200 bar", "flow": "40 L/min", "torque": "98 N·m", "speed": "1450 rpm"}
	torque := family.Read{Figure: "torque", By: family.ByOverall, May: true}
	pump := family.Test{Code: "p100", Reads: []family.Read{{Figure: "pressure"}, {Figure: "flow"}, torque}}
	f := torqueOf(t, &pump, read)
	assert.InDelta(t, 0.896, f.Value, 0.0005)
	assert.Equal(t, metrology.Verdict(""), f.Verdict)
	assert.Empty(t, f.Note)

	torque.Least = "0.92"
	pump.Reads[2] = torque
	f = torqueOf(t, &pump, read)
	assert.Equal(t, metrology.Out, f.Verdict)

	motor := family.Test{Code: "slip_cw", Reads: []family.Read{{Figure: "pressure"},
		{Figure: "flow", By: family.BySlip}, {Figure: "torque", By: family.ByOverall, May: true}}}
	f = torqueOf(t, &motor, read)
	assert.InDelta(t, 1.116, f.Value, 0.0005)
	assert.Contains(t, f.Note, "a gauge is wrong")

	delete(read, "flow")
	f = torqueOf(t, &pump, read)
	assert.Equal(t, "flow", f.Needs)
	assert.Equal(t, metrology.Verdict(""), f.Verdict)
}
