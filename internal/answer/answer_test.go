package answer_test

import (
	"encoding/json"
	"testing"

	"corvek/core/calc"
	"corvek/core/quantity"
	"corvek/core/unit"
	"corvek/internal/answer"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestFiguresAsAShopWritesThem(t *testing.T) {
	for _, c := range []struct {
		f           calc.Figure
		metric, inc string
	}{
		{calc.Figure{Value: 0.0254, Unit: "m"}, "25.400 mm", "1.0000 in"},
		{calc.Figure{Value: 46e-6, Unit: "m2/s"}, "46.0 cSt", "46.0 cSt"},
		{calc.Figure{Value: 2, Unit: ""}, "2", "2"},
		{calc.Figure{Value: 0.1234567, Unit: ""}, "0.1235", "0.1235"},
		{calc.Figure{Value: 5e-9, Unit: "m/h"}, "5.00 µm in 1000 h", "5.00 µm in 1000 h"},
		{calc.Figure{Value: 21e6, Unit: "Pa"}, "210.0 bar", "3046 psi"},
	} {
		assert.Equal(t, c.metric, answer.Text(c.f, quantity.Metric))
		assert.Equal(t, c.inc, answer.Text(c.f, quantity.Inch))
	}
}

// Whatever a calculator answers is put into words, and an example's inputs
// survive the way through an address.
func TestEveryAnswerHasWords(t *testing.T) {
	for _, d := range calc.All() {
		out, err := calc.Run(d.Name, []byte(d.Example))
		require.NoError(t, err)
		for _, r := range answer.Rows(out, quantity.Metric) {
			assert.NotEmpty(t, r.Text, "%s %s", d.Name, r.Label)
			assert.NotContains(t, r.Text, "map[", d.Name)
		}
		var in map[string]any
		require.NoError(t, json.Unmarshal([]byte(d.Example), &in))
		assert.NotEmpty(t, answer.Query(in), d.Name)
	}
}

func TestKeptCalculations(t *testing.T) {
	out, err := calc.Run("creep_leak", []byte(`{"bore":"80 mm","creep":"12 mm","duration":"10 min"}`))
	require.NoError(t, err)
	text, err := json.Marshal(out)
	require.NoError(t, err)
	j := &unit.Job{Worked: []*unit.Worked{
		{Calculator: "creep_leak", Note: "overnight", Inputs: `{"bore":"80 mm","creep":"12 mm",` +
			`"duration":"10 min"}`, Answer: string(text)},
		{Calculator: "creep_leak", Inputs: `{}`, Answer: `{broken`},
	}}
	kept := answer.Kept(j, quantity.Metric)
	require.Len(t, kept, 1, "what cannot be read is not shown")
	// 50.265 cm² · 12 mm in 10 min = 6.03 mL/min
	assert.Equal(t, "Leak 6.0 ml/min", kept[0].ResultText())
	assert.Equal(t, "Bore 80 mm; Creep 12 mm; Duration 10 min", kept[0].GivenText())
	assert.Contains(t, kept[0].Again, "/toolbox/creep_leak?bore=80+mm")
}
